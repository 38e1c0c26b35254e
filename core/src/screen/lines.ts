import { defaultError, mdc95 } from '../error/index.js';
import type { FaultId } from './faults.js';
import type { ItemTry } from './result.js';

/**
 * What the lines of shin and trunk say, seen from the side. Parallel is the
 * aim; crossing above the head the trunk falls forward, crossing below the feet
 * it is too upright. A difference inside the error of two lines read from a
 * picture says nothing.
 *
 * @see common practice, no source
 */
export function linesFault(lines: ItemTry['lines']): FaultId[] {
  if (!lines) return [];
  const more = lines.trunk - lines.shin;
  if (Math.abs(more) <= mdc95(defaultError('picture').sameExaminer)) return [];
  return [more > 0 ? 'trunkFallsForward' : 'trunkTooUpright'];
}
