import { mean, median } from 'simple-statistics';
import { tQuantile } from '../error/distributions.js';
import { mdcOfDifference, Z95 } from '../error/sem.js';
import { compareDays, weeksSince } from '../days.js';
import type { IsoDate } from '../terms.js';
import { leastKendall } from './kendall.js';
import { slopesOf, type Slopes } from './slopes.js';

/** One reading on one day with its standard error, in the motion's unit. */
export interface DatedValue {
  readonly on: IsoDate;
  readonly value: number;
  readonly sem: number;
}

/** How fast a reading changes, and how sure that is. */
export interface Trend {
  /** Median of all slopes between two visits, per week. */
  readonly perWeek: number;
  /** 95 % interval of it. */
  readonly low: number;
  readonly high: number;
  /** What the interval rests on: the measuring error alone, or the ranks of the slopes as well. */
  readonly basis: 'error' | 'error-and-ranks';
  readonly visits: number;
  readonly from: IsoDate;
  readonly to: IsoDate;
  /** Value of the line on a day of its own: middle day in weeks since `from`, and its standard error. */
  readonly middle: { readonly week: number; readonly value: number; readonly sem: number };
}

/** With two visits a line has no error of its own to show: there is no trend. */
const LEAST_VISITS = 3;

/**
 * Robust trend of readings over time: the median of all pairwise slopes
 * (Theil and Sen), so that one odd visit does not turn it.
 *
 * Its interval is what measuring error alone would give, 1.96·√(SEM² / Σ(t − t̄)²),
 * or what the scatter round the line gives by Student's t with n − 2 degrees of
 * freedom, where that is wider: a scatter below the instrument's error is luck. From five visits on it is
 * widened to the exact interval of the ranked slopes where that is wider.
 *
 * @returns null with fewer than three visits on different days
 * @see Theil H 1950; Sen PK. J Am Stat Assoc 1968;63:1379-1389; interval after Hollander & Wolfe (from memory)
 * @example weeks 0, 2, 4, 6, 8 at 70, 84, 95, 103, 112 → 5 a week
 */
export function trendOf(points: readonly DatedValue[]): Trend | null {
  const inOrder = inOrderOfDays(points);
  if (new Set(inOrder.map((p) => p.on)).size < LEAST_VISITS) return null;
  const from = inOrder[0]!.on;
  const at = inOrder.map((p) => ({ week: weeksSince(from, p.on), value: p.value }));
  const slopes = slopesOf(at);
  const perWeek = medianOf(slopes);
  const start = median(at.map((p) => p.value - perWeek * p.week));
  const week = mean(at.map((p) => p.week));
  const spread = at.reduce((sum, p) => sum + (p.week - week) ** 2, 0);
  const misses = at.reduce((sum, p) => sum + (p.value - start - perWeek * p.week) ** 2, 0);
  // The scatter is an estimate of few degrees of freedom; an error that is known of the instrument is not.
  const known = Math.sqrt(mean(inOrder.map((p) => p.sem ** 2)));
  const scatter = Math.sqrt(misses / Math.max(1, at.length - 2));
  const half = Math.max(Z95 * known, tAt(at.length - 2) * scatter) / Math.sqrt(spread);
  const sem = Math.max(known, scatter);
  const narrow = { low: perWeek - half, high: perWeek + half };
  const ranks = rankInterval(slopes, at.length);
  return {
    perWeek,
    ...(ranks ? widened(narrow, slopes, ranks) : narrow),
    basis: ranks ? 'error-and-ranks' : 'error',
    visits: at.length,
    from,
    to: inOrder[inOrder.length - 1]!.on,
    middle: { week, value: start + perWeek * week, sem: sem / Math.sqrt(at.length) },
  };
}

/** Two-sided 95 % points of t, each looked for once. */
const ts: number[] = [];
const tAt = (df: number): number => (ts[df] ??= tQuantile(0.975, Math.max(1, df)));

function inOrderOfDays(points: readonly DatedValue[]): DatedValue[] {
  return [...points].sort((a, b) => compareDays(a.on, b.on));
}

function medianOf({ count, at }: Slopes): number {
  const half = Math.floor(count / 2);
  return count % 2 ? at(half) : (at(half - 1) + at(half)) / 2;
}

interface Interval {
  readonly low: number;
  readonly high: number;
}

