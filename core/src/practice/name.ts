import { motion, PROTOCOLS, protocolOfId, type Protocol } from '../catalogue/index.js';
import type { Degrees, MotionId } from '../terms.js';
import { MOVES_SEEN } from './moves-seen.js';
import { oneOf, type Exercise } from './types.js';

/** A limb that moves, told by what its far end does. */
export interface NameTask {
  readonly protocol: Protocol;
  /** What is to be seen of it, without its name. */
  readonly seen: string;
  readonly mirrored: boolean;
  readonly options: readonly MotionId[];
}

export interface NameAnswer {
  readonly motion: MotionId;
}

/** How far it is drawn. */
export const drawnTo = ({ figure }: Protocol): Degrees => (figure.kind === 'turn' ? figure.end : 0);

/** What else this joint does in this position: both ways of it are always among them. */
function optionsOf({ motion: of, position }: Protocol): MotionId[] {
  const { joint, opposite } = motion(of);
  const others = PROTOCOLS.filter((one) => one.figure.kind === 'turn' && one.position === position && motion(one.motion).joint === joint);
  return [...new Set([of, ...(opposite ? [opposite] : []), ...others.map((one) => one.motion)])].sort();
}

/** Naming a motion: by the bone that turns, whatever foot or hand do. */
export const NAME: Exercise<NameTask, NameAnswer> = {
  id: 'name',
  cards: Object.keys(MOVES_SEEN),
  make: (card, random) => {
    const protocol = protocolOfId(card)!;
    return { protocol, seen: MOVES_SEEN[card]!, mirrored: oneOf(random, [true, false]), options: optionsOf(protocol) };
  },
  score: ({ protocol }, { motion: said }) => {
    if (said === protocol.motion) return { mark: 'right', off: null, slips: [] };
    return { mark: 'wrong', off: null, slips: [said === motion(protocol.motion).opposite ? 'byFarEnd' : 'otherMotion'] };
  },
  read: () => null,
  truth: () => null,
};
