import type { Joint, MotionName, Position } from '../terms.js';

export const PLANES = ['S', 'F', 'T', 'R'] as const;
/** Sagittal, frontal, transverse, or rotation at a stated position. */
export type Plane = (typeof PLANES)[number];

/** The two motions of a plane in written order: away from the body (or to the left) first. */
export interface PlaneMotions {
  readonly first: MotionName;
  readonly last: MotionName;
}

const S: PlaneMotions = { first: 'extension', last: 'flexion' };
const F: PlaneMotions = { first: 'abduction', last: 'adduction' };
const R: PlaneMotions = { first: 'externalRotation', last: 'internalRotation' };
const TILT: PlaneMotions = { first: 'eversion', last: 'inversion' };
/** The same motion to the left and to the right. */
const SPINE_F: PlaneMotions = { first: 'lateralFlexion', last: 'lateralFlexion' };
const SPINE_R: PlaneMotions = { first: 'rotation', last: 'rotation' };
const SPINE = { S, F: SPINE_F, R: SPINE_R };

/**
 * Written order per joint and plane.
 *
 * @see Gerhardt & Russe 1975; Gerhardt, Cocchiarella & Lea 2002 (from memory: grammar
 *   high, order in foot, forearm and wrist medium)
 */
export const JOINT_PLANES: Readonly<Record<Joint, Partial<Record<Plane, PlaneMotions>>>> = {
  shoulder: { S, F, R, T: { first: 'horizontalAbduction', last: 'horizontalAdduction' } },
  elbow: { S },
  forearm: { R: { first: 'supination', last: 'pronation' } },
  wrist: { S, F: { first: 'radialDeviation', last: 'ulnarDeviation' } },
  thumbCmc: { S, F },
  thumbMcp: { S },
  thumbIp: { S },
  fingerMcp: { S, F },
  fingerPip: { S },
  fingerDip: { S },
  hip: { S, F, R },
  knee: { S },
  ankle: { S: { first: 'dorsiflexion', last: 'plantarflexion' } },
  subtalar: { F: TILT, R: TILT },
  greatToeMtp: { S },
  greatToeIp: { S },
  cervical: SPINE,
  thoracic: SPINE,
  lumbar: SPINE,
  thoracolumbar: SPINE,
};

/** The test position that a bracket names: rotation with the hip bent is sitting, with the hip straight prone. */
export const SFTR_POSITIONS: Readonly<Record<string, Readonly<Record<string, Position>>>> = {
  hip: { S90: 'sitting', S0: 'prone' },
  shoulder: { F90: 'supine' },
};
