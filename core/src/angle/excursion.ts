import type { Degrees } from '../terms.js';
import { wrap360 } from './wrap.js';

/** Two readings of one inclinometer: when it was set, and at the end of the movement. Degrees. */
export interface TiltPair {
  readonly zero: Degrees;
  readonly end: Degrees;
}

/** Which way the device counts while the joint moves: up (1) or down (−1). */
export type Sense = 1 | -1;

/** Past this much backward the device must have gone round forward: no joint moves back a quarter turn. */
const FURTHEST_BACK = 90;

/**
 * Change of tilt along the path moved. Devices count 0–360 or −180…180 and
 * jump once a turn; the direction of the movement tells which way round it
 * went. Results run from −90 (moved the wrong way) up to 270.
 *
 * @param tilt zero and end as the device shows them, degrees, any scale that repeats every 360
 * @param sense 1 when the device counts up during the movement, −1 when down
 * @example excursion({ zero: 350, end: 20 }) // 30, not -330
 * @example excursion({ zero: 10, end: 340 }, -1) // 30
 */
export function excursion(tilt: TiltPair, sense: Sense = 1): Degrees {
  const forward = wrap360((tilt.end - tilt.zero) * sense);
  return forward > 360 - FURTHEST_BACK ? forward - 360 : forward;
}

/**
 * Excursion of one body segment against another, from two inclinometers
 * (or one moved between two repeats): the lower segment's share is taken out.
 *
 * @param upper zero and end tilt at the upper site, degrees
 * @param lower zero and end tilt at the lower site, degrees
 * @returns degrees; negative when the lower site moved more (suspect, not clamped)
 * @see lumbar = 15 cm line − sacrum; two-inclinometer method, AMA Guides, 4th ed. (from memory)
 * @example dualExcursion({ zero: 0, end: 96 }, { zero: 0, end: 41 }) // 55
 */
export function dualExcursion(upper: TiltPair, lower: TiltPair, sense: Sense = 1): Degrees {
  return excursion(upper, sense) - excursion(lower, sense);
}
