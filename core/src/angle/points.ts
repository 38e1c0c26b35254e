import type { Degrees } from '../terms.js';

/** A place in a picture: to the right and down, in any unit that is the same both ways. */
export type Point = readonly [x: number, y: number];

/** Which way the second ray lies from the first, as the picture is seen. */
export type Turn = 'clockwise' | 'counterclockwise' | 'none';

const toDegrees = (radians: number): Degrees => (radians * 180) / Math.PI;
const toRadians = (degrees: Degrees): number => (degrees * Math.PI) / 180;

const ray = ([x, y]: Point, [toX, toY]: Point): Point => [toX - x, toY - y];
const cross = ([ax, ay]: Point, [bx, by]: Point): number => ax * by - ay * bx;
const dot = ([ax, ay]: Point, [bx, by]: Point): number => ax * bx + ay * by;

/** Two rays, 0 to 180. Both ways to write it are the same; this one keeps its digits near 0 and 180. */
const between = (a: Point, b: Point): Degrees => Math.abs(toDegrees(Math.atan2(cross(a, b), dot(a, b))));

/** Down is positive in a picture, so a positive cross turns clockwise as it is seen. */
function turnOf(a: Point, b: Point): Turn {
  const to = cross(a, b);
  return to > 0 ? 'clockwise' : to < 0 ? 'counterclockwise' : 'none';
}

/** Two points that are one have no direction. */
export class PointsError extends Error {}

function apart(from: Point, to: Point, words: string): Point {
  const found = ray(from, to);
  if (found[0] === 0 && found[1] === 0) throw new PointsError(`${words} lie at one place; allowed: two places`);
  return found;
}

export interface AngleSeen {
  readonly degrees: Degrees;
  readonly turn: Turn;
}

/** The angle at the middle one of three points, 0 to 180, and which way the last lies from the first. @throws PointsError */
export function angleAt(first: Point, middle: Point, last: Point): AngleSeen {
  const [a, b] = [apart(middle, first, 'points 1 and 2'), apart(middle, last, 'points 2 and 3')];
  return { degrees: between(a, b), turn: turnOf(a, b) };
}

/** A segment against the edges of its picture, 0 to 90 each. @throws PointsError */
export function againstEdges(from: Point, to: Point): { readonly vertical: Degrees; readonly horizontal: Degrees } {
  const [x, y] = apart(from, to, 'points 1 and 2');
  const vertical = toDegrees(Math.atan2(Math.abs(x), Math.abs(y)));
  return { vertical, horizontal: 90 - vertical };
}

/** Between two segments, each from its first point to its second, 0 to 180. @throws PointsError */
export function betweenSegments(a: readonly [Point, Point], b: readonly [Point, Point]): AngleSeen {
  const [first, second] = [apart(...a, 'points 1 and 2'), apart(...b, 'points 3 and 4')];
  return { degrees: between(first, second), turn: turnOf(first, second) };
}

/**
 * By how much an angle may be other than it looks, where the picture was taken
 * so far off perpendicular to its plane. What is seen is drawn together by the
 * cosine along one direction, which is not known: the bound is that of the
 * worst, in which one half of the angle lies to either side of it.
 *
 * @param seen 0 to 180
 * @param view off perpendicular, 0 to below 90
 * @example viewError(90, 10) // 0.88
 */
export function viewError(seen: Degrees, view: Degrees): Degrees {
  const half = Math.tan(toRadians(seen) / 2);
  const drawn = Math.cos(toRadians(view));
  const wider = 2 * toDegrees(Math.atan(half / drawn)) - seen;
  const narrower = seen - 2 * toDegrees(Math.atan(half * drawn));
  return Math.max(wider, narrower, 0);
}
