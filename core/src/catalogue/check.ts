import { formatNumber } from '../angle/words.js';
import type { Degrees, Instrument, Joint, Mode, MotionId, Position, Side } from '../terms.js';
import { findMotion, findProtocol, MOTIONS, type Motion } from './index.js';

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
}

/** Whether the catalogue measures a motion this way. Returns the first thing that does not fit. */
export function checkWay(way: Way): FieldProblem | undefined {
  const motion = findMotion(way.motion);
  if (!motion) {
    return { field: 'motion', message: `"${way.motion}" is not in the catalogue; allowed: ${MOTIONS.map((m) => m.id).join(', ')}` };
  }
  const protocol = findProtocol(way.motion as MotionId, way.position);
  if (!protocol) {
    const positions = motion.protocols.map((p) => p.position).join(', ');
    return { field: 'position', message: `${motion.name.toLowerCase()} is not measured in "${way.position}"; allowed: ${positions}` };
  }
  if (!protocol.modes.includes(way.mode)) {
    return {
      field: 'mode',
      message: `${motion.name.toLowerCase()} in ${way.position} is not measured "${way.mode}"; allowed: ${protocol.modes.join(', ')}`,
    };
  }
  if (!protocol.instruments.includes(way.instrument)) {
    return {
      field: 'instrument',
      message: `"${way.instrument}" does not read ${motion.name.toLowerCase()} in ${way.position}; allowed: ${protocol.instruments.join(', ')}`,
    };
  }
  return undefined;
}

const SPINE: readonly Joint[] = ['cervical', 'thoracic', 'lumbar', 'thoracolumbar'];

/** The sides a motion can have: bending the spine forward and back has none. */
export function allowedSides(motion: Motion): readonly Side[] {
  return SPINE.includes(motion.joint) && motion.plane === 'S' ? ['midline'] : ['left', 'right'];
}

/** Whether an angle is one this motion can hold and this instrument can read; undefined when it is. */
export function checkAngle(motionId: string, instrument: Instrument, angle: Degrees): string | undefined {
  const motion = findMotion(motionId);
  if (!motion) return undefined;
  const { min, max } = motion.limits;
  if (angle < min || angle > max) {
    return `${formatNumber(angle)}° is more than ${motion.name.toLowerCase()} can hold; allowed: ${formatNumber(min)} to ${formatNumber(max)}°`;
  }
  const finest = instrument === 'goniometer' || instrument === 'visual' ? 1 : 0.1;
  const steps = angle / finest;
  if (Math.abs(steps - Math.round(steps)) > 1e-6) {
    return `${angle} is finer than the instrument reads; allowed: steps of ${finest}°`;
  }
  return undefined;
}
