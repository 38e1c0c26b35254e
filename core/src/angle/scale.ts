import type { Degrees } from '../terms.js';
import { excursion, type Sense, type TiltPair } from './excursion.js';

/** How an inclinometer counts: once round, both ways from level, or 0–90 in every quarter. */
export const DEVICE_SCALES = ['360', '180', 'quadrant'] as const;
export type DeviceScale = (typeof DEVICE_SCALES)[number];

const RANGES: Readonly<Record<DeviceScale, readonly [min: Degrees, max: Degrees]>> = {
  '360': [0, 360],
  '180': [-180, 180],
  quadrant: [0, 90],
};

/** The figures a scale shows. */
export function rangeOf(scale: DeviceScale): readonly [min: Degrees, max: Degrees] {
  return RANGES[scale];
}

/** Whether a device with this scale can show the figure. */
export function isOnScale(shown: Degrees, scale: DeviceScale): boolean {
  const [min, max] = RANGES[scale];
  return shown >= min && shown <= max;
}

/**
 * A figure of a 0–90 device as a tilt that goes on counting: the device
 * counts up to 90, down to 0, up again, and only who watched it knows how
 * many of these corners were passed.
 *
 * @param shown what the device shows, 0 to 90
 * @param corners how often it turned round, at 90 or at 0, since it was at 0
 * @example unfoldQuadrant(30, 1) // 150
 */
export function unfoldQuadrant(shown: Degrees, corners: number): Degrees {
  return corners % 2 === 0 ? 90 * corners + shown : 90 * (corners + 1) - shown;
}

/** What a tilt looks like on a scale. */
export function showOn(tilt: Degrees, scale: DeviceScale): Degrees {
  const turn = ((tilt % 360) + 360) % 360;
  if (scale === '360') return turn;
  if (scale === '180') return turn > 180 ? turn - 360 : turn;
  const half = turn % 180;
  return half > 90 ? 180 - half : half;
}

/** What a pair of tilts comes to, and which way the device was taken to count. */
export interface Moved {
  readonly value: Degrees;
  readonly sense: Sense;
}

/**
 * The excursion from two tilts where nobody said which way the device counts:
 * the way that the motion can have gone. Where both could be, it is the way in
 * which the figures rise, and the other one is given with it.
 *
 * @param limits what the motion can hold
 * @returns the excursion and, where it is possible too, the other way round; null where neither is possible
 * @example movedBetween({ zero: 350, end: 20 }, { min: 0, max: 190 }) // { moved: { value: 30, sense: 1 }, other: null }
 */
export function movedBetween(
  tilt: TiltPair,
  { min, max }: { readonly min: Degrees; readonly max: Degrees },
): { readonly moved: Moved; readonly other: Moved | null } | null {
  const up: Moved = { value: excursion(tilt, 1), sense: 1 };
  const down: Moved = { value: excursion(tilt, -1), sense: -1 };
  const possible = [up, down].filter(({ value }) => value >= min && value <= max);
  // Not reaching zero is rarer than reaching past it: the positive way first.
  const [moved, other] = possible.sort((a, b) => Number(a.value < 0) - Number(b.value < 0));
  if (!moved) return null;
  return { moved, other: other && other.value !== moved.value ? other : null };
}
