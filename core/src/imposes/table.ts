import { PROTOCOLS, protocolOfId, type Protocol } from '../catalogue/index.js';
import { SPINE_REGIONS, type Joint, type MotionName } from '../terms.js';
import { ARM } from './arm.js';
import { LEG } from './leg.js';
import type { Row } from './rows.js';
import { SPINE } from './spine.js';
import type { Imposition, JointMotion, Moves } from './types.js';

const DECLARED: Readonly<Record<string, readonly Row[]>> = { ...ARM, ...LEG, ...SPINE };

/** What each way of measuring imposes. A way that declares nothing stops the program from starting: nothing would hold it to a limit. */
const BY_PROTOCOL = new Map(
  PROTOCOLS.map((protocol) => {
    const rows = DECLARED[protocol.id];
    if (!rows || rows.length === 0) throw new RangeError(`${protocol.id} does not declare what it imposes`);
    return [protocol.id, rows.map((row) => (row.what === 'own' ? ownOf(protocol, row.load) : asFigure(protocol, row)))];
  }),
);

/** What a way of measuring imposes on the joints, its own and all others. */
export function imposesOf(protocol: string): readonly Imposition[] {
  const found = BY_PROTOCOL.get(protocol);
  if (!found) throw new RangeError(`no protocol "${protocol}" in the catalogue`);
  return found;
}

/** Ways that are declared and that the catalogue does not hold: a slip in one of the two. */
export const declaredInVain = (): string[] => Object.keys(DECLARED).filter((id) => !protocolOfId(id));

function ownOf({ motion }: Protocol, load: Moves['load']): Moves {
  const of = motion as JointMotion;
  return {
    what: 'moves',
    limb: isSpine(jointOf(of)) ? 'trunk' : 'measured',
    motion: of,
    degrees: 'full',
    load,
    by: 'measurement',
    isFigure: true,
  };
}

/** A row of the very motion that is measured is the figure, wherever it was written. */
function asFigure({ motion }: Protocol, row: Imposition): Imposition {
  return row.what === 'moves' && row.motion === motion && row.by === 'measurement' && row.degrees === 'full' && row.limb !== 'other'
    ? { ...row, isFigure: true }
    : row;
}

/** Joints of the spine are of no limb. */
export function isSpine(joint: Joint): boolean {
  return (SPINE_REGIONS as readonly Joint[]).includes(joint);
}

/** The joint that a row is about. */
export const jointOfRow = (row: Imposition): Joint => ('motion' in row ? jointOf(row.motion) : row.joint);

/** The two halves of a motion's id. */
export function jointOf(motion: JointMotion): Joint {
  return motion.slice(0, motion.indexOf('.')) as Joint;
}
export function directionOf(motion: JointMotion): MotionName {
  return motion.slice(motion.indexOf('.') + 1) as MotionName;
}
