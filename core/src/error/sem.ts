/** Two-sided 95 % point of the standard normal distribution, as the field's formulas print it. */
export const Z95 = 1.96;
/** Two-sided 90 % point, as the field's formulas print it. */
export const Z90 = 1.645;

/**
 * Standard error of measurement from the spread between people and the reliability.
 *
 * @param sd between-subject standard deviation, in the unit wanted
 * @param icc intraclass correlation, 0 to 1
 * @throws RangeError when the sd is negative or the icc lies outside 0 to 1
 * @example semFromIcc(10, 0.9) // 3.162…
 */
export function semFromIcc(sd: number, icc: number): number {
  if (!(sd >= 0)) throw new RangeError(`sd is ${sd}; it must be 0 or more`);
  if (!(icc >= 0 && icc <= 1)) throw new RangeError(`icc is ${icc}; it must lie from 0 to 1`);
  return sd * Math.sqrt(1 - icc);
}

/** Smallest change between two readings that is larger than their error, with 95 % confidence: 1.96·√2·SEM. */
export function mdc95(sem: number): number {
  return Z95 * Math.SQRT2 * sem;
}

/** The same with 90 % confidence: 1.645·√2·SEM. Publications mix the two: say which. */
export function mdc90(sem: number): number {
  return Z90 * Math.SQRT2 * sem;
}

/** Half-width of the 95 % band round a single reading: 1.96·SEM. Not an MDC. */
export function bandAround(sem: number): number {
  return Z95 * sem;
}

/** SEM of a sum or a difference of two readings with independent errors. */
export function combinedSem(a: number, b: number): number {
  return Math.hypot(a, b);
}

/** Smallest real difference between two readings with errors of their own: 1.96·√(SEM₁² + SEM₂²). */
export function mdcOfDifference(semA: number, semB: number): number {
  return Z95 * combinedSem(semA, semB);
}

/**
 * SEM of the mean of k trials of one sitting: only the part that changes from
 * trial to trial shrinks with √k; what comes from the day, the examiner and
 * the set-up stays.
 *
 * @param withinSession standard error from trial to trial
 * @param between standard error of everything else; 0 where it is not known apart
 * @throws RangeError for fewer than one trial
 * @example semOfMean(3, 4, 9) // √(4² + (3/√9)²) = 4.123…
 */
export function semOfMean(withinSession: number, between: number, k: number): number {
  if (!(k >= 1)) throw new RangeError(`k is ${k}; it must be 1 or more`);
  return Math.hypot(between, withinSession / Math.sqrt(k));
}
