import { mean } from 'simple-statistics';

/** Degrees, or this share of the mean, whichever is more. */
const TOLERANCE = { degrees: 5, share: 0.1 };
const WINDOW = 3;

/** Trials are consistent when each lies within 5° or 10 % of their mean, whichever is more. */
function agree(trials: readonly number[]): boolean {
  const middle = mean([...trials]);
  const allowed = Math.max(TOLERANCE.degrees, TOLERANCE.share * Math.abs(middle));
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
export function consistent(trials: readonly number[]): boolean | null {
  if (trials.length < 2) return null;
  if (trials.length < WINDOW) return agree(trials);
  return trials.some((_, index) => index + WINDOW <= trials.length && agree(trials.slice(index, index + WINDOW)));
}
