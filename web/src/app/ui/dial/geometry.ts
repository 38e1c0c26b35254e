import { wrap180, type Degrees, type DialView, type Side } from '@dial-gauge/core';

/** Where zero points and which way the motion turns; all a dial needs to place an angle. */
export type Facing = Pick<DialView, 'zeroAt' | 'sense'>;
export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A view for the side in hand: the right side is the left one in a mirror. */
export function facingFor(view: Facing, side: Side): Facing {
  return side === 'right'
    ? { zeroAt: (360 - view.zeroAt) % 360, sense: view.sense === 1 ? -1 : 1 }
    : { zeroAt: view.zeroAt, sense: view.sense };
}

/** The point of an angle at a radius round the origin; y grows downward, as in SVG. */
export function onDial({ zeroAt, sense }: Facing, angle: Degrees, radius: number): Point {
  const clockwiseFromUp = ((zeroAt + sense * angle) * Math.PI) / 180;
  return { x: radius * Math.sin(clockwiseFromUp), y: -radius * Math.cos(clockwiseFromUp) };
}

/** The angle at which a point lies, counted as the dial counts: above −180 up to 180. */
export function angleOn({ zeroAt, sense }: Facing, { x, y }: Point): Degrees {
  const clockwiseFromUp = (Math.atan2(x, -y) * 180) / Math.PI;
  return wrap180((clockwiseFromUp - zeroAt) * sense);
}

/** An arc of a circle between two angles, as SVG path data. */
export function arcPath(facing: Facing, from: Degrees, to: Degrees, radius: number): string {
  const a = onDial(facing, from, radius);
  const b = onDial(facing, to, radius);
  const large = Math.abs(to - from) > 180 ? 1 : 0;
  const sweep = to > from === (facing.sense === 1) ? 1 : 0;
  return `M${n(a.x)} ${n(a.y)}A${radius} ${radius} 0 ${large} ${sweep} ${n(b.x)} ${n(b.y)}`;
}

/** A piece of a ring between two angles and two radii, closed. */
export function ringPath(facing: Facing, from: Degrees, to: Degrees, inner: number, outer: number): string {
  const back = arcPath(facing, to, from, inner).replace('M', 'L');
  return `${arcPath(facing, from, to, outer)}${back}Z`;
}

export interface Tick {
  readonly angle: Degrees;
  readonly from: Point;
  readonly to: Point;
}

/** Engraved ticks inside a rim: every degree, longer every five, longest every ten. */
export function ticks(facing: Facing, from: Degrees, to: Degrees, rim: number): Tick[] {
  const first = Math.ceil(from);
  return Array.from({ length: Math.floor(to) - first + 1 }, (_, i) => {
    const angle = first + i;
    const length = angle % 10 === 0 ? 7 : angle % 5 === 0 ? 4.5 : 2.5;
    return { angle, from: onDial(facing, angle, rim), to: onDial(facing, angle, rim - length) };
  });
}

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The smallest box round a sector from the pivot to a radius, with a margin. */
export function sectorBox(facing: Facing, from: Degrees, to: Degrees, radius: number, margin: number): Box {
  const points = [{ x: 0, y: 0 }];
  for (let angle = from; angle <= to; angle += 1) points.push(onDial(facing, angle, radius));
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const [left, top] = [Math.min(...xs) - margin, Math.min(...ys) - margin];
  return { x: left, y: top, width: Math.max(...xs) + margin - left, height: Math.max(...ys) + margin - top };
}

/** The smallest box round several. */
export function around(boxes: readonly Box[]): Box {
  const left = Math.min(...boxes.map((b) => b.x));
  const top = Math.min(...boxes.map((b) => b.y));
  const right = Math.max(...boxes.map((b) => b.x + b.width));
  const bottom = Math.max(...boxes.map((b) => b.y + b.height));
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** Two decimals; a hair below zero is zero. */
const n = (value: number): string => (Math.abs(value) < 0.005 ? 0 : value).toFixed(2);
