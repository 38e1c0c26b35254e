import type { Random } from './bootstrap.js';

/** One reading to be taken, in the order in which it comes. */
export interface StudyTurn {
  /** Subject and rater (or repeat), from 0. */
  readonly subject: number;
  readonly rater: number;
}

/**
 * The order of a study that keeps its readers blind: whole rounds, one reading
 * of every subject each, so that nobody is read twice in a row and nobody
 * remembers; the subjects shuffled anew every round. Where there are several
 * raters they take turns being first, so that nobody always gets the warm joint.
 *
 * @param kind several examiners, or one examiner's repeats
 * @example blindedOrder(2, 2, 'repeats', random) // e.g. 2·1, 1·1 then 1·2, 2·2
 */
export function blindedOrder(subjects: number, raters: number, kind: 'raters' | 'repeats', random: Random): StudyTurn[] {
  let lastSeen = -1;
  const round = (): number[] => {
    const order = shuffled(subjects, random);
    // The last of one round must not be the first of the next.
    if (order[0] === lastSeen && subjects > 1) order.push(order.shift()!);
    lastSeen = order[order.length - 1]!;
    return order;
  };
  return Array.from({ length: raters }, (_, at) =>
    round().map((subject) => ({ subject, rater: kind === 'repeats' ? at : (at + subject) % raters })),
  ).flat();
}

/** Fisher and Yates. */
function shuffled(count: number, random: Random): number[] {
  const order = Array.from({ length: count }, (_, at) => at);
  for (let at = count - 1; at > 0; at--) {
    const other = Math.floor(random() * (at + 1));
    [order[at], order[other]] = [order[other]!, order[at]!];
  }
  return order;
}
