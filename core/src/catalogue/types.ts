import type { ZeroWords } from '../words/figures.js';
import type { Plane } from '../notation/planes.js';
import type { Degrees, EndFeel, Instrument, Mode, MotionId, Position, Region, Source, Unit } from '../terms.js';
import type { Figure } from './figure/types.js';

/** How the dial is drawn: where zero points and which way the motion turns, as the examiner sees it. */
export interface DialView {
  /** Where the moving segment points at zero, for the left side: degrees clockwise from straight up. */
  readonly zeroAt: Degrees;
  /** 1 when the left side turns clockwise on the dial, −1 when it turns the other way. The right side mirrors both. */
  readonly sense: 1 | -1;
  /** How far the scale runs beyond zero, and back past it, where no reading asks for more. */
  readonly scale: { readonly on: Degrees; readonly back: Degrees };
  /** From where the examiner looks, in words. */
  readonly seenFrom: string;
}

/** A movement of a neighbour that fakes range. */
export interface Substitution {
  readonly id: string;
  readonly label: string;
}

/** Where the instrument goes. Which of these a protocol has follows from what reads it. */
export type Placement =
  | { readonly how: 'arms'; readonly axis: string; readonly still: string; readonly moving: string; readonly site?: string }
  | { readonly how: 'sites'; readonly upper: string; readonly lower?: string }
  | { readonly how: 'tape'; readonly from: string; readonly to: string }
  | { readonly how: 'push'; readonly at: string; readonly against: string }
  | { readonly how: 'clock'; readonly starts: string; readonly stops: string }
  | { readonly how: 'eye'; readonly yes: string };

/**
 * How the movement lies to gravity. An inclinometer reads only in a vertical
 * plane; a turn about a vertical axis it cannot read at all.
 */
export type Swing = 'vertical' | 'horizontal' | 'none';

/** What of the readings is kept: a way moved from zero, where the segment stands against plumb or level, an amount, or an answer. */
export type Reads = 'excursion' | 'position' | 'length' | 'force' | 'time' | 'answer';

/** One way of measuring one motion. Two protocols of a motion are never compared with each other unsaid. */
export interface Protocol {
  /** `<motion>/<position>`, with `-<variant>` where one position has several; kept with every reading. */
  readonly id: string;
  readonly version: number;
  readonly motion: MotionId;
  readonly position: Position;
  /** What sets it apart from the usual protocol: `at-side`, `thigh`, `hip-90`. Norms of the usual one do not fit it. */
  readonly variant: string | null;
  /** "prone", "supine, arm at the side": how it is told from the others in words. */
  readonly label: string;
  /** The same without the position: "arm at the side"; empty for the usual one. */
  readonly variantLabel: string;
  readonly modes: readonly Mode[];
  /** The first is the usual one. */
  readonly instruments: readonly Instrument[];
  readonly swing: Swing;
  readonly reads: Reads;
  readonly startingPosition: string;
  readonly placement: Placement;
  readonly stabilise: string;
  readonly substitutions: readonly Substitution[];
  /** Empty only where nothing is taken to an end: girths, leg length, strength, balance. */
  readonly endFeel: readonly EndFeel[];
  /** A two-joint muscle that can stop the motion early, and how to slacken it. */
  readonly twoJoint?: string;
  /** Where students and patients read the name backwards. */
  readonly namingTrap?: string;
  /** What may not be measured or compared this way, and why. */
  readonly notThisWay?: string;
  /** Ask or look before starting. */
  readonly caution?: string;
  /** How many readings are usual, and which of them counts. */
  readonly trials: { readonly count: number; readonly summary: Summary };
  readonly dial?: DialView;
  readonly figure: Figure;
  readonly source: Source;
}

export const SUMMARIES = ['mean', 'best', 'median'] as const;
export type Summary = (typeof SUMMARIES)[number];

/** Which way is good: more range, less distance to the goal, or neither (a girth says something only beside the other side). */
export type Better = 'more' | 'less' | 'neither';

export interface Motion extends ZeroWords {
  readonly id: MotionId;
  readonly joint: Region;
  /** Plane of the neutral-zero notation; null outside a single joint's angle. */
  readonly plane: Plane | null;
  /** "Hip internal rotation" */
  readonly name: string;
  /** "Internal rotation" */
  readonly short: string;
  readonly unit: Unit;
  readonly better: Better;
  /** A limb's left and right; the direction moved to, for the spine; or one value for the body. */
  readonly sides: 'limb' | 'towards' | 'midline';
  /** True where a finger has to be named. */
  readonly perDigit: boolean;
  /** True where the usual end lies at zero or near it: a limit of zero still leaves what is lacking to be measured, and zero itself is its end. */
  readonly endsNearZero: boolean;
  /** The motion on the other side of zero, with which this one makes an arc. */
  readonly opposite: MotionId | null;
  /** Values a body can hold, in the motion's unit. Outside lies a typing error, not a finding. */
  readonly limits: { readonly min: number; readonly max: number };
  readonly protocols: readonly Protocol[];
}
