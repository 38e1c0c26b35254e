import { median } from 'simple-statistics';
import type { Degrees } from '../terms.js';
import { wrap180 } from './wrap.js';

/** Gravity as a device feels it, in any unit: x and y span the plane of the motion, z lies along its axis. */
export type Gravity = readonly [x: number, y: number, z: number];

/** One moment of a stream. */
export interface GravitySample {
  /** Seconds, from any beginning. */
  readonly t: number;
  readonly g: Gravity;
}

/** Out of plane the reading shrinks: from here on that is said, and from there on nothing is read. @see common practice, no source */
export const OUT_OF_PLANE = { warn: 10, refuse: 30 } as const;
export type PlaneVerdict = 'good' | 'warn' | 'refused';

export const planeVerdict = (outOfPlane: Degrees): PlaneVerdict =>
  outOfPlane >= OUT_OF_PLANE.refuse ? 'refused' : outOfPlane >= OUT_OF_PLANE.warn ? 'warn' : 'good';

/** A device is held still once it has not left so many degrees for so many seconds. @see common practice, no source */
export const STILL = { seconds: 1, within: 1 } as const;

const toDegrees = (radians: number): Degrees => (radians * 180) / Math.PI;

/**
 * Where a device points in the plane of a motion, and how far it is out of it.
 *
 * @returns tilt above −180 up to 180, counted from x towards y; out of plane 0 to 90. NaN where nothing is felt.
 */
export function tiltOf([x, y, z]: Gravity): { readonly tilt: Degrees; readonly outOfPlane: Degrees } {
  const length = Math.hypot(x, y, z);
  if (length === 0) return { tilt: NaN, outOfPlane: NaN };
  // Rounded sums may lie a hair past one.
  return { tilt: wrap180(toDegrees(Math.atan2(y, x))), outOfPlane: toDegrees(Math.asin(Math.min(1, Math.abs(z) / length))) };
}

/** A moment in which the device was held still, and how far it had come from the zero, the way it moved. */
export interface TiltHold {
  readonly t: number;
  readonly degrees: Degrees;
}

/** What a stream of one movement comes to. */
export interface TiltReading {
  /** Tilts of the device: at the zero, and at the end. */
  readonly zero: Degrees;
  readonly end: Degrees;
  /** Along the path that was moved. */
  readonly excursion: Degrees;
  /** The furthest that was reached, held or not. */
  readonly peak: Degrees;
  /** The most that it was out of plane from the zero to the end. */
  readonly outOfPlane: Degrees;
  readonly verdict: PlaneVerdict;
  readonly holds: readonly TiltHold[];
}

/** Where a stream cannot be read, and what is allowed. */
export class TiltError extends Error {
  constructor(
    /** The first sample is 0; null: the whole. */
    readonly at: number | null,
    readonly field: 't' | 'g' | 'samples',
    message: string,
  ) {
    super(message);
  }
}

/**
 * Reads one movement out of a stream: from where the device was first held
 * still, or where it began, to the held place that lies furthest from there, or
 * the furthest where none was held. The path is followed sample by sample, so
 * that a jump of the scale is none of the body's; single spikes are taken out
 * by the middle of three, which delays nothing that is held.
 *
 * @throws TiltError
 */
export function readTilt(
  samples: readonly GravitySample[],
  still: { readonly seconds: number; readonly within: Degrees } = STILL,
): TiltReading {
  check(samples);
  const felt = samples.map(({ g }) => tiltOf(g));
  const path = middleOfThree(followed(felt.map(({ tilt }) => tilt)));
  const outs = middleOfThree(felt.map(({ outOfPlane }) => outOfPlane));
  const held = stillPlaces(samples, path, still);
  const from = held[0] ?? { at: 0, until: 0, degrees: path[0]! };
  const later = path.slice(from.until + 1).map((degrees) => degrees - from.degrees);
  const furthest = later.reduce((most, value) => (Math.abs(value) > Math.abs(most) ? value : most), 0);
  const way = furthest < 0 ? -1 : 1;
  const come = (degrees: Degrees): Degrees => (degrees - from.degrees) * way;
  const others = held.slice(1);
  const last = others.length > 0 ? others.reduce((most, one) => (come(one.degrees) > come(most.degrees) ? one : most)) : null;
  const peakAt = furthest === 0 ? from.until : from.until + 1 + later.indexOf(furthest);
  const end = last ?? { until: peakAt, degrees: path[peakAt]! };
  const outOfPlane = Math.max(...outs.slice(from.at, end.until + 1));
  return {
    zero: wrap180(from.degrees),
    end: wrap180(end.degrees),
    excursion: come(end.degrees),
    peak: Math.abs(furthest),
    outOfPlane,
    verdict: planeVerdict(outOfPlane),
    holds: held.map(({ at, degrees }) => ({ t: samples[at]!.t, degrees: come(degrees) })),
  };
}

function check(samples: readonly GravitySample[]): void {
  if (samples.length < 2) throw new TiltError(null, 'samples', `${samples.length} is too few; allowed: 2 or more`);
  samples.forEach(({ t, g }, at) => {
    if (!Number.isFinite(t)) throw new TiltError(at, 't', 'is no number; allowed: seconds');
    if (at > 0 && t <= samples[at - 1]!.t)
      throw new TiltError(at, 't', `${t} is not after ${samples[at - 1]!.t}; allowed: times that rise`);
    if (!g.every(Number.isFinite)) throw new TiltError(at, 'g', 'holds what is no number; allowed: three numbers');
    if (g.every((part) => part === 0)) throw new TiltError(at, 'g', 'feels no gravity; allowed: three numbers that are not all 0');
  });
}

/** The same tilts without the jump of the scale: each next one lies where it is nearest to the one before. */
function followed(tilts: readonly Degrees[]): Degrees[] {
  const path: Degrees[] = [];
  for (const tilt of tilts) path.push(path.length === 0 ? tilt : path[path.length - 1]! + wrap180(tilt - path[path.length - 1]!));
  return path;
}

/** The middle of each value and its neighbours; the first and the last are their own. */
function middleOfThree(values: readonly number[]): number[] {
  return values.map((value, at) => {
    const [before, after] = [values[at - 1], values[at + 1]];
    if (before === undefined || after === undefined) return value;
    return Math.max(Math.min(before, value), Math.min(Math.max(before, value), after));
  });
}

interface Still {
  /** When it had been still for long enough, and until when it stayed. */
  readonly at: number;
  readonly until: number;
  readonly degrees: Degrees;
}

/** Every place where the path stayed within a span for long enough: its median, which the way there and away does not draw. One place is one, however long it lasts. */
function stillPlaces(
  samples: readonly GravitySample[],
  path: readonly Degrees[],
  { seconds, within }: { readonly seconds: number; readonly within: Degrees },
): Still[] {
  const found: Still[] = [];
  for (let from = 0; from < path.length;) {
    let [low, high] = [path[from]!, path[from]!];
    let until = from;
    while (until + 1 < path.length) {
      const next = path[until + 1]!;
      if (Math.max(high, next) - Math.min(low, next) > within) break;
      [low, high] = [Math.min(low, next), Math.max(high, next)];
      until += 1;
    }
    let at = from;
    // A moment is written in decimals: a hair short of a second is one.
    while (at < until && samples[at]!.t - samples[from]!.t < seconds - 1e-9) at += 1;
    if (samples[at]!.t - samples[from]!.t < seconds - 1e-9) {
      from += 1;
      continue;
    }
    found.push({ at, until, degrees: median(path.slice(from, until + 1)) });
    from = until + 1;
  }
  return found;
}
