import { median } from 'simple-statistics';
import type { Degrees } from '../terms.js';
import type { Sense } from './excursion.js';
import { planeVerdict, STILL, tiltOf, type Gravity, type GravitySample, type PlaneVerdict } from './gravity.js';
import { wrap180 } from './wrap.js';

/** Against what zero is: where the device was, or where its x axis lies level or hangs plumb. */
export const ZEROS = ['start', 'level', 'plumb'] as const;
export type ZeroAt = (typeof ZEROS)[number];

/**
 * A hold is the middle of what was felt in the last quarter of a second, while
 * the device was still that long: it does not lag, for what it is taken from
 * lies before it. A device that moves is held where it is, one sample late at
 * the most: the needle is the middle of three samples.
 *
 * @see common practice, no source
 */
export const HOLD_SECONDS = 0.25;
/** Nothing was felt for so long: what is shown is no longer where the device is. @see common practice, no source */
export const STALE_SECONDS = 0.5;
/** So far out of plane the way a device turns cannot be told any more. @see common practice, no source */
const LOST_FROM: Degrees = 80;
/** A movement goes the way in which it first went so far. @see common practice, no source */
const WAY_FROM: Degrees = 3;
/** So much of the stream is kept: what a hold, the longest chosen stillness and the needle look back at. */
const KEPT_SECONDS = 4;

interface Felt {
  readonly t: number;
  /** Tilt without the jumps of the scale. */
  readonly path: Degrees;
  readonly outOfPlane: Degrees;
}

/** A stream as far as it was followed. */
export interface Following {
  /** The last seconds of it, oldest first; empty before anything was felt. */
  readonly recent: readonly Felt[];
  readonly zero: { readonly path: Degrees; readonly outOfPlane: Degrees; readonly at: ZeroAt; readonly place: string } | null;
  /** Which way it went from zero: the tilt rises or falls. */
  readonly way: Sense | null;
  /** How far it came the way it went, held or not. */
  readonly peak: Degrees;
  /** It was turned so far out of plane that the way it went is not known: zero has to be set anew. */
  readonly lost: boolean;
}

export const NOTHING_FELT: Following = { recent: [], zero: null, way: null, peak: 0, lost: false };

/** The next sample of a stream; one that is not after the last is left out. */
export function follow(before: Following, { t, g }: GravitySample): Following {
  const { tilt, outOfPlane } = tiltOf(g);
  const last = before.recent.at(-1);
  if (!Number.isFinite(t) || Number.isNaN(tilt) || (last && t <= last.t)) return before;
  const path = last ? last.path + wrap180(tilt - last.path) : tilt;
  const recent = [...before.recent.filter((one) => t - one.t <= KEPT_SECONDS), { t, path, outOfPlane }];
  const lost = before.lost || (before.zero !== null && outOfPlane >= LOST_FROM);
  if (!before.zero) return { ...before, recent, lost };
  const away = needle(recent) - before.zero.path;
  const way = before.way ?? (Math.abs(away) < WAY_FROM ? null : away > 0 ? 1 : -1);
  return { ...before, recent, way, lost, peak: way === null ? 0 : Math.max(before.peak, away * way) };
}

/** Where the device is, its tilt without the jumps of the scale: the middle of the last three samples; 0 before anything was felt. */
export const pathOf = ({ recent }: Following): Degrees => (recent.length > 0 ? needle(recent) : 0);

/** The middle of the last three. */
const needle = (recent: readonly Felt[]): Degrees => median(recent.slice(-3).map(({ path }) => path));

/**
 * Sets zero where the device is now, or at the nearest place where it lies level
 * or hangs plumb. What went before is forgotten.
 *
 * @param place where on the body that is, in whatever words: told again with what is shown
 */
export function setZero(before: Following, at: ZeroAt = 'start', place = ''): Following {
  if (before.recent.length === 0) return before;
  const { path, outOfPlane } = restingAt(before.recent);
  const quarter = at === 'level' ? 90 : 0;
  const zero = at === 'start' ? path : quarter + 180 * Math.round((path - quarter) / 180);
  const start = {
    ...before,
    way: null,
    peak: 0,
    lost: false,
    zero: { path: zero, outOfPlane: at === 'start' ? outOfPlane : 0, at, place },
  };
  // Against level and plumb it may stand far from zero already.
  const way = Math.abs(path - zero) < WAY_FROM ? null : path > zero ? 1 : -1;
  return { ...start, way, peak: Math.abs(way === null ? 0 : path - zero) };
}

