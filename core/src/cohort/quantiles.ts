/** A value and how many people have it. */
export interface Counted {
  readonly value: number;
  readonly n: number;
}

/** The middle of a group, its middle half and its middle four fifths. What lies farther out is single people, and is not told. */
export interface GroupSpread {
  readonly n: number;
  readonly p10: number;
  readonly q1: number;
  readonly median: number;
  readonly q3: number;
  readonly p90: number;
}

/** Sorted, each value once. */
function inOrder(counted: readonly Counted[]): Counted[] {
  const byValue = new Map<number, number>();
  for (const { value, n } of counted) byValue.set(value, (byValue.get(value) ?? 0) + n);
  return [...byValue].map(([value, n]) => ({ value, n })).sort((a, b) => a.value - b.value);
}

/**
 * Quantile of values that were counted rather than listed: the straight line
 * between the two people beside it, type 7 of Hyndman RJ, Fan Y. Am Stat
 * 1996;50:361-365.
 *
 * @param p from 0 to 1
 * @throws RangeError where nobody was counted
 */
export function quantile(counted: readonly Counted[], p: number): number {
  const sorted = inOrder(counted);
  const total = sorted.reduce((sum, { n }) => sum + n, 0);
  if (total === 0) throw new RangeError('nobody was counted');
  const at = (total - 1) * p;
  const [low, high] = [Math.floor(at), Math.ceil(at)];
  const [a, b] = [nth(sorted, low), nth(sorted, high)];
  return a + (b - a) * (at - low);
}

/** The value of the person at a place, counted from 0. */
function nth(sorted: readonly Counted[], place: number): number {
  let seen = 0;
  for (const { value, n } of sorted) {
    seen += n;
    if (place < seen) return value;
  }
  return sorted[sorted.length - 1]!.value;
}

export function groupSpread(counted: readonly Counted[]): GroupSpread {
  const [p10, q1, median, q3, p90] = [0.1, 0.25, 0.5, 0.75, 0.9].map((p) => quantile(counted, p)) as [
    number,
    number,
    number,
    number,
    number,
  ];
  return { n: counted.reduce((sum, { n }) => sum + n, 0), p10, q1, median, q3, p90 };
}

/** The middle half of a normal distribution is so many standard deviations wide: 2 × 0.6745. */
const HALF_WIDTH = 1.349;

/** A standard deviation that a few odd people do not move: by the middle half. */
export const robustSd = ({ q1, q3 }: GroupSpread): number => Math.round(((q3 - q1) / HALF_WIDTH) * 100) / 100;
