import { planeVerdict, tiltOf, type PlaneVerdict } from '../angle/gravity.js';
import { PROTOCOLS, protocolOfId, type Protocol, type Substitution } from '../catalogue/index.js';
import { feltAt } from '../simulate/index.js';
import type { Degrees } from '../terms.js';
import { between, oneOf, type Exercise, type SlipId } from './types.js';

/** A limb with an inclinometer on it, both in one pair of hands: it is taken to its end, and the inclinometer kept in plane. */
export interface PlaneTask {
  readonly protocol: Protocol;
  /** How far the joint goes, before a neighbour gives or it stops. */
  readonly truth: Degrees;
  /** What gives past the end; null: the limb stops there. */
  readonly substitution: Substitution | null;
  /** How far the inclinometer is turned out of plane at the start, and what it turns more while the limb moves. */
  readonly turned: Degrees;
  readonly rolls: Degrees;
}

export interface PlaneAnswer {
  /** How far the limb was taken: 1 is its true end. */
  readonly moved: number;
  /** By how much the inclinometer was turned by hand. */
  readonly by: Degrees;
}

/** What is held. */
export interface PlaneShown {
  readonly degrees: Degrees;
  readonly outOfPlane: Degrees;
  /** The same with its way: plus and minus are the two sides it can fall to. */
  readonly sideways: Degrees;
  readonly verdict: PlaneVerdict;
}

/** How far a neighbour lets it go on. */
export const GIVES = 1.25;
/** Taken so near to its end, a limb is at its end. */
const AT_END = { from: 0.97, to: 1.03 };

/** What the inclinometer shows with the limb taken so far, and itself turned so much by hand. */
export function shownIn({ truth, turned, rolls }: PlaneTask, { moved, by }: PlaneAnswer): PlaneShown {
  const felt = feltAt(truth * moved, turned + rolls * moved + by);
  const { tilt, outOfPlane } = tiltOf(felt);
  return {
    degrees: Math.round(Math.abs(tilt)),
    outOfPlane,
    sideways: felt[2] < 0 ? -outOfPlane : outOfPlane,
    verdict: planeVerdict(outOfPlane),
  };
}

/** How far a limb can be taken: it stops at its end, or a neighbour gives. */
export const mostMoved = ({ substitution }: PlaneTask): number => (substitution ? GIVES : 1);

/** Those that turn in a vertical plane, and by no more than the scale of one reading. */
const READ_SO = PROTOCOLS.filter(
  ({ swing, reads, figure, instruments, substitutions }) =>
    swing === 'vertical' &&
    reads === 'excursion' &&
    figure.kind === 'turn' &&
    Math.abs(figure.end) >= 20 &&
    instruments.includes('inclinometer') &&
    substitutions.length > 0,
);

/** Holding an inclinometer in plane, at the honest end. */
export const PLANE: Exercise<PlaneTask, PlaneAnswer> = {
  id: 'plane',
  cards: ['steady', 'rolls'].flatMap((hold) => ['stops', 'gives'].map((end) => `${hold}/${end}`)),
  make: (card, random) => {
    const [hold, end] = card.split('/');
    const protocol = protocolOfId(oneOf(random, READ_SO).id)!;
    const usual = protocol.figure.kind === 'turn' ? Math.abs(protocol.figure.end) : 0;
    const way = oneOf(random, [1, -1]);
    return {
      protocol,
      // No further than the scale of one reading even where a neighbour gives.
      truth: between(random, Math.round(usual * 0.6), Math.min(140, Math.round(usual * 1.1))),
      substitution: end === 'gives' ? oneOf(random, protocol.substitutions) : null,
      turned: way * between(random, 12, 24),
      rolls: hold === 'rolls' ? -way * between(random, 24, 44) : 0,
    };
  },
  score: (task, answer) => {
    const { degrees, verdict } = shownIn(task, answer);
    const slips: SlipId[] = [];
    if (verdict === 'refused') slips.push('refused');
    if (verdict === 'warn') slips.push('outOfPlane');
    if (answer.moved < AT_END.from) slips.push('tooEarly');
    if (answer.moved > AT_END.to) slips.push('pastEnd');
    const off = verdict === 'refused' ? null : degrees - task.truth;
    const mark = slips.length > 0 || off === null ? 'wrong' : Math.abs(off) <= 1 ? 'right' : 'near';
    return { mark, off, slips };
  },
  read: (task, answer) => {
    const { degrees, verdict } = shownIn(task, answer);
    return verdict === 'refused' ? null : degrees;
  },
  truth: ({ truth }) => truth,
};