/** Ranks of the ends of Sen's interval of n visits; undefined where there are too few for 95 %. */
function rankInterval({ count }: Slopes, n: number): Interval | undefined {
  const least = leastKendall(n, 0.025);
  if (least === undefined || count < (n * (n - 1)) / 2) return undefined;
  const below = (count - (least - 2)) / 2;
  return { low: below - 1, high: count - below };
}

/** An interval out to the slopes of two ranks. Where those lie within it, which is told by counting, they are not looked for. */
function widened({ low, high }: Interval, slopes: Slopes, ranks: Interval): Interval {
  return {
    low: slopes.atMost(low) > ranks.low ? Math.min(low, slopes.at(ranks.low)) : low,
    high: slopes.atMost(high) > ranks.high ? high : Math.max(high, slopes.at(ranks.high)),
  };
}

/** Where the line of a trend stands on a day. */
export function trendAt({ middle, from, perWeek }: Trend, on: IsoDate): number {
  return middle.value + perWeek * (weeksSince(from, on) - middle.week);
}

/** Whether a trend is told from standing still. */
export function isMoving({ low, high }: Pick<Trend, 'low' | 'high'>): boolean {
  return low > 0 || high < 0;
}

/**
 * Whether a trend is told from moving: whichever end of its interval is true,
 * over so many weeks it comes to less than the smallest real change. What is
 * neither told from still nor from moving is neither.
 */
function isStill({ low, high }: Pick<Trend, 'low' | 'high'>, weeks: number, mdc: number): boolean {
  return Math.max(Math.abs(low), Math.abs(high)) * weeks < mdc;
}

/** Recovery flattens: how fast it goes now is read from so many visits, the last ones. */
const RECENT = 4;

/** The trend of the last visits: how fast it goes now. */
export function recentTrend(points: readonly DatedValue[]): Trend | null {
  return trendOf(inOrderOfDays(points).slice(-RECENT));
}

/** No real change over the last visits. */
export interface Plateau {
  readonly from: IsoDate;
  readonly to: IsoDate;
  readonly visits: number;
  readonly weeks: number;
  readonly trend: Trend;
  /** True where it is told from moving; otherwise it is not yet told from standing still. */
  readonly isStill: boolean;
}

/** Three visits and three weeks. @see common practice, no source */
const LEAST_WEEKS = 3;

/** Runs of more visits than this are tried a tenth shorter each time, not one by one: what a year and more says does not hang on one visit. */
const ONE_BY_ONE = 60;

/**
 * The longest run of last visits without a change: three visits and three
 * weeks or more, no two of them further apart than the smallest real change,
 * and a slope that is not told from nothing. Whether it stands still is another
 * thing, and told apart.
 */
export function plateauOf(points: readonly DatedValue[]): Plateau | null {
  const inOrder = inOrderOfDays(points);
  const end = inOrder[inOrder.length - 1];
  for (let visits = inOrder.length - firstUnchanged(inOrder); end && visits >= LEAST_VISITS; visits = shorter(visits)) {
    const run = inOrder.slice(-visits);
    const weeks = weeksSince(run[0]!.on, end.on);
    if (weeks < LEAST_WEEKS) return null;
    const trend = trendOf(run);
    const mdc = mdcOfDifference(run[0]!.sem, end.sem);
    if (trend && !isMoving(trend)) return { from: run[0]!.on, to: end.on, visits, weeks, trend, isStill: isStill(trend, weeks, mdc) };
  }
  return null;
}

const shorter = (visits: number): number => (visits > ONE_BY_ONE ? Math.max(ONE_BY_ONE, Math.floor(visits * 0.9)) : visits - 1);

/** The least and the most that was read with one error. */
interface Extremes {
  readonly sem: number;
  low: number;
  high: number;
}

/**
 * Where the longest run of last readings begins no two of which are really
 * apart. A longer one has the same pairs and more; and of all that were read
 * with the same error, only the least and the most can be apart from another.
 */
function firstUnchanged(inOrder: readonly DatedValue[]): number {
  const extremes: Extremes[] = [];
  for (let first = inOrder.length - 1; first >= 0; first -= 1) {
    const { value, sem } = inOrder[first]!;
    for (const of of extremes) if (Math.max(value - of.low, of.high - value) >= mdcOfDifference(sem, of.sem)) return first + 1;
    const own = extremes.find((of) => of.sem === sem);
    if (!own) extremes.push({ sem, low: value, high: value });
    else {
      own.low = Math.min(own.low, value);
      own.high = Math.max(own.high, value);
    }
  }
  return 0;
}
