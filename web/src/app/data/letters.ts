import type { Correction, MarkerReading, NewReading, NewRetest, NewRound, PlanChange, Remark, StudyReading } from '@dial-gauge/contract';

/** One thing that was entered and has to reach the server, as data: it outlives the page. */
interface Common {
  /** Made with it; the server knows a second sending by it. */
  readonly id: string;
  /** Who entered it. It is sent under no other name. */
  readonly userId: string;
  /** The visit or the study it belongs to. */
  readonly visitId: string;
  /** What the address of the request names: a visit, a reading, a retest or a study. */
  readonly target: string;
  /** What it is, for a list of what is waiting: "left hip flexion, passive 98". */
  readonly words: string;
}

export type Letter = Common &
  (
    | { readonly route: 'holdReading'; readonly body: NewReading }
    | { readonly route: 'correctReading'; readonly body: Correction }
    | { readonly route: 'withdrawReading'; readonly body: Record<string, never> }
    | { readonly route: 'remark'; readonly body: Remark }
    | { readonly route: 'setPlan'; readonly body: PlanChange }
    | { readonly route: 'startRetest'; readonly body: NewRetest }
    | { readonly route: 'noteDrill'; readonly body: NewRound }
    | { readonly route: 'readMarker'; readonly body: MarkerReading }
    | { readonly route: 'finishRetest'; readonly body: Record<string, never> }
    | { readonly route: 'readStudy'; readonly body: StudyReading }
  );

/** A letter as it waits, numbered in the order it was entered. */
export type WaitingLetter = Letter & {
  readonly seq: number;
  /** Why the server refused it; kept until somebody has looked. */
  readonly refused?: string;
};
