// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- the library has no types; whoever compiles this file needs ours
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat';

const { centralF, chisquare, noncentralt, normal, studentt } = jstat.jStat;

/**
 * Quantile of the F distribution: the value that a share `p` lies below.
 * Degrees of freedom need not be whole.
 *
 * @example fQuantile(0.975, 5, 18) // 3.382
 */
export function fQuantile(p: number, df1: number, df2: number): number {
  return centralF.inv(p, df1, df2);
}

/**
 * Quantile of Student's t.
 *
 * @example tQuantile(0.975, 16) // 2.120
 */
export function tQuantile(p: number, df: number): number {
  return studentt.inv(p, df);
}

/**
 * Quantile of the noncentral t distribution, by halving: the library has its
 * distribution function alone.
 *
 * @param ncp noncentrality, 0 up to about 20
 */
export function noncentralTQuantile(p: number, df: number, ncp: number): number {
  let [low, high] = [ncp - 40, ncp + 40];
  while (noncentralt.cdf(high, df, ncp) < p) high += 40;
  for (let halving = 0; halving < 60; halving++) {
    const middle = (low + high) / 2;
    if (noncentralt.cdf(middle, df, ncp) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/** Quantile of the chi-square distribution. */
export function chiSquareQuantile(p: number, df: number): number {
  return chisquare.inv(p, df);
}

/** Quantile of the standard normal distribution. */
export function normalQuantile(p: number): number {
  return normal.inv(p, 0, 1);
}

/** Share of the standard normal distribution below `z`. */
export function normalShare(z: number): number {
  return normal.cdf(z, 0, 1);
}
