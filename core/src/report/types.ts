import type { Judgement } from '../finding/index.js';
import type { Limits } from '../precaution/index.js';
import type { Operation } from '../course/index.js';
import type { ProgressSeries } from '../progress/index.js';
import type { Dose, Drill, DrillSide, Pose } from '../program/index.js';
import type { InvolvedSide, IsoDate } from '../terms.js';

/** For whom a page is written. */
export const REPORT_KINDS = ['referrer', 'patient', 'evidence'] as const;
export type ReportKind = (typeof REPORT_KINDS)[number];

/** A drill as it was given. */
export interface ReportedDrill {
  readonly drill: string;
  readonly side: DrillSide;
  readonly dose: Dose;
  /** Own words in place of the drill's cues; empty: the drill's. */
  readonly words: string;
}

/** Everything a page is made from. What is signed is a copy of its day. */
export interface ReportFacts {
  readonly clinic: string;
  readonly person: { readonly givenName: string; readonly familyName: string; readonly birthDate: IsoDate; readonly occupation: string };
  readonly complaint: string;
  readonly wanted: string;
  readonly involvedSide?: InvolvedSide;
  readonly operation?: Operation;
  /** The operation as it was written, where it is none that the program knows. */
  readonly operationWords: string;
  /** Those of the visit: everything on a page that tells somebody to do something is held against them. */
  readonly limits: Limits;
  readonly assessedOn: IsoDate;
  readonly visitNumber: number;
  readonly examiner: string;
  readonly judgement: Judgement;
  /** As it was written or signed. */
  readonly summary: string;
  /** Of the visits up to this one. */
  readonly series: readonly ProgressSeries[];
  readonly firstOn: IsoDate;
  readonly program: {
    readonly drills: readonly ReportedDrill[];
    /** The drills there were for the clinic then; those that ship where it is left out. */
    readonly known?: readonly Drill[];
    readonly recheckOn: IsoDate;
    readonly note: string;
    readonly by: string;
    readonly on: IsoDate;
  } | null;
  /** Null: a draft. */
  readonly signed: {
    readonly by: string;
    readonly on: IsoDate;
    readonly number: number;
    /** The lead, who stands by it. */
    readonly countersigned?: { readonly by: string; readonly on: IsoDate } | undefined;
  } | null;
}

/** A drill on a page for the person, with its picture. */
export interface DrillBlock {
  readonly kind: 'drill';
  readonly title: string;
  readonly dose: string;
  readonly cues: readonly string[];
  readonly stop: string;
  readonly start: Pose;
  readonly end: Pose;
}

/** A photograph that goes out with a page. */
export interface PictureBlock {
  readonly kind: 'picture';
  readonly alt: string;
  /** JPEG, base64. */
  readonly jpeg: string;
  readonly width: number;
  readonly height: number;
}

/** One piece of a page, in reading order. */
export type Block =
  | { readonly kind: 'heading'; readonly text: string }
  | { readonly kind: 'paragraph'; readonly text: string; readonly tone?: 'quiet' | 'warning' | 'strong' }
  | { readonly kind: 'list'; readonly items: readonly string[] }
  | { readonly kind: 'facts'; readonly rows: readonly (readonly [name: string, value: string])[] }
  | {
      readonly kind: 'table';
      readonly caption: string;
      readonly head: readonly string[];
      readonly rows: readonly (readonly string[])[];
      /** Columns that hold figures. */
      readonly figures: readonly number[];
    }
  | DrillBlock
  | PictureBlock;

/** A page as data: what is previewed, and what is printed. */
export interface Report {
  readonly kind: ReportKind | 'clip' | 'record';
  readonly title: string;
  readonly subtitle: string;
  /** What stands in the foot of every page. */
  readonly foot: string;
  readonly draft: boolean;
  /** Large print. */
  readonly large: boolean;
  readonly blocks: readonly Block[];
}
