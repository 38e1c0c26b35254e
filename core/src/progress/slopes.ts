import { quickselect } from 'simple-statistics';

/** One reading at its time. */
export interface At {
  readonly week: number;
  readonly value: number;
}

/** The slopes between all pairs of readings on different days, by their rank. */
export interface Slopes {
  readonly count: number;
  /** The slope of a rank, from 0, smallest first. */
  at(rank: number): number;
  /** How many are at most so steep: quicker than a rank. */
  atMost(slope: number): number;
}

/** Up to so many readings all slopes are made, and put in order as far as a rank asks for; beyond, ranks are found by counting. */
const MADE_UP_TO = 100;

/**
 * All pairwise slopes of readings in order of time, by rank. Many readings
 * have very many slopes (a thousand have half a million): those are never
 * made, only counted.
 *
 * @see counting slopes by inversions: Dillencourt MB, Mount DM, Netanyahu NS. Int J Comput Geom Appl 1992;2:1-27 (from memory)
 * @example slopesOf([{ week: 0, value: 70 }, { week: 2, value: 84 }, { week: 4, value: 90 }]).at(1) // 5
 */
export function slopesOf(inOrder: readonly At[]): Slopes {
  return inOrder.length <= MADE_UP_TO ? madeSlopes(inOrder) : countedSlopes(inOrder);
}

export function madeSlopes(inOrder: readonly At[]): Slopes {
  const n = inOrder.length;
  const weeks = Float64Array.from(inOrder, (point) => point.week);
  const values = Float64Array.from(inOrder, (point) => point.value);
  const all = new Float64Array((n * (n - 1)) / 2);
  let count = 0;
  for (let i = 0; i < n; i++) {
    const [week, value] = [weeks[i]!, values[i]!];
    for (let j = i + 1; j < n; j++) if (weeks[j]! > week) all[count++] = (values[j]! - value) / (weeks[j]! - week);
  }
  const slopes = all.subarray(0, count);
  // Ranks that stand in their place already: what is smaller lies before them, what is larger behind.
  const inPlace = [-1, count];
  return {
    count,
    at(rank) {
      const above = inPlace.findIndex((known) => known >= rank);
      if (inPlace[above] !== rank) {
        const from = inPlace[above - 1]! + 1;
        const to = inPlace[above]! - 1;
        if (rank === from) leastFirst(slopes, from, to);
        else quickselect(slopes as unknown as number[], rank, from, to);
        inPlace.splice(above, 0, rank);
      }
      return slopes[rank]!;
    },
    atMost(slope) {
      let above = inPlace.length - 1;
      while (above > 1 && slopes[inPlace[above - 1]!]! > slope) above -= 1;
      let at = inPlace[above - 1]! + 1;
      for (let i = at; i < inPlace[above]!; i++) if (slopes[i]! <= slope) at += 1;
      return at;
    },
  };
}

/** Moves the least of a part to its beginning. */
function leastFirst(slopes: Float64Array, from: number, to: number): void {
  let least = from;
  for (let i = from + 1; i <= to; i++) if (slopes[i]! < slopes[least]!) least = i;
  const first = slopes[from]!;
  slopes[from] = slopes[least]!;
  slopes[least] = first;
}

/** Halvings of the range of slopes: to seven places of the steepest. */
const HALVINGS = 26;

/**
 * A slope is at most θ just where the two readings, with θ for every week
 * taken off, do not rise: so the pairs out of order are counted, and θ is
 * halved in on.
 */
export function countedSlopes(inOrder: readonly At[]): Slopes {
  const n = inOrder.length;
  const weeks = Float64Array.from(inOrder, (point) => point.week);
  const values = Float64Array.from(inOrder, (point) => point.value);
  const rest = new Float64Array(n);
  const spare = new Float64Array(n);
  const days = daysOf(weeks);
  const shared = days.filter(([from, to]) => to - from > 1);
  const pairs = (n * (n - 1)) / 2 - shared.reduce((sum, [from, to]) => sum + ((to - from) * (to - from - 1)) / 2, 0);
  const gap = days.slice(1).reduce((least, [from]) => Math.min(least, weeks[from]! - weeks[from - 1]!), Infinity);
  const steepest = (values.reduce((a, b) => Math.max(a, b)) - values.reduce((a, b) => Math.min(a, b))) / gap;

  const atMost = (theta: number): number => {
    for (let i = 0; i < n; i++) rest[i] = values[i]! - theta * weeks[i]!;
    // Of one day, rising: such a pair is no slope. Where two say the same they do not rise, and are taken off again.
    let same = 0;
    for (const [from, to] of shared) {
      rest.subarray(from, to).sort();
      for (let i = from + 1, run = 0; i < to; i++) same += run = rest[i] === rest[i - 1] ? run + 1 : 0;
    }
    return notRising(rest, spare) - same;
  };
  // What was counted for one rank narrows the search for the next.
  const counted = [
    { theta: -steepest, slopes: atMost(-steepest) },
    { theta: steepest, slopes: pairs },
  ];
  const finest = (2 * steepest) / 2 ** HALVINGS;
  return {
    count: pairs,
    atMost,
    at(rank) {
      let above = counted.findIndex(({ slopes }) => slopes > rank);
      if (above === 0) return -steepest;
      for (; counted[above]!.theta - counted[above - 1]!.theta > finest;) {
        const theta = (counted[above]!.theta + counted[above - 1]!.theta) / 2;
        const slopes = atMost(theta);
        counted.splice(above, 0, { theta, slopes });
        if (slopes <= rank) above += 1;
      }
      return counted[above]!.theta;
    },
  };
}

/** Where each day begins and ends among readings in order. */
function daysOf(weeks: Float64Array): [from: number, to: number][] {
  const days: [number, number][] = [];
  for (let from = 0, to = 1; from < weeks.length; from = to, to = from + 1) {
    while (to < weeks.length && weeks[to] === weeks[from]) to += 1;
    days.push([from, to]);
  }
  return days;
}

/** Blocks this long are put in order by moving, longer ones by merging. */
const BLOCK = 12;

/** How many pairs i < j have a[i] ≥ a[j]: counted while it is put in order. Both arrays are written over. */
function notRising(a: Float64Array, b: Float64Array): number {
  const n = a.length;
  let count = 0;
  for (let start = 0; start < n; start += BLOCK) {
    const end = Math.min(start + BLOCK, n);
    for (let i = start + 1; i < end; i++) {
      const value = a[i]!;
      let k = i;
      for (; k > start && a[k - 1]! >= value; k--) a[k] = a[k - 1]!;
      a[k] = value;
      count += i - k;
    }
  }
  let from = a;
  let to = b;
  for (let width = BLOCK; width < n; width *= 2) {
    for (let start = 0; start < n; start += 2 * width)
      count += merge(from, to, start, Math.min(start + width, n), Math.min(start + 2 * width, n));
    const before = from;
    from = to;
    to = before;
  }
  return count;
}

/** Merges two runs in order; what is left of the first when one of the second is taken is at least as large. */
function merge(from: Float64Array, to: Float64Array, start: number, middle: number, end: number): number {
  let [i, j, k, count] = [start, middle, start, 0];
  while (i < middle && j < end) {
    if (from[i]! < from[j]!) to[k++] = from[i++]!;
    else {
      count += middle - i;
      to[k++] = from[j++]!;
    }
  }
  while (i < middle) to[k++] = from[i++]!;
  while (j < end) to[k++] = from[j++]!;
  return count;
}
