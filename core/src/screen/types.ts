import type { DoneTrait, Imposition } from '../imposes/index.js';
import type { Instrument, Mode, MotionId, Position, Source, Unit } from '../terms.js';
import type { FaultId } from './faults.js';
import type { PatternId } from './pattern-ids.js';

/** From where a pattern is looked at. */
export const VIEWS = ['front', 'side', 'behind'] as const;
export type View = (typeof VIEWS)[number];

/** What may be changed about a pattern to see whether it cleans up. */
export const MODIFICATIONS = ['heelsRaised', 'handsOnHips', 'oneSideLoaded', 'kneeStraight', 'feetUnderHips'] as const;
export type Modification = (typeof MODIFICATIONS)[number];

/** Of these, ways of standing: chosen once for a person and kept, so that a series can be compared. */
export const STANCES: readonly Modification[] = ['feetUnderHips'];

/** Where work is felt, or which muscles answer. */
export const FELT = [
  'thighFront',
  'hipFront',
  'trunk',
  'outerThigh',
  'seat',
  'backOfThigh',
  'oppositeBack',
  'sameSideBack',
  'sideOfTrunk',
  'calf',
] as const;
export type Felt = (typeof FELT)[number];

/** Hours of a circle. 12 is forward or up, 3 outward, 6 back or down, 9 inward: the same for both sides of the body. */
export type Hour = 1 | 2 | 3 | 4 | 5 | 6 | 7 | 8 | 9 | 10 | 11 | 12;

/** From which amount on an item meets, and who says so. */
export interface Threshold {
  readonly value: number;
  readonly unit: Unit;
  readonly at: 'least' | 'most';
  readonly source: Source;
}

/** One of the answers that an item can have. */
export interface Choice {
  readonly id: string;
  readonly label: string;
  /** What it says of quality; null: it is noted and says nothing of it. */
  readonly meets: boolean | null;
}

/**
 * How an item is answered, beside faults and pain: by an amount; by looking;
 * by the part of a circle that is cut off; by where it is felt; by a choice.
 */
export type ItemAnswered =
  | {
      readonly by: 'amount';
      readonly unit: Unit;
      readonly min: number;
      readonly max: number;
      readonly with: Instrument;
      readonly counts: 'best' | 'mean';
    }
  | { readonly by: 'look'; /** True where it meets when it was looked for faults and none was seen. */ readonly noFaults?: boolean }
  | { readonly by: 'circle'; readonly hours: Readonly<Record<Hour, readonly MotionId[]>> }
  | { readonly by: 'felt'; readonly wanted: readonly Felt[]; readonly unwanted: readonly Felt[] }
  | { readonly by: 'choice'; readonly choices: readonly Choice[] };

/** A fault that may be seen at an item. */
export interface ItemFault {
  readonly id: FaultId;
  /** From where it is seen; empty where the item has no views. */
  readonly views: readonly View[];
  /** The breakdown that it opens. */
  readonly opens: PatternId | null;
  /** False: noted, and not a fault by itself. */
  readonly counts: boolean;
  /** With these it says nothing. */
  readonly notWith?: readonly Modification[];
  /** Motions that were not reached by one's own strength where this is seen: with the range there by hand, range without strength. */
  readonly ownStrength?: readonly MotionId[];
}

/** The measurement or muscle-length test that an item stands near: it puts a number to the same thing. */
export interface Near {
  readonly protocol: string;
  readonly mode: Mode;
}

/** One thing that is looked at. */
export interface ScreenItem {
  readonly id: string;
  readonly name: string;
  readonly setUp: string;
  /** What is said to the person. */
  readonly say: string;
  /** What "meets" means, in words. */
  readonly meets: string;
  readonly threshold: Threshold | null;
  readonly answered: ItemAnswered;
  readonly views: readonly View[];
  readonly modifications: readonly Modification[];
  readonly faults: readonly ItemFault[];
  /** Of a limb or to a side; or one for the body. Where it may be either, it is not asked. */
  readonly sides: 'each' | 'none' | 'either';
  /** What is asked about pain. */
  readonly painQuestion: string;
  readonly tries: number;
  readonly position: Position;
  readonly mode: Mode;
  readonly imposes: readonly Imposition[];
  readonly traits: ReadonlySet<DoneTrait>;
  /** Measurements that are no direction of a joint and that it is, looked at. */
  readonly is: readonly MotionId[];
  readonly near: readonly Near[];
  /** The breakdown that opens where it falls short. */
  readonly opens: PatternId | null;
  /** Which side of the body it tells of, for a summary of front and back. */
  readonly chain: 'front' | 'back' | null;
  /** Minutes for one side. */
  readonly minutes: number;
  /** May be done alone at home. */
  readonly atHome: boolean;
  readonly caution: string | null;
  /** Scene that it is drawn on; from another view, where it has views. */
  readonly figure: string;
  readonly figureFrom: Readonly<Partial<Record<View, string>>>;
  readonly source: Source;
  /** Another item of the screen that is done in place of this one: one of the two is asked. */
  readonly orElse: string | null;
  /** The item as it was asked before, where its definition changed: its answers are another series. */
  readonly formerly: string | null;
}

/** Items that are run together. A change of what an item means is another version. */
export interface Screen {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  /** What it is for, in a sentence. */
  readonly purpose: string;
  readonly items: readonly ScreenItem[];
  /** Items that are asked no more: answers that were given to them are still read. */
  readonly former: readonly ScreenItem[];
}
