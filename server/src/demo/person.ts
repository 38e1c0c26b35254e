import type { Outcome } from '@dial-gauge/contract';
import type {
  DrillSide,
  Equipment,
  GoalChoice,
  Instrument,
  InvolvedSide,
  ItemDone,
  ItemTry,
  Joint,
  Mode,
  MotionId,
  Sex,
} from '@dial-gauge/core';

/** Left and right, in the motion's unit. */
type Pair = readonly [left: number, right: number];
export interface DemoReading {
  readonly motion: MotionId;
  readonly active?: Pair;
  readonly passive?: Pair;
  /** One value for the body, by the first mode of the protocol. */
  readonly midline?: number;
  /** What two inclinometers moved, upper and lower site. */
  readonly sites?: readonly [upper: number, lower: number];
  /** Another way than the usual one, by its protocol id. */
  readonly protocol?: string;
  readonly instrument?: Instrument;
  /** Pain 0–10 at the end of the passive motion. */
  readonly pain?: { readonly side: 'left' | 'right'; readonly level: number; readonly where: string };
  readonly faked?: { readonly side: 'left' | 'right'; readonly by: string };
}

/** One try of an item of a screen. */
export interface DemoTry extends Pick<ItemDone, 'item' | 'view' | 'with' | 'side'> {
  readonly screen: string;
  readonly seen: ItemTry;
}

export interface DemoVisit {
  readonly daysAgo: number;
  readonly byColleague?: boolean;
  readonly readings: readonly DemoReading[];
  readonly screened?: readonly DemoTry[];
  /** A marker before and after drills, left and right of hip flexion and so on: drill, value. */
  readonly retest?: {
    readonly protocol: string;
    readonly side: 'left' | 'right';
    readonly rounds: readonly (readonly [drill: string, value: number])[];
  };
  readonly program?: DemoProgram;
}

/** What was given, each drill in its own dose. */
export interface DemoProgram {
  readonly drills: readonly (readonly [drill: string, side: DrillSide])[];
  readonly equipment: readonly Equipment[];
  readonly recheckInDays: number;
}

export interface DemoPatient {
  readonly givenName: string;
  readonly familyName: string;
  readonly age: number;
  readonly sex: Sex;
  readonly occupation: string;
  readonly complaint: string;
  readonly complaintAt: Joint;
  readonly involvedSide: InvolvedSide | null;
  readonly procedure?: { readonly id: string; readonly daysAgo: number };
  readonly wanted?: string;
  /** When they are to be measured again, in days from today. */
  readonly dueInDays?: number;
  /** Discharged so many days ago. */
  readonly ended?: { readonly daysAgo: number; readonly outcome: Outcome };
  /** The last visit is signed by whoever examined. */
  readonly signed?: true;
  /** A limit that stood until so many days after the operation. */
  readonly limit?: {
    readonly motion: MotionId;
    readonly mode: Mode;
    readonly limit: number;
    readonly forDays: number;
    readonly source: string;
  };
  readonly goals?: readonly {
    readonly protocol: string;
    readonly side: 'left' | 'right';
    readonly mode: Mode;
    readonly goal: GoalChoice;
  }[];
  readonly visits: readonly DemoVisit[];
}
