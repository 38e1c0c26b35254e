import { mean, sampleStandardDeviation } from 'simple-statistics';
import { againstEdges, angleAt, betweenSegments, viewError, type Point } from '../angle/points.js';
import type { Degrees } from '../terms.js';
import type { PictureAngle, PictureLength, PictureSet } from './sets.js';

/** Where the landmarks of a set lie in a picture, as far as they are placed. */
export type Placing = Readonly<Partial<Record<string, Point>>>;

/** What a picture comes to. */
export interface PictureValue {
  readonly angle: PictureAngle;
  /** The mean of all placings that have every landmark of it. */
  readonly degrees: Degrees;
  /** By how much it may be other than it looks, where the camera stood so far off square. */
  readonly byView: Degrees;
  /** Standard deviation over the placings; null with fewer than two. */
  readonly byPlacing: Degrees | null;
  readonly placings: number;
}

/** How far a camera may have stood off square, as it is asked for. @see common practice, no source */
export const OFF_SQUARE = [5, 10] as const;

/** One angle in one placing; null where a landmark is not placed, or two lie at one place. */
export function angleIn({ kind, of }: PictureAngle, placing: Placing): Degrees | null {
  const points = of.map((id) => placing[id]);
  if (points.some((point) => point === undefined)) return null;
  const [a, b, c, d] = points as readonly Point[];
  const isSame = (one: Point, other: Point): boolean => one[0] === other[0] && one[1] === other[1];
  if (isSame(a!, b!) || (c && isSame(d ?? b!, c))) return null;
  if (kind === 'corner') return angleAt(a!, b!, c!).degrees;
  if (kind === 'bend') return 180 - angleAt(a!, b!, c!).degrees;
  if (kind === 'plumb') return againstEdges(a!, b!).vertical;
  if (kind === 'level') return againstEdges(a!, b!).horizontal;
  return betweenSegments([a!, b!], [c!, d!]).degrees;
}

/**
 * All angles of a set that can be told, with their error. Placing the same
 * landmarks again tells how far one's own hand is steady; where the camera stood
 * is not to be seen in the picture, and is asked for.
 *
 * @param view degrees that the camera may have stood off square
 */
export function valuesIn(set: PictureSet, placings: readonly Placing[], view: Degrees): readonly PictureValue[] {
  return set.angles.flatMap((angle) => {
    const found = placings.flatMap((placing) => angleIn(angle, placing) ?? []);
    if (found.length === 0) return [];
    const { middle: degrees, ...spread } = overPlacings(found);
    // What lies between the two lines is what is drawn together, whatever it is then called.
    const seen = angle.kind === 'bend' ? 180 - degrees : degrees;
    return {
      angle,
      degrees,
      byView: viewError(seen, view),
      ...spread,
    };
  });
}

/** What one or several placings come to together, and how far they lie apart. */
function overPlacings(found: readonly number[]) {
  return {
    middle: mean([...found]),
    byPlacing: found.length > 1 ? sampleStandardDeviation([...found]) : null,
    placings: found.length,
  };
}

/** Centimetres a unit of the picture, from something in it whose length is known; null where that is no length. */
export function scaleOf(from: Point, to: Point, cm: number): number | null {
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  return length > 0 && cm > 0 && Number.isFinite(cm) ? cm / length : null;
}

/** What a length of a picture comes to. */
export interface PictureLengthValue {
  readonly length: PictureLength;
  readonly cm: number;
  readonly byView: number;
  readonly byPlacing: number | null;
  readonly placings: number;
}

/**
 * All lengths of a set, with a scale. Seen off square, what runs across looks
 * shorter by the cosine of the view; the length that the scale is taken from is
 * taken to lie in the plane of the movement.
 *
 * @param scale centimetres a unit of the picture
 * @param view degrees that the camera may have stood off square
 */
export function lengthsIn(set: PictureSet, placings: readonly Placing[], scale: number, view: Degrees): readonly PictureLengthValue[] {
  return set.lengths.flatMap((length) => {
    const found = placings.flatMap((placing) => {
      const [from, to] = length.of.map((id) => placing[id]);
      if (!from || !to) return [];
      const [x, y] = [to[0] - from[0], to[1] - from[1]];
      return (length.along === 'across' ? Math.abs(x) : Math.hypot(x, y)) * scale;
    });
    if (found.length === 0) return [];
    const { middle: cm, ...spread } = overPlacings(found);
    return [
      {
        length,
        cm,
        byView: cm * (1 / Math.cos((view * Math.PI) / 180) - 1),
        ...spread,
      },
    ];
  });
}

/**
 * One standard error out of both: the bound of the view as a spread that is
 * even within it, and the hand that placed the landmarks, over its placings.
 *
 * @see JCGM 100:2008 (GUM), 4.3.7: a bound ±a that nothing more is known of has a standard uncertainty of a/√3; 4.2.3: s/√n for a mean (from memory)
 * @example pictureError({ byView: 3, byPlacing: 2, placings: 4 }) // 2
 */
export function pictureError({ byView, byPlacing, placings }: Pick<PictureValue, 'byView' | 'byPlacing' | 'placings'>): number {
  return Math.hypot(byView / Math.sqrt(3), (byPlacing ?? 0) / Math.sqrt(placings));
}
