import type { MotionId, Side } from '../terms.js';
import { hurts, type GradedItem } from './grade.js';

/** A motion that somebody did not reach by their own strength while an item was done, and what showed it. */
export interface NotReached {
  readonly motion: MotionId;
  readonly side: Side;
  readonly graded: GradedItem;
}

/**
 * What of a movement is not reached by one's own strength: the part of a circle
 * that is cut off, and faults that stand for it. Says nothing of the range
 * itself; what hurts says nothing of strength.
 */
export function notReached(graded: readonly GradedItem[]): NotReached[] {
  return graded.flatMap((one) => {
    if (hurts(one) || one.quality !== 'short') return [];
    const shown = one.item.faults.flatMap((fault) => (one.faults.includes(fault.id) ? (fault.ownStrength ?? []) : []));
    return [...new Set([...one.missing, ...shown])].map((motion) => ({ motion, side: one.side, graded: one }));
  });
}
