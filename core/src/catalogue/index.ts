import type { MotionId, Position } from '../terms.js';
import { HIP } from './hip.js';
import { LUMBAR } from './lumbar.js';
import type { Motion, Protocol } from './types.js';

export type { DialView, Motion, Protocol, Substitution } from './types.js';

/** Every motion Dial Gauge knows how to measure. */
export const MOTIONS: readonly Motion[] = [...HIP, ...LUMBAR];

const byId = new Map<string, Motion>(MOTIONS.map((motion) => [motion.id, motion]));

/** The motion of an id, or undefined when the catalogue does not hold it. */
export function findMotion(id: string): Motion | undefined {
  return byId.get(id);
}

/**
 * The motion of an id that has been checked before.
 *
 * @throws RangeError when the catalogue does not hold it
 */
export function motion(id: MotionId): Motion {
  const found = byId.get(id);
  if (!found) throw new RangeError(`no motion "${id}" in the catalogue`);
  return found;
}

/** The protocol of a motion in a position, or undefined when it is not measured that way. */
export function findProtocol(id: MotionId, position: Position): Protocol | undefined {
  return byId.get(id)?.protocols.find((protocol) => protocol.position === position);
}