/** Where the device is: the middle of what was felt last, over the time of a hold where it was still. */
function restingAt(recent: readonly Felt[]): { readonly path: Degrees; readonly outOfPlane: Degrees } {
  const end = recent.at(-1)!.t;
  const held = recent.filter(({ t }) => end - t <= HOLD_SECONDS);
  const paths = held.map(({ path }) => path);
  const of = Math.max(...paths) - Math.min(...paths) <= STILL.within ? held : recent.slice(-3);
  return { path: median(of.map(({ path }) => path)), outOfPlane: median(of.map(({ outOfPlane }) => outOfPlane)) };
}

/** What a device shows this moment. */
export interface LiveTilt {
  readonly t: number;
  /** From zero, the way it went or was told to go; null before zero is set. */
  readonly degrees: Degrees | null;
  /** What a hold would take. */
  readonly held: Degrees | null;
  /** The furthest since zero. */
  readonly peak: Degrees | null;
  /** At zero or now, whichever is more. */
  readonly outOfPlane: Degrees;
  readonly verdict: PlaneVerdict;
  /** For how long it has been still, in seconds: at most what is kept of a stream. */
  readonly still: number;
  readonly way: Sense | null;
  readonly lost: boolean;
}

/**
 * @param told which way counts up, where somebody said so
 * @returns null before anything was felt
 */
export function liveTilt({ recent, zero, way, peak, lost }: Following, told?: Sense): LiveTilt | null {
  const last = recent.at(-1);
  if (!last) return null;
  const sense = told ?? way ?? 1;
  const resting = restingAt(recent);
  const outOfPlane = Math.max(resting.outOfPlane, zero?.outOfPlane ?? 0);
  const from = (path: Degrees): Degrees | null => zero && (path - zero.path) * sense;
  return {
    t: last.t,
    degrees: from(needle(recent)),
    held: from(resting.path),
    peak: zero && (way === null || sense === way ? peak : -peak),
    outOfPlane,
    verdict: planeVerdict(outOfPlane),
    still: stillFor(recent),
    way,
    lost,
  };
}

/** What an instrument tells of itself: counted from its zero, up while its tilt rises, to hundredths. */
export interface Shown {
  readonly t: number;
  readonly degrees: Degrees | null;
  readonly held: Degrees | null;
  readonly peak: Degrees | null;
  readonly outOfPlane: Degrees;
  readonly still: number;
  readonly way: Sense | null;
  readonly lost: boolean;
  readonly zero: ZeroAt | null;
  readonly zeroedAt: string | null;
}

/** @returns null before anything was felt */
export function showsOf(following: Following): Shown | null {
  const live = liveTilt(following, 1);
  if (!live) return null;
  const { t, degrees, held, peak, outOfPlane, still, way, lost } = live;
  const fine = (value: Degrees): Degrees => Math.round(value * 100) / 100 + 0;
  const of = (value: Degrees | null): Degrees | null => (value === null ? null : fine(value));
  return {
    t: fine(t),
    degrees: of(degrees),
    held: of(held),
    peak: of(peak),
    outOfPlane: fine(outOfPlane),
    still: fine(still),
    way,
    lost,
    zero: following.zero?.at ?? null,
    zeroedAt: following.zero?.place ?? null,
  };
}

function stillFor(recent: readonly Felt[]): number {
  const end = recent.at(-1)!;
  let [low, high, since] = [end.path, end.path, end.t];
  for (const { t, path } of [...recent].reverse()) {
    [low, high] = [Math.min(low, path), Math.max(high, path)];
    if (high - low > STILL.within) break;
    since = t;
  }
  return end.t - since;
}

const toRadians = (degrees: Degrees): number => (degrees * Math.PI) / 180;

/**
 * Gravity as a phone feels it from the angles its browser tells: beta round the
 * screen's width, gamma round its length. x to the right of the screen, y to its
 * top, z out of it; the plane of a motion is the screen's.
 *
 * @see https://www.w3.org/TR/orientation-event/ worked example of the rotation matrix, from memory
 */
export function gravityOf(beta: Degrees, gamma: Degrees): Gravity {
  const [b, g] = [toRadians(beta), toRadians(gamma)];
  return [Math.cos(b) * Math.sin(g), -Math.sin(b), -Math.cos(b) * Math.cos(g)];
}
