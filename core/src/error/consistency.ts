import { mean } from 'simple-statistics';
import type { Unit } from '../terms.js';

/**
 * Absolute tolerance by unit, or this share of the mean, whichever is more.
 *
 * @see degrees: spinal inclinometry rule; the other units: common practice, no source
 */
export const TOLERANCE: Readonly<Record<Unit, number>> = { deg: 5, cm: 1, N: 10, s: 5, yesNo: 0 };
export const TOLERANCE_SHARE = 0.1;
const WINDOW = 3;

/** Trials are consistent when each lies within 5° or 10 % of their mean, whichever is more. */
function agree(trials: readonly number[], unit: Unit): boolean {
  const middle = mean([...trials]);
  const allowed = Math.max(TOLERANCE[unit], TOLERANCE_SHARE * Math.abs(middle));
  return trials.every((trial) => Math.abs(trial - middle) <= allowed);
}

/**
 * Whether repeated trials agree: any three in a row within 5° or 10 % of
 * their mean. Two trials are held to the same tolerance; one says nothing.
 *
 * @returns null for fewer than two trials
 * @see spinal inclinometry rule of the AMA Guides, 4th/5th ed. (from memory), offered for all joints
 * @example consistent([42, 55, 47, 47, 46]) // true, by the last three
 */
export function consistent(trials: readonly number[], unit: Unit = 'deg'): boolean | null {
  if (trials.length < 2) return null;
  if (trials.length < WINDOW) return agree(trials, unit);
  return trials.some((_, index) => index + WINDOW <= trials.length && agree(trials.slice(index, index + WINDOW), unit));
}
