import type { DoneTrait, Imposition } from '../../imposes/index.js';
import type { CandidateId } from '../../reason/candidates.js';
import type { Mode, MotionId, Position, Source } from '../../terms.js';

/** What a drill does, in the order in which a stiff joint is taken through it. */
export const DRILL_STAGES = ['free', 'mobilise', 'lengthen', 'activate', 'load'] as const;
export type DrillStage = (typeof DRILL_STAGES)[number];

/** What is wanted of a motion: range by hand, a muscle's length, range that is there and not used, force or balance. */
export type NeedWant = 'range' | 'length' | 'control' | 'strength';

/** What has to be at hand. A floor and a wall are everywhere. */
export const EQUIPMENT = [
  'band',
  'strap',
  'towel',
  'ball',
  'roller',
  'stick',
  'step',
  'chair',
  'table',
  'pillow',
  'weight',
  'bike',
  'bar',
] as const;
export type Equipment = (typeof EQUIPMENT)[number];

/** How much and how often. Repetitions or seconds of holding; both where each repetition is held. */
export interface Dose {
  readonly sets: number;
  readonly reps: number | null;
  /** Of one repetition where there are repetitions, else of a set. */
  readonly seconds: number | null;
  readonly timesADay: number;
  readonly daysAWeek: number;
}

/** What a drill should move: a way of measuring in a mode, or an item of a screen. */
export type Moves = { readonly protocol: string; readonly mode: Mode } | { readonly screen: string; readonly item: string };

/** A body as it stands at the start or the end: a scene, or a way of measuring turned so far. */
export type Pose = { readonly scene: string } | { readonly protocol: string; readonly value: number };

/** Why a drill may not be given, beside what precautions say of what it imposes. */
export interface NotWith {
  /** Joints that go further than usual: it would take them further. */
  readonly lax: boolean;
  /** Most pain of ten at which it may be begun; null: as much as is tolerated. */
  readonly pain: number | null;
  /** Whole weeks after an operation on the limb before which it waits, unless the surgeon says otherwise. */
  readonly healingWeeks: number;
}

/** One drill. Everything about it is data; its words are for whoever does it. */
export interface Drill {
  readonly id: string;
  readonly name: string;
  readonly stage: DrillStage;
  /** Directions of joints, lengths, forces and stances that it serves. */
  readonly serves: readonly MotionId[];
  /** Given only where answers point to one of these; left out: wherever it serves. */
  readonly onlyWhere?: readonly CandidateId[];
  /** Done on one limb or to one side; or by the whole body. */
  readonly sides: 'each' | 'none';
  readonly position: Position;
  readonly equipment: readonly Equipment[];
  readonly cues: readonly [string, string, string];
  /** What people do instead. */
  readonly cheat: string;
  readonly dose: Dose;
  readonly doseSource: Source;
  readonly easier: string | null;
  readonly harder: string | null;
  readonly mode: Mode;
  readonly imposes: readonly Imposition[];
  readonly traits: ReadonlySet<DoneTrait>;
  /** Measurements that are no direction of a joint and that it works on. */
  readonly is: readonly MotionId[];
  readonly notWith: NotWith;
  readonly stop: string;
  /** In the order of what it serves first. Never empty. */
  readonly moves: readonly Moves[];
  readonly start: Pose;
  readonly end: Pose;
  readonly source: Source;
}
