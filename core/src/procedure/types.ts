import type { Confidence, LookedUp, Mode, MotionId, Region, Source } from '../terms.js';
import type { PrecautionKind } from '../precaution/kinds.js';

/** One usual limit after a procedure. */
export interface UsualLimit {
  readonly kind: PrecautionKind;
  readonly motion: MotionId;
  /** Only together with these. */
  readonly with?: readonly MotionId[];
  readonly mode?: Mode;
  /** null: not at all. */
  readonly limit: number | null;
  /** It holds before this many weeks after the procedure; null: for good. */
  readonly untilWeek: number | null;
  /** That this is usual practice, not that it is proven. */
  readonly confidence: Confidence;
  /** Where somebody of the clinic looked it up. */
  readonly lookedUp?: LookedUp;
}

/** A value that the surgeon is told of, from a week on and without an end. */
export interface TellWhen {
  readonly motion: MotionId;
  readonly mode?: Mode;
  /** Variants of protocol it holds for; left out: all. */
  readonly variants?: readonly (string | null)[];
  readonly fromWeek: number;
  /** Less than this, or this and less. */
  readonly below?: number;
  readonly atMost?: number;
  /** More than the other side by so much: a repair that has become too long. */
  readonly beyondOther?: number;
  readonly lookedUp?: LookedUp;
}

/** A procedure with what is usual after it. Every limit is a proposal: the surgeon's win. */
export interface Procedure {
  readonly id: string;
  readonly name: string;
  readonly region: Region;
  /** A joint was replaced: what there is to gain is the surgeon's to say, the other side is not the goal by itself. */
  readonly isReplacement?: true;
  readonly limits: readonly UsualLimit[];
  /** Tasks and tests that are out in the early phase although their names do not say so, in words. */
  readonly alsoOut: string;
  /** Signs the surgeon is told of at any time, in words. */
  readonly tellSigns: string;
  readonly tellWhen: readonly TellWhen[];
  /** What the limits do not say. */
  readonly note: string;
  readonly source: Source;
  /** Where it is not known which it was: the procedures whose limits hold together. */
  readonly anyOf?: readonly string[];
}
