import type { Joint, MotionId, Position, Region } from '../terms.js';
import { JOINTS } from '../terms.js';
import { ANKLE } from './ankle.js';
import { BALANCE } from './balance.js';
import { CHECKS } from './checks.js';
import { CERVICAL } from './cervical.js';
import { DISTANCES } from './distance.js';
import { ELBOW } from './elbow.js';
import { FINGERS } from './fingers.js';
import { FOREARM } from './forearm.js';
import { GIRTHS_MOTIONS } from './girth.js';
import { GREAT_TOE } from './great-toe.js';
import { HIP } from './hip.js';
import { KNEE } from './knee.js';
import { LUMBAR } from './lumbar.js';
import { MUSCLE_LENGTHS } from './muscle-length.js';
import { SHOULDER } from './shoulder.js';
import { STRENGTHS } from './strength.js';
import { SUBTALAR } from './subtalar.js';
import { THORACIC, THORACOLUMBAR } from './thoracic.js';
import { THUMB_MOTIONS } from './thumb.js';
import type { Motion, Protocol } from './types.js';
import { WRIST } from './wrist.js';

export { drawFigure, drawScene, type Drawing } from './figure/draw.js';
export { SCENES } from './figure/scenes.js';
export { placementLines, type TechniqueLine } from './technique.js';
export { POSITION_WORDS } from './define.js';
export {
  SUMMARIES,
  type Better,
  type DialView,
  type Motion,
  type Placement,
  type Protocol,
  type Substitution,
  type Summary,
  type Swing,
} from './types.js';

/** Every motion Dial Gauge knows how to measure, joint by joint from the shoulder down, then the spine, then what is no joint angle. */
export const MOTIONS: readonly Motion[] = [
  ...SHOULDER,
  ...ELBOW,
  ...FOREARM,
  ...WRIST,
  ...THUMB_MOTIONS,
  ...FINGERS,
  ...HIP,
  ...KNEE,
  ...ANKLE,
  ...SUBTALAR,
  ...GREAT_TOE,
  ...CERVICAL,
  ...THORACIC,
  ...THORACOLUMBAR,
  ...LUMBAR,
  ...MUSCLE_LENGTHS,
  ...DISTANCES,
  ...GIRTHS_MOTIONS,
  ...STRENGTHS,
  ...BALANCE,
  ...CHECKS,
];

/** Every way of measuring, in the order of the motions. */
export const PROTOCOLS: readonly Protocol[] = MOTIONS.flatMap((motion) => motion.protocols);

const byId = new Map<string, Motion>(MOTIONS.map((motion) => [motion.id, motion]));
const protocolById = new Map<string, Protocol>(PROTOCOLS.map((protocol) => [protocol.id, protocol]));

/** By motion and position: the protocol without a variant, or the first where all have one. */
const usual = new Map<MotionId, Map<Position, Protocol>>(MOTIONS.map(({ id }) => [id, new Map()]));
for (const protocol of [...PROTOCOLS].reverse()) {
  const of = usual.get(protocol.motion)!;
  if (protocol.variant === null || of.get(protocol.position)?.variant !== null) of.set(protocol.position, protocol);
}

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

/** The usual protocol of a motion in a position: the first, and the one without a variant where there is one. */
export function findProtocol(id: MotionId, position: Position): Protocol | undefined {
  return usual.get(id)?.get(position);
}

/** The protocol of an id as readings keep it, or undefined. */
export function protocolOfId(id: string): Protocol | undefined {
  return protocolById.get(id);
}

/** A motion, in a position, and where a position has several ways, which of them. */
export interface Taken {
  readonly motion: MotionId;
  readonly position: Position;
  /** Protocol id; the usual one of the position where it is left out. */
  readonly protocol?: string;
}

/**
 * The protocol by which something was measured.
 *
 * @throws RangeError when the catalogue does not measure it that way
 */
export function protocolOf(taken: Taken): Protocol {
  const found = taken.protocol === undefined ? findProtocol(taken.motion, taken.position) : protocolById.get(taken.protocol);
  if (!found || found.motion !== taken.motion || found.position !== taken.position) {
    throw new RangeError(`${taken.motion} is not measured in ${taken.position}${taken.protocol ? ` by ${taken.protocol}` : ''}`);
  }
  return found;
}

/** "Hip internal rotation, prone": a protocol in words. */
export function protocolName(protocol: Protocol): string {
  return `${motion(protocol.motion).name}, ${protocol.label}`;
}

const REGION_NAMES: Readonly<Record<Region, string>> = {
  shoulder: 'Shoulder',
  elbow: 'Elbow',
  forearm: 'Forearm',
  wrist: 'Wrist',
  thumbCmc: 'Thumb base',
  thumbMcp: 'Thumb knuckle',
  thumbIp: 'Thumb tip',
  fingerMcp: 'Finger knuckles',
  fingerPip: 'Finger middle joints',
  fingerDip: 'Finger end joints',
  hip: 'Hip',
  knee: 'Knee',
  ankle: 'Ankle',
  subtalar: 'Rearfoot and foot',
  greatToeMtp: 'Great toe',
  greatToeIp: 'Great toe tip',
  cervical: 'Neck',
  thoracic: 'Thorax',
  lumbar: 'Low back',
  thoracolumbar: 'Whole trunk',
  muscleLength: 'Muscle length',
  distance: 'Distances',
  girth: 'Girths',
  strength: 'Strength',
  balance: 'Balance',
  check: 'Seen or not',
};

/** What a region is called on a screen. */
export function regionName(region: Region): string {
  return REGION_NAMES[region];
}

/** Tells a joint from the families of other measurements. */
export function isJoint(region: Region): region is Joint {
  return (JOINTS as readonly string[]).includes(region);
}
