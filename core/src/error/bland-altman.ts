import { mean, sampleStandardDeviation } from 'simple-statistics';
import { tQuantile } from './distributions.js';
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
 * intervals of all three. The error of a limit is taken as √(3·SD²/n).
 *
 * @param z 1.96; the paper prints its limits with 2
 * @throws RangeError for columns of different length, or fewer than three pairs
 * @see Bland JM, Altman DG. Lancet 1986;i:307-310 (from memory)
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
  const errorOfLimit = Math.sqrt((3 * sd * sd) / n);
  return {
    points,
    bias: about(bias, sd / Math.sqrt(n)),
    sd,
    lower: about(bias - z * sd, errorOfLimit),
    upper: about(bias + z * sd, errorOfLimit),
  };
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
