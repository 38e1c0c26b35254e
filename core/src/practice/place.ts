import { angleAt } from '../angle/points.js';
import { wrap180 } from '../angle/wrap.js';
import { drawFigure, PROTOCOLS, protocolOfId, type Drawing, type Protocol } from '../catalogue/index.js';
import type { Degrees } from '../terms.js';
import { between, oneOf, type Exercise, type SlipId } from './types.js';

type At = readonly [x: number, y: number];

/** A limb of one of our figures, moved so far; axis and arms are to be laid on it. */
export interface PlaceTask {
  readonly protocol: Protocol;
  /** How far the limb has moved. */
  readonly value: Degrees;
  /** The right limb: the figure the other way round. */
  readonly mirrored: boolean;
}

/** Where they were laid, in the units of the figure as it is drawn. */
export interface PlaceAnswer {
  readonly axis: At;
  /** A point on each arm. */
  readonly still: At;
  readonly moving: At;
}

/** Width of a scene: what a figure the other way round is turned over in. */
const SCENE_WIDTH = 360;
const mirror = ([x, y]: At): At => [SCENE_WIDTH - x, y];

/** What is off by more than this is told. @see common practice, no source: the scenes are 360 units wide, a thigh about 70 long */
const PLACING = { axis: 14, arm: 8, reading: 5 } as const;

/** The figure as it is shown: limbs moved and, where it is the right limb, turned over. */
export function drawnFor({ protocol, value, mirrored }: PlaceTask): Drawing {
  const drawing = drawFigure(protocol, value);
  return mirrored ? turnedOver(drawing) : drawing;
}

/** A figure of the left limb as one of the right. */
export function turnedOver(drawing: Drawing): Drawing {
  const { frame, limbs, head, furniture, turn } = drawing;
  return {
    ...drawing,
    frame: { ...frame, x: SCENE_WIDTH - frame.x - frame.width },
    limbs: limbs.map((limb) => ({ ...limb, from: mirror(limb.from), to: mirror(limb.to) })),
    head: head && { ...head, at: mirror(head.at) },
    furniture: furniture.map(([a, b]) => [mirror(a), mirror(b)] as const),
    turn: turn && {
      axis: mirror(turn.axis),
      still: mirror(turn.still),
      zero: mirror(turn.zero),
      end: mirror(turn.end),
      arrow: { ...turn.arrow, from: mirror(turn.arrow.from), to: mirror(turn.arrow.to), clockwise: !turn.arrow.clockwise },
      sites: turn.sites.map(mirror),
    },
  };
}

const towards = ([x1, y1]: At, [x2, y2]: At): Degrees => (Math.atan2(x2 - x1, y1 - y2) * 180) / Math.PI;
const apart = (one: Degrees, other: Degrees): Degrees => Math.abs(wrap180(one - other));
const isOneSpot = (a: At, b: At): boolean => a[0] === b[0] && a[1] === b[1];

/** Axis and arms as the protocol lays them. */
export function rightPlace(task: PlaceTask): PlaceAnswer {
  const turn = drawnFor(task).turn!;
  return { axis: turn.axis, still: turn.still, moving: turn.end };
}

const between180 = ({ axis, still, moving }: PlaceAnswer): Degrees | null =>
  isOneSpot(axis, still) || isOneSpot(axis, moving) ? null : angleAt(still, axis, moving).degrees;

/** Laying axis, still arm and moving arm on the figures of the library. */
export const PLACE: Exercise<PlaceTask, PlaceAnswer> = {
  id: 'place',
  cards: PROTOCOLS.filter(({ figure, placement }) => figure.kind === 'turn' && placement.how === 'arms').map(({ id }) => id),
  make: (card, random) => {
    const protocol = protocolOfId(card)!;
    const end = protocol.figure.kind === 'turn' ? protocol.figure.end : 0;
    const least = Math.min(15, Math.abs(end));
    return {
      protocol,
      value: (end < 0 ? -1 : 1) * between(random, least, Math.max(least, Math.abs(end))),
      mirrored: oneOf(random, [true, false]),
    };
  },
  score: (task, answer) => {
    const right = rightPlace(task);
    const measured = between180(answer);
    const off = measured === null ? null : measured - between180(right)!;
    const slips: SlipId[] = [];
    if (Math.hypot(answer.axis[0] - right.axis[0], answer.axis[1] - right.axis[1]) > PLACING.axis) slips.push('axis');
    const [still, moving] = [towards(answer.axis, answer.still), towards(answer.axis, answer.moving)];
    const [rightStill, rightMoving] = [towards(right.axis, right.still), towards(right.axis, right.moving)];
    const isOff = (arm: Degrees, where: Degrees): boolean => apart(arm, where) > PLACING.arm;
    if (isOff(still, rightStill) && isOff(moving, rightMoving) && !isOff(still, rightMoving) && !isOff(moving, rightStill))
      slips.push('armsSwapped');
    else {
      if (isOff(still, rightStill)) slips.push('stillArm');
      if (isOff(moving, rightMoving)) slips.push('movingArm');
    }
    const isRead = off !== null && Math.abs(off) <= PLACING.reading;
    return { mark: slips.length > 0 || off === null ? 'wrong' : isRead ? 'right' : 'near', off, slips };
  },
  read: (_, answer) => between180(answer),
  truth: (task) => between180(rightPlace(task)),
};
