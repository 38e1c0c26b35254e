import { mean, sampleStandardDeviation } from 'simple-statistics';
import { bandAround } from '../error/sem.js';
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
  readonly landmarks: LandmarkError;
}

/**
 * What it comes to, as a standard error, that a landmark is not where it is
 * meant: by the hand that points in the picture, and by the spot on the skin,
 * which stays the same however often it is pointed at.
 */
export interface LandmarkError {
  readonly byHand: number;
  readonly bySkin: number;
}

/** How far a landmark is off by default, each way. @see common practice, no source */
const LANDMARK_OFF = { pixels: 2, skinCm: 0.5 } as const;
/** The longest segment of an angle, where the picture has no scale: a shin, a thigh, an upper body. @see common practice, no source */
const ASSUMED_SEGMENT_CM = 40;

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
 * landmarks again tells how far one's own hand is steady; before that, and for
 * the spot on the skin always, it is taken to be off by default. Where the
 * camera stood is not to be seen in the picture, and is asked for.
 *
 * @param view degrees that the camera may have stood off square
 * @param scale centimetres a unit of the picture; null where nothing in it is known
 */
export function valuesIn(
  set: PictureSet,
  placings: readonly Placing[],
  view: Degrees,
  scale: number | null = null,
): readonly PictureValue[] {
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
      landmarks: landmarkError(angle, placings, scale),
    };
  });
}

/** By how much an angle is other when each of its landmarks is off each way by so much: of the placing in which it counts most. */
function landmarkError(angle: PictureAngle, placings: readonly Placing[], scale: number | null): LandmarkError {
  const errors = placings.flatMap((placing) => {
    const perUnit = degreesPerUnit(angle, placing);
    if (perUnit === null) return [];
    const skin = LANDMARK_OFF.skinCm / (scale ?? ASSUMED_SEGMENT_CM / longestSegment(angle, placing));
    return { byHand: perUnit * LANDMARK_OFF.pixels, bySkin: perUnit * skin };
  });
  return {
    byHand: Math.max(...errors.map(({ byHand }) => byHand)),
    bySkin: Math.max(...errors.map(({ bySkin }) => bySkin)),
  };
}

/** Degrees by which an angle is off, where all of its landmarks are off each way by one unit, independently of each other. @see JCGM 100:2008 (GUM), 5.1.2 (from memory) */
function degreesPerUnit(angle: PictureAngle, placing: Placing): number | null {
  const asPlaced = angleIn(angle, placing);
  if (asPlaced === null) return null;
  const step = longestSegment(angle, placing) * 1e-5;
  const slopes = [...new Set(angle.of)].flatMap((id) => {
    const [x, y] = placing[id]!;
    return [
      [x + step, y],
      [x, y + step],
    ].map((moved) => ((angleIn(angle, { ...placing, [id]: moved as unknown as Point }) ?? asPlaced) - asPlaced) / step);
  });
  return Math.hypot(...slopes);
}

function longestSegment({ of }: PictureAngle, placing: Placing): number {
  const points = of.map((id) => placing[id]!);
  return Math.max(...points.slice(1).map(([x, y], at) => Math.hypot(x - points[at]![0], y - points[at]![1])));
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
  /** In centimetres. */
  readonly landmarks: LandmarkError;
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
        // Two landmarks, each off along the line.
        landmarks: { byHand: Math.SQRT2 * LANDMARK_OFF.pixels * scale, bySkin: Math.SQRT2 * LANDMARK_OFF.skinCm },
      },
    ];
  });
}

/** What a value off a picture is made of, as to its error. */
type Errors = Pick<PictureValue, 'byView' | 'byPlacing' | 'placings' | 'landmarks'>;

/** The standard error of the landmarks: the hand as it was over its placings, or as hands are; and the spot on the skin. */
const placingError = ({ byPlacing, placings, landmarks: { byHand, bySkin } }: Errors): number =>
  Math.hypot(byPlacing === null ? byHand : byPlacing / Math.sqrt(placings), bySkin);

/**
 * One standard error out of all: the bound of the view as a spread that is
 * even within it, and the landmarks.
 *
 * @see JCGM 100:2008 (GUM), 4.3.7: a bound ±a that nothing more is known of has a standard uncertainty of a/√3; 4.2.3: s/√n for a mean (from memory)
 * @example pictureError({ byView: 3, byPlacing: 2, placings: 4, landmarks: { byHand: 5, bySkin: 0 } }) // 2
 */
export function pictureError(errors: Errors): number {
  return Math.hypot(errors.byView / Math.sqrt(3), placingError(errors));
}

/** Half of the band in which the value lies 95 times in 100, if nothing else is wrong: what is said beside it, never rounded down. */
export const atLeastOff = (errors: Errors, step: number): number => Math.ceil(bandAround(pictureError(errors)) / step - 1e-9) * step;
