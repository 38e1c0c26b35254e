import { isLoss, type Change } from '../finding/change.js';
import type { IsoDate } from '../terms.js';
import type { ProgressSeries } from './progress.js';
import { changeAt, type Series } from './series.js';

/** A measurement that is really worse than it was. */
export interface Worsening {
  /** Against the visit before, or against the best reading before that. */
  readonly since: 'last' | 'best';
  readonly on: IsoDate;
  /** The reading it is worse than. */
  readonly before: number;
  /** How much worse, in the motion's unit, and in multiples of the smallest change that is real. */
  readonly size: number;
  readonly timesError: number;
}

/**
 * What got worse by more than measuring error: since the visit before, or else
 * since the best reading there was. A gain since the first visit hides neither.
 *
 * @returns null where nothing did, where neither direction is good, and where it was not measured at the last visit
 */
export function worseningOf(series: Series): Worsening | null {
  const { points, isCurrent, sinceLast } = series;
  if (!isCurrent || !sinceLast) return null;
  const before = points[points.length - 2]!;
  if (isLoss(sinceLast)) return worsening('last', before.on, sinceLast);
  const best = bestBefore(series);
  const change = changeAt(series, best);
  return change && isLoss(change) ? worsening('best', points[best]!.on, change) : null;
}

function worsening(since: Worsening['since'], on: IsoDate, { before, change, mdc }: Pick<Change, 'before' | 'change' | 'mdc'>): Worsening {
  const size = Math.abs(change);
  return { since, on, before, size, timesError: size / mdc };
}

/** Where the best reading before the last one is; the latest of equals. */
function bestBefore({ points, sinceLast }: Series): number {
  const sign = sinceLast?.better === 'less' ? -1 : 1;
  let best = 0;
  for (let at = 1; at < points.length - 1; at += 1) if (sign * points[at]!.value >= sign * points[best]!.value) best = at;
  return best;
}

/**
 * The order in which change is told, everywhere: what got worse, what got
 * better, what did not change beyond error, what was measured once, what was
 * not measured at the last visit.
 */
export function changeRank(series: Series): number {
  const { isCurrent, sinceFirst, sinceLast } = series;
  if (!isCurrent) return 5;
  const worse = worseningOf(series);
  if (worse) return worse.since === 'last' ? 0 : 1;
  if (!sinceFirst || !sinceLast) return 4;
  const isReal = [sinceFirst, sinceLast].some(({ verdict }) => verdict !== 'within-error');
  return isReal ? 2 : 3;
}

/** Series in the order in which change is told; those alike stay in theirs. */
export const byChange = <S extends Series = ProgressSeries>(all: readonly S[]): S[] =>
  all
    .map((one) => ({ one, rank: changeRank(one) }))
    .sort((a, b) => a.rank - b.rank)
    .map(({ one }) => one);
