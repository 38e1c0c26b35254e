import { formatNumber, suffixOf } from '../words/figures.js';
import { DIGITS, REGIONS, type Instrument, type Mode, type MotionId, type Position, type Side, type Unit } from '../terms.js';
import { findMotion, findProtocol, MOTIONS, protocolOfId, type Motion, type Protocol } from './index.js';

/** What is wrong with one field, and what is allowed. Errors are data: a screen, a route and a terminal word them the same. */
export interface FieldProblem {
  readonly field: string;
  readonly message: string;
}

/** A way of measuring, as it comes from outside. */
export interface Way {
  readonly motion: string;
  readonly mode: Mode;
  readonly position: Position;
  readonly instrument: Instrument;
  readonly protocol?: string;
  readonly digit?: number;
  readonly side?: Side;
}

/** What to say of a motion that is not there: the motions of its joint, or where the joint is not known either, the joints. */
export function unknownMotion(id: string): string {
  const region = id.split('.')[0];
  const near = MOTIONS.filter((m) => m.joint === region).map((m) => m.id);
  return `${JSON.stringify(id)} is not in the catalogue; allowed: ${near.length ? near.join(', ') : `a motion of ${REGIONS.join(', ')}, as hip.flexion`}`;
}

const GRAVITY: readonly Instrument[] = ['inclinometer', 'dualInclinometer', 'phone'];

/** Whether the catalogue measures a motion this way. Returns the first thing that does not fit. */
export function checkWay(way: Way): FieldProblem | undefined {
  const motion = findMotion(way.motion);
  if (!motion) {
    return { field: 'motion', message: unknownMotion(way.motion) };
  }
  const name = motion.name.toLowerCase();
  const there = motion.protocols.filter((p) => p.position === way.position);
  if (there.length === 0) {
    const positions = [...new Set(motion.protocols.map((p) => p.position))].join(', ');
    return { field: 'position', message: `${name} is not measured in "${way.position}"; allowed: ${positions}` };
  }
  const protocol = way.protocol === undefined ? findProtocol(way.motion as MotionId, way.position) : protocolOfId(way.protocol);
  if (!protocol || !there.includes(protocol)) {
    return {
      field: 'protocol',
      message: `"${way.protocol}" is not a way of measuring ${name} in ${way.position}; allowed: ${there.map((p) => p.id).join(', ')}`,
    };
  }
  if (!protocol.modes.includes(way.mode)) {
    return { field: 'mode', message: `${name} in ${way.position} is not measured "${way.mode}"; allowed: ${protocol.modes.join(', ')}` };
  }
  if (!protocol.instruments.includes(way.instrument)) return { field: 'instrument', message: notReadBy(way.instrument, protocol, name) };
  return checkDigit(motion, way.digit) ?? checkSide(motion, way.side);
}

function notReadBy(instrument: Instrument, protocol: Protocol, name: string): string {
  const why =
    GRAVITY.includes(instrument) && protocol.swing === 'horizontal' ? ': it moves level, about a plumb axis, and gravity cannot tell' : '';
  return `"${instrument}" does not read ${name} in ${protocol.position}${why}; allowed: ${protocol.instruments.join(', ')}`;
}

/** Only a thumb and a great toe may say what is plain anyway. */
const FIRST_RAYS: readonly Motion['joint'][] = ['thumbCmc', 'thumbMcp', 'thumbIp', 'greatToeMtp', 'greatToeIp'];

function checkDigit({ perDigit, joint, name }: Motion, digit: number | undefined): FieldProblem | undefined {
  if (perDigit) {
    if (digit !== undefined && (DIGITS as readonly number[]).includes(digit)) return undefined;
    const wrong = digit === undefined ? 'is missing' : `${digit} is not a finger`;
    return { field: 'digit', message: `${wrong}; allowed: ${DIGITS.join(', ')} (2 is the index, 5 the little finger)` };
  }
  if (digit === undefined || (digit === 1 && FIRST_RAYS.includes(joint))) return undefined;
  return { field: 'digit', message: `does not belong to ${name.toLowerCase()}; leave it out` };
}

function checkSide(motion: Motion, side: Side | undefined): FieldProblem | undefined {
  const allowed = allowedSides(motion);
  if (side === undefined || allowed.includes(side)) return undefined;
  return { field: 'side', message: `"${side}" does not fit ${motion.id}; allowed: ${allowed.join(', ')}` };
}

/** The sides a motion can have: bending the spine forward and back has none. */
export function allowedSides(motion: Motion): readonly Side[] {
  return motion.sides === 'midline' ? ['midline'] : ['left', 'right'];
}

/** Whether a value has more decimals than the instrument reads. */
export function isTooFine(instrument: Instrument, value: number, unit: Unit = 'deg'): boolean {
  const steps = value / finestStep(instrument, unit);
  return Math.abs(steps - Math.round(steps)) > 1e-6;
}

/** The finest step an instrument is read to, in the motion's unit. */
export function finestStep(instrument: Instrument, unit: Unit = 'deg'): number {
  if (unit === 'cm' || unit === 's') return 0.1;
  return instrument === 'goniometer' || instrument === 'visual' || instrument === 'picture' ? 1 : 0.1;
}

/** Whether a value is one this motion can hold and this instrument can read; undefined when it is. */
export function checkValue(motionId: string, instrument: Instrument, value: number): string | undefined {
  const motion = findMotion(motionId);
  if (!motion) return undefined;
  const { min, max } = motion.limits;
  const unit = suffixOf(motion.unit);
  if (value < min || value > max) {
    return `${formatNumber(value)}${unit} is more than ${motion.name.toLowerCase()} can hold; allowed: ${formatNumber(min)} to ${formatNumber(max)}${unit}`;
  }
  return isTooFine(instrument, value, motion.unit)
    ? `${value} is finer than the instrument reads; allowed: steps of ${finestStep(instrument, motion.unit)}${unit}`
    : undefined;
}
