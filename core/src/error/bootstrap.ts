import { quantileSorted } from 'simple-statistics';
import { ICC_FORMS, iccValues, semOfStudy } from './icc.js';
import { studyVariance, type StudyTable } from './anova.js';
import { normalQuantile, normalShare } from './distributions.js';

/** A source of numbers from 0 up to, not including, 1. */
export type Random = () => number;

/** What is bootstrapped: the six coefficients and the two errors. */
export const BOOTSTRAPPED = [...ICC_FORMS, 'agreement', 'consistency'] as const;
export type Bootstrapped = (typeof BOOTSTRAPPED)[number];

/** 95 % intervals from resampling the subjects; `used` counts the resamples that said anything. */
export interface BootstrapResult {
  readonly used: number;
  readonly intervals: Readonly<Record<Bootstrapped, { readonly low: number; readonly high: number }>>;
}

/** A stream of numbers from a seed, so that a result can be had again (mulberry32, public domain, from memory). */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * Resamples the subjects of a study and counts the coefficients each time.
 * A generator, so that whoever runs it can show how far it is and stop: it
 * yields how many resamples are done after every `chunk`, and returns the
 * bias-corrected and accelerated (BCa) intervals.
 *
 * The mean squares of a resample follow from sums kept for every subject, so a
 * resample costs subjects × raters additions and no memory.
 *
 * @throws StudyError for a table that cannot be counted
 * @see Efron B, Tibshirani RJ. An Introduction to the Bootstrap, 1993, ch. 14 (from memory)
 */
export function* bootstrap(table: StudyTable, resamples: number, random: Random, chunk = 500): Generator<number, BootstrapResult> {
  const whole = studyVariance(table);
  const { n, k } = whole;
  const cells = Float64Array.from(table.flat());
  const sums = Float64Array.from(table, (row) => row.reduce((sum, value) => sum + value, 0));
  const squares = Float64Array.from(table, (row) => row.reduce((sum, value) => sum + value * value, 0));
  const drawn = Object.fromEntries(BOOTSTRAPPED.map((name) => [name, new Float64Array(resamples)])) as Record<Bootstrapped, Float64Array>;
  const columns = new Float64Array(k);
  let used = 0;

  /** The same statistics of any choice of subjects. */
  const count = (size: number, pick: (at: number) => number): Record<Bootstrapped, number> | null => {
    let total = 0;
    let ofRows = 0;
    let ofCells = 0;
    columns.fill(0);
    for (let at = 0; at < size; at++) {
      const subject = pick(at);
      const sum = sums[subject]!;
      total += sum;
      ofRows += sum * sum;
      ofCells += squares[subject]!;
      for (let column = 0; column < k; column++) columns[column]! += cells[subject * k + column]!;
    }
    let ofColumns = 0;
    for (let column = 0; column < k; column++) ofColumns += columns[column]! ** 2;
    const middle = (total * total) / (size * k);
    const between = ofRows / k - middle;
    const within = ofCells - ofRows / k;
    const raters = ofColumns / size - middle;
    // The same subject drawn every time has no spread to speak of.
    if (between <= 1e-9 * ofCells) return null;
    const ems = Math.max(0, within - raters) / ((size - 1) * (k - 1));
    const variance = { n: size, k, bms: between / (size - 1), wms: within / (size * (k - 1)), jms: raters / (k - 1), ems };
    return { ...iccValues(variance), ...semOfStudy(variance) };
  };

  for (let resample = 1; resample <= resamples; resample++) {
    const values = count(n, () => Math.floor(random() * n));
    if (values) {
      for (const name of BOOTSTRAPPED) drawn[name][used] = values[name];
      used++;
    }
    if (resample % chunk === 0) yield resample;
  }

  const observed: Record<Bootstrapped, number> = { ...iccValues(whole), ...semOfStudy(whole) };
  const leftOut = n > 3 ? Array.from({ length: n }, (_, out) => count(n - 1, (at) => (at < out ? at : at + 1))) : [];
  return {
    used,
    intervals: Object.fromEntries(
      BOOTSTRAPPED.map((name) => {
        const jackknife = leftOut.flatMap((values) => (values ? [values[name]] : []));
        return [name, bcaInterval(drawn[name].subarray(0, used), observed[name], jackknife)];
      }),
    ) as BootstrapResult['intervals'],
  };
}

/**
 * Bias-corrected and accelerated 95 % interval.
 *
 * @param drawn values of the resamples; sorted in place
 * @param observed value of the sample itself
 * @param jackknife its values with each subject left out
 */
export function bcaInterval(drawn: Float64Array, observed: number, jackknife: readonly number[]): { low: number; high: number } {
  drawn.sort();
  const below = lowerCount(drawn, observed) / drawn.length;
  // All on one side: there is no bias to read; the plain percentiles stand.
  const bias = below > 0 && below < 1 ? normalQuantile(below) : 0;
  const middle = jackknife.reduce((sum, value) => sum + value, 0) / (jackknife.length || 1);
  const cubes = jackknife.reduce((sum, value) => sum + (middle - value) ** 3, 0);
  const squares = jackknife.reduce((sum, value) => sum + (middle - value) ** 2, 0);
  const acceleration = squares > 0 ? cubes / (6 * squares ** 1.5) : 0;
  const share = (z: number) => normalShare(bias + (bias + z) / (1 - acceleration * (bias + z)));
  const at = (p: number) => quantileSorted(drawn as unknown as number[], Math.min(1, Math.max(0, p)));
  return { low: at(share(-1.959964)), high: at(share(1.959964)) };
}

/** The same subjects in another order come to the same but for the last digits. */
const SAME = 1e-9;

/** How many of the sorted values lie below; those equal count half. */
function lowerCount(sorted: Float64Array, value: number): number {
  let below = 0;
  let equal = 0;
  for (const drawn of sorted) {
    if (drawn < value - SAME) below++;
    else if (drawn <= value + SAME) equal++;
    else break;
  }
  return below + equal / 2;
}

/** Runs it to the end at once. */
export function bootstrapAtOnce(table: StudyTable, resamples: number, random: Random): BootstrapResult {
  const run = bootstrap(table, resamples, random);
  for (;;) {
    const step = run.next();
    if (step.done) return step.value;
  }
}
