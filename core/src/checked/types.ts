import type { Figures, ValueKind } from '../looked-up.js';
import type { MotionId, Unit } from '../terms.js';

/** One value that can be looked up. */
export interface PrintedValue {
  readonly kind: ValueKind;
  /** Of which norm set or procedure; of the errors always the same. */
  readonly of: string;
  /** What it is a value of, inside its set: the same as long as the value is about the same. */
  readonly key: string;
  readonly motion: MotionId;
  /** Under which conditions, in words. */
  readonly about: string;
  readonly figures: Figures;
  /** Unit of each figure, with what it may be. */
  readonly allowed: Readonly<Record<string, { readonly unit: Unit | 'weeks'; readonly min: number; readonly max: number }>>;
}
