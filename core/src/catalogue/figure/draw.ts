import type { Degrees } from '../../terms.js';
import type { Protocol } from '../types.js';
import { sceneOf } from './scenes.js';
import type { Bone, Figure, Point, Scene } from './types.js';

/** A thick line of the body. */
export interface Limb {
  readonly from: Point;
  readonly to: Point;
  readonly width: number;
  /** True for what turns. */
  readonly moves: boolean;
}

/** The part of the scene that holds the drawing. */
export interface Frame {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What a picture of a protocol is made of, in the units of the scene: 360 × 240, y down. */
export interface Drawing {
  readonly frame: Frame;
  readonly seenFrom: string;
  readonly limbs: readonly Limb[];
  readonly head: { readonly at: Point; readonly radius: number; readonly moves: boolean } | null;
  readonly furniture: Scene['furniture'];
  /** Axis, arms and the way moved; null where nothing turns. */
  readonly turn: {
    readonly axis: Point;
    readonly still: Point;
    readonly zero: Point;
    readonly end: Point;
    /** Radius and end points of the arrow from zero to the end. */
    readonly arrow: {
      readonly radius: number;
      readonly from: Point;
      readonly to: Point;
      readonly large: boolean;
      readonly clockwise: boolean;
    };
    readonly sites: readonly Point[];
  } | null;
  readonly tape: { readonly from: Point; readonly to: Point } | null;
  readonly ring: { readonly at: Point; readonly width: number; readonly tilt: Degrees } | null;
  readonly push: { readonly at: Point; readonly from: Point } | null;
}

const RADIANS = Math.PI / 180;
const ARM = 74;
const ARROW = 52;

/** Direction from one point to another: degrees clockwise from straight up. */
const direction = ([x1, y1]: Point, [x2, y2]: Point): Degrees => Math.atan2(x2 - x1, y1 - y2) / RADIANS;

/** The point so far from another in a direction. */
const along = ([x, y]: Point, towards: Degrees, length: number): Point => [
  x + length * Math.sin(towards * RADIANS),
  y - length * Math.cos(towards * RADIANS),
];

const turned = (about: Point, point: Point, by: Degrees): Point =>
  along(about, direction(about, point) + by, Math.hypot(point[0] - about[0], point[1] - about[1]));

/**
 * The figure of a protocol, from its own data: the scene's body with the
 * moving limb turned from zero to an end position, and where the instrument
 * lies.
 *
 * @param value how far the limb has moved, degrees; the protocol's own example where left out
 */
export function drawFigure(protocol: Protocol, value?: Degrees): Drawing {
  const { figure } = protocol;
  const scene = sceneOf(figure.scene);
  const at = pointsOf(scene);
  const still = bodyOf(scene);
  const drawing = ((): Omit<Drawing, 'frame'> => {
    switch (figure.kind) {
      case 'turn':
        return { ...still, ...turnOf(protocol, figure, scene, value ?? figure.end) };
      case 'tape':
        return { ...still, tape: { from: at(figure.from), to: at(figure.to) } };
      case 'ring':
        return { ...still, ring: { at: at(figure.at), width: figure.width, tilt: figure.tilt } };
      case 'push':
        return { ...still, push: { at: at(figure.at), from: along(at(figure.at), figure.towards + 180, 58) } };
      case 'stand':
        return still;
    }
  })();
  return { ...drawing, frame: frameOf(drawing) };
}

/** The body of a scene as it stands, lies or moves; nothing laid on it. */
export function drawScene(id: string): Drawing {
  const drawing = bodyOf(sceneOf(id));
  return { ...drawing, frame: frameOf(drawing) };
}

function bodyOf(scene: Scene): Omit<Drawing, 'frame'> {
  const at = pointsOf(scene);
  return {
    seenFrom: scene.seenFrom,
    limbs: scene.bones.flatMap((bone) => limb(bone, scene.points, () => false)),
    head: scene.head ? { at: at(scene.head.at), radius: scene.head.radius, moves: false } : null,
    furniture: scene.furniture,
    turn: null,
    tape: null,
    ring: null,
    push: null,
  };
}

/** Least size of a frame, so that a hand is not drawn as large as a body. */
const LEAST = { width: 230, height: 150 };
const MARGIN = 8;

/** The smallest frame round all that is drawn, but no smaller than the least. */
function frameOf({ limbs, head, furniture, turn, push }: Omit<Drawing, 'frame'>): Frame {
  const round = ([x, y]: Point, radius: number) => ({ left: x - radius, right: x + radius, top: y - radius, bottom: y + radius });
  const boxes = [
    ...limbs.flatMap(({ from, to, width }) => [round(from, width / 2), round(to, width / 2)]),
    ...(head ? [round(head.at, head.radius)] : []),
    ...furniture.flatMap((piece) => piece.map((at) => round(at, 2))),
    ...(turn ? [turn.still, turn.zero, turn.end].map((at) => round(at, 4)) : []),
    ...(push ? [round(push.from, 4)] : []),
  ];
  const edge = (side: 'left' | 'right' | 'top' | 'bottom', pick: (...all: number[]) => number) => pick(...boxes.map((box) => box[side]));
  const [left, right] = widened(edge('left', Math.min), edge('right', Math.max), LEAST.width);
  const [top, bottom] = widened(edge('top', Math.min), edge('bottom', Math.max), LEAST.height);
  return { x: left - MARGIN, y: top - MARGIN, width: right - left + 2 * MARGIN, height: bottom - top + 2 * MARGIN };
}

function widened(from: number, to: number, least: number): [number, number] {
  const missing = Math.max(0, least - (to - from)) / 2;
  return [from - missing, to + missing];
}

function pointsOf(scene: Scene) {
  return (name: string): Point => {
    const point = scene.points[name];
    if (!point) throw new RangeError(`scene "${scene.id}" has no point "${name}"`);
    return point;
  };
}

function turnOf(
  { dial }: Protocol,
  figure: Extract<Figure, { kind: 'turn' }>,
  scene: Scene,
  value: Degrees,
): Pick<Drawing, 'limbs' | 'head' | 'turn'> {
  if (!dial) throw new RangeError('a turning figure needs a dial');
  const at = pointsOf(scene);
  const axis = at(figure.axis);
  const zeroAt = figure.zeroAt ?? dial.zeroAt;
  const endAt = zeroAt + dial.sense * value;
  const by = endAt - direction(axis, at(figure.moving[0]!));
  const moved = new Map(figure.moving.map((name) => [name, turned(axis, at(name), by)]));
  const points = { ...scene.points, ...Object.fromEntries(moved) };
  const moves = (name: string) => moved.has(name);
  const stillAt = typeof figure.still === 'number' ? figure.still : direction(axis, at(figure.still));
  const place = (name: string): Point => moved.get(name) ?? at(name);
  return {
    limbs: scene.bones.flatMap((bone) => limb(bone, points, (from, to) => moves(from) || (moves(to) && from === figure.axis))),
    head: scene.head
      ? { at: place(scene.head.at), radius: scene.head.radius, moves: moves(scene.head.at) || scene.head.at === figure.axis }
      : null,
    turn: {
      axis,
      still: along(axis, stillAt, ARM),
      zero: along(axis, zeroAt, ARM),
      end: along(axis, endAt, ARM + 18),
      arrow: {
        radius: ARROW,
        from: along(axis, zeroAt, ARROW),
        to: along(axis, endAt, ARROW),
        large: Math.abs(value) > 180,
        clockwise: dial.sense * value >= 0,
      },
      sites: (figure.sites ?? []).map(place),
    },
  };
}

function limb([from, to, width]: Bone, points: Readonly<Record<string, Point>>, moves: (from: string, to: string) => boolean): Limb[] {
  const [a, b] = [points[from], points[to]];
  return a && b ? [{ from: a, to: b, width, moves: moves(from, to) }] : [];
}
