import { mean, sampleStandardDeviation } from 'simple-statistics';
import { chiSquareQuantile, noncentralTQuantile, tQuantile } from './distributions.js';
import { Z95 } from './sem.js';

/** A figure with its 95 % confidence interval. */
export interface WithInterval {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** How far two ways of measuring the same people lie apart, in the unit measured. */
export interface LimitsOfAgreement {
  readonly points: readonly { readonly mean: number; readonly difference: number }[];
  readonly bias: WithInterval;
  readonly sd: number;
  readonly lower: WithInterval;
  readonly upper: WithInterval;
}

/**
 * Bias and 95 % limits of agreement of two columns of readings, with the
 * intervals of all three. Those of a limit are exact (a quantile of differences
 * that are normal has a noncentral t); with more than a hundred pairs they are
 * put together from those of mean and SD, which then is as good.
 *
 * @param z 1.96; the paper prints its limits with 2
 * @throws RangeError for columns of different length, or fewer than three pairs
 * @see Bland JM, Altman DG. Lancet 1986;i:307-310; exact intervals: Carkeet A. Optom Vis Sci 2015;92:e71-e80;
 *   put together: Zou GY. Stat Methods Med Res 2013;22:630-642 (from memory)
 * @example limitsOfAgreement([494, 395, …], [512, 430, …]).bias.value // −2.12
 */
export function limitsOfAgreement(first: readonly number[], second: readonly number[], z = Z95): LimitsOfAgreement {
  const n = first.length;
  if (second.length !== n) throw new RangeError(`the columns hold ${n} and ${second.length} readings; both must hold as many`);
  if (n < 3) throw new RangeError(`${n} pairs; limits of agreement need 3 or more`);
  const points = first.map((a, at) => ({ mean: (a + second[at]!) / 2, difference: a - second[at]! }));
  const differences = points.map((point) => point.difference);
  const bias = mean(differences);
  const sd = sampleStandardDeviation(differences);
  const t = tQuantile(0.975, n - 1);
  const about = (value: number, error: number): WithInterval => ({ value, low: value - t * error, high: value + t * error });
  const factors = n <= EXACT_UP_TO ? exactFactors(n, z) : composedFactors(n, z);
  return {
    points,
    bias: about(bias, sd / Math.sqrt(n)),
    sd,
    lower: { value: bias - z * sd, low: bias - factors.far * sd, high: bias - factors.near * sd },
    upper: { value: bias + z * sd, low: bias + factors.near * sd, high: bias + factors.far * sd },
  };
}

/** Beyond, the noncentral t of the library loses its footing. */
const EXACT_UP_TO = 100;

/** How many SD from the bias the interval of a limit begins and ends. */
interface Factors {
  readonly near: number;
  readonly far: number;
}

function exactFactors(n: number, z: number): Factors {
  const at = (p: number) => noncentralTQuantile(p, n - 1, z * Math.sqrt(n)) / Math.sqrt(n);
  return { near: at(0.025), far: at(0.975) };
}

function composedFactors(n: number, z: number): Factors {
  const ofMean = tQuantile(0.975, n - 1) / Math.sqrt(n);
  const ofSd = (p: number) => z * Math.sqrt((n - 1) / chiSquareQuantile(p, n - 1));
  return { near: z - Math.hypot(ofMean, z - ofSd(0.975)), far: z + Math.hypot(ofMean, ofSd(0.025) - z) };
}

/**
 * Within-subject standard deviation from two readings each: √(Σd² / 2n).
 *
 * @see Bland JM, Altman DG. Lancet 1986;i:307-310 (from memory)
 */
export function withinSubjectSd(first: readonly number[], second: readonly number[]): number {
  const squares = first.reduce((sum, a, at) => sum + (a - second[at]!) ** 2, 0);
  return Math.sqrt(squares / (2 * first.length));
}
