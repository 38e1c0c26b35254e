import { motion } from '../catalogue/index.js';
import type { InvolvedSide, Mode, MotionId, Side } from '../terms.js';

/** What tells how much a measurement is worth when time is short. */
export interface Worthy {
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
}

export interface WorthContext {
  readonly involved: InvolvedSide | null;
  /** Measured at the visit before: only then can a change be seen. */
  readonly measuredBefore: (of: Worthy) => boolean;
  /** Found short or painful at the visit before. */
  readonly foundBefore: (of: Worthy) => boolean;
}

/**
 * Worth of one measurement: counted in points, so that a sum can be compared
 * and a reason can be given. The involved side says more than the other one;
 * what was found short or painful last time most of all; what was measured
 * last time shows a change; what stands early in the exam set was chosen
 * first.
 *
 * @param place position in the list as chosen, from 0
 * @param of how many there are
 * @see common practice, no source; the weights are this program's own
 */
export function worthOf(item: Worthy, place: number, of: number, { involved, measuredBefore, foundBefore }: WorthContext): number {
  const involvedSide = item.side === 'midline' || involved === null || involved === 'both' || item.side === involved;
  const active = item.mode === 'active' && motion(item.motion).unit === 'deg';
  return (
    20 +
    (involvedSide ? 12 : 0) +
    (foundBefore(item) ? 14 : 0) +
    (measuredBefore(item) ? 6 : 0) +
    (active ? 0 : 4) +
    Math.round((4 * (of - place)) / Math.max(1, of))
  );
}
