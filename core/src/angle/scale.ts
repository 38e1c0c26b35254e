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
 * Which ways the figures of a device can be read: counting up and counting
 * down, each where the motion can hold what it comes to. Two that differ are
 * told apart by nobody but who watched it.
 *
 * @param valueAt what the figures come to by a sense
 * @param limits what the motion can hold
 */
export function possibleWays(
  valueAt: (sense: Sense) => Degrees,
  { min, max }: { readonly min: Degrees; readonly max: Degrees },
): readonly Moved[] {
  const ways = ([1, -1] as const).map((sense): Moved => ({ value: valueAt(sense), sense }));
  const possible = ways.filter(({ value }) => value >= min && value <= max);
  return possible.length === 2 && possible[0]!.value === possible[1]!.value ? possible.slice(0, 1) : possible;
}

/**
 * The excursion from two tilts where nobody said which way the device counts.
 *
 * @returns the ways it can have gone: none, one, or both
 * @example movedBetween({ zero: 350, end: 20 }, { min: 0, max: 190 }) // [{ value: 30, sense: 1 }]
 */
export function movedBetween(tilt: TiltPair, limits: { readonly min: Degrees; readonly max: Degrees }): readonly Moved[] {
  return possibleWays((sense) => excursion(tilt, sense), limits);
}
