import type { Joint, MotionName } from '../terms.js';

/** Whose joint: of the limb that is measured, of the other one, of both, or of the spine. */
export const IMPOSED_LIMBS = ['measured', 'other', 'both', 'trunk'] as const;
export type ImposedLimb = (typeof IMPOSED_LIMBS)[number];

/**
 * What acts on the joint: nothing but its position, the weight of the limb,
 * body weight, a push or pull against it, or a muscle or nerve drawn to its
 * length over more than one joint.
 */
export const IMPOSED_LOADS = ['none', 'limb', 'body', 'resisted', 'stretch'] as const;
export type ImposedLoad = (typeof IMPOSED_LOADS)[number];

/** How it comes about: by the measurement itself and so in its mode, by the person's muscles, by the examiner, or as a position the body is put in. */
export const IMPOSED_BY = ['measurement', 'active', 'passive', 'held'] as const;
export type ImposedBy = (typeof IMPOSED_BY)[number];

/** A direction of a joint, as precautions name it. */
export type JointMotion = `${Joint}.${MotionName}`;

interface Imposed {
  readonly limb: ImposedLimb;
  readonly load: ImposedLoad;
  readonly by: ImposedBy;
}

/** A joint taken about so far in a direction. */
export interface Moves extends Imposed {
  readonly what: 'moves';
  readonly motion: JointMotion;
  /** Degrees from zero; `full`: to the person's own end, past every limit there may be. */
  readonly degrees: number | 'full';
  /** True where the figure that is read is this angle: it can be stopped at a limit. */
  readonly isFigure: boolean;
}

/** Weight on a joint. */
export interface Bears extends Imposed {
  readonly what: 'bears';
  readonly joint: Joint;
}

/** Muscles that work in a direction against a weight, a pull or a hand: an effort, which says nothing of a position. */
export interface Works extends Imposed {
  readonly what: 'works';
  readonly motion: JointMotion;
  readonly load: 'resisted';
}

/** Hands or a tape on it: nothing is moved. */
export interface Touches extends Imposed {
  readonly what: 'touches';
  readonly joint: Joint;
}

/** One thing that a way of measuring does to a joint. */
export type Imposition = Moves | Works | Bears | Touches;
