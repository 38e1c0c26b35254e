import type { Degrees } from '../terms.js';

/**
 * The range of one joint in one plane, as signed end positions of two opposite
 * motions. Each end is positive in its own motion's direction, negative when
 * that motion cannot reach zero: a knee from 15 to 120 of flexion is
 * `{ first: -15, last: 120 }` with extension first.
 */
export interface MovingArc {
  readonly kind: 'moving';
  readonly first: Degrees;
  readonly last: Degrees;
}

/** A joint that does not move: fixed so many degrees along the last motion (negative: along the first). */
export interface FixedArc {
  readonly kind: 'fixed';
  readonly at: Degrees;
}

export type Arc = MovingArc | FixedArc;

/**
 * Total arc in degrees: the sum of the two signed end positions.
 *
 * @example arcSize({ kind: 'moving', first: -15, last: 135 }) // 120
 */
export function arcSize(arc: Arc): Degrees {
  return arc.kind === 'fixed' ? 0 : arc.first + arc.last;
}
