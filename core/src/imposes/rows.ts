import type { Joint } from '../terms.js';
import type { Bears, ImposedBy, ImposedLimb, ImposedLoad, Imposition, JointMotion, Moves, Touches, Works } from './types.js';

/** What a way of measuring imposes, before its own motion is known. */
export type Row = Imposition | Own;

/** The motion that is measured, itself. */
export interface Own {
  readonly what: 'own';
  readonly load: ImposedLoad;
}

/** The joint that is measured, taken to its end in the direction that is measured. */
export const own = (load: ImposedLoad = 'none'): Own => ({ what: 'own', load });

type Make = (motion: JointMotion, degrees: Moves['degrees'], load?: ImposedLoad, by?: ImposedBy) => Moves;

const moves =
  (limb: ImposedLimb): Make =>
  (motion, degrees, load = 'none', by = 'held') => ({ what: 'moves', limb, motion, degrees, load, by, isFigure: false });

/** A joint of the measured limb, of the other one, of both, of the spine. */
export const measured = moves('measured');
export const other = moves('other');
export const both = moves('both');
export const trunk = moves('trunk');

/** Muscles at work against a load, whatever the position. */
export const effort = (limb: ImposedLimb, motion: JointMotion, by: ImposedBy = 'held'): Works => ({
  what: 'works',
  limb,
  motion,
  load: 'resisted',
  by,
});

/** The angle that is read, where the measurement is not named after it. */
export const figure = (motion: JointMotion, degrees: Moves['degrees'], load: ImposedLoad = 'stretch'): Moves => ({
  ...measured(motion, degrees, load, 'measurement'),
  isFigure: true,
});

/** Weight on joints of a limb. */
export const bears = (limb: ImposedLimb, joints: readonly Joint[], by: ImposedBy = 'held', load: ImposedLoad = 'body'): Bears[] =>
  joints.map((joint) => ({ what: 'bears', limb, joint, load, by }));

/** Where hands or a tape are laid on. */
export const touches = (limb: ImposedLimb, ...joints: readonly Joint[]): Touches[] =>
  joints.map((joint) => ({ what: 'touches', limb, joint, load: 'none', by: 'measurement' }));

const LEG: readonly Joint[] = ['hip', 'knee', 'ankle', 'subtalar', 'greatToeMtp'];

export const SITTING: readonly Row[] = [both('hip.flexion', 90), both('knee.flexion', 90)];
export const STANDING: readonly Row[] = bears('both', LEG);
/** The whole weight on the leg that is not measured, or on the one that is. */
export const ON_THE_OTHER_LEG: readonly Row[] = bears('other', LEG, 'active');
export const ON_ONE_LEG: readonly Row[] = bears('measured', LEG, 'measurement');
/** Face up with the knees bent, or with the legs flat. */
export const CROOK: readonly Row[] = [both('hip.flexion', 45), both('knee.flexion', 90)];
export const FLAT: readonly Row[] = [both('hip.extension', 0), both('knee.extension', 0)];
export const OTHER_FLAT: readonly Row[] = [other('hip.extension', 0), other('knee.extension', 0)];
/** Face down: without a hole for the face the head is turned. */
export const FACE_DOWN: readonly Row[] = [trunk('cervical.rotation', 60), trunk('lumbar.extension', 10), both('hip.extension', 0)];
/** Face down with the insteps on the table; with a shin upright only the other one, and the kneecap is pressed on. */
export const PRONE: readonly Row[] = [...FACE_DOWN, both('ankle.plantarflexion', 40)];
export const PRONE_SHIN_UP: readonly Row[] = [
  ...FACE_DOWN,
  other('ankle.plantarflexion', 40),
  ...bears('measured', ['knee'], 'held', 'limb'),
];
/** On the other side: the lower shoulder and hip carry. */
export const SIDE_LYING: readonly Row[] = bears('other', ['shoulder', 'hip']);
export const lowerLegBent = (hip: number): readonly Row[] => [other('hip.flexion', hip), other('knee.flexion', 90)];
/** The forearm on the table beside the person. */
export const FOREARM_ON_TABLE: readonly Row[] = [measured('shoulder.flexion', 30), measured('elbow.flexion', 90), ...SITTING];
export const PALM_DOWN: readonly Row[] = [measured('forearm.pronation', 80)];
export const PALM_UP: readonly Row[] = [measured('forearm.supination', 80)];
export const ELBOW_BENT: readonly Row[] = [measured('elbow.flexion', 90)];
export const ARM_OUT: readonly Row[] = [measured('shoulder.abduction', 90), ...ELBOW_BENT];
export const ARMS_CROSSED: readonly Row[] = [
  both('shoulder.internalRotation', 60, 'limb'),
  both('shoulder.horizontalAdduction', 100, 'limb'),
  both('elbow.flexion', 120, 'limb'),
];
/** On hands and knees: the palms carry, wrists pressed back to a right angle. */
export const ON_ALL_FOURS: readonly Row[] = [
  both('wrist.extension', 90, 'body'),
  both('elbow.extension', 0, 'body'),
  both('shoulder.flexion', 90, 'body'),
  ...bears('both', ['wrist', 'elbow', 'shoulder', 'hip', 'knee']),
  both('hip.flexion', 90),
  both('knee.flexion', 90, 'body'),
  both('ankle.plantarflexion', 40),
];
/** Lunging forward with the measured foot in front, standing or with the other knee on the floor. */
export const LUNGE: readonly Row[] = [
  measured('knee.flexion', 60, 'body', 'measurement'),
  measured('hip.flexion', 35, 'body', 'measurement'),
  ...bears('both', LEG),
  other('hip.extension', 10, 'body'),
  other('ankle.dorsiflexion', 20, 'body'),
];
export const LUNGE_KNEELING: readonly Row[] = [
  measured('knee.flexion', 115, 'body', 'measurement'),
  measured('hip.flexion', 100, 'body', 'measurement'),
  other('hip.extension', 10, 'none', 'measurement'),
  ...bears('measured', LEG),
  ...bears('other', ['knee', 'hip']),
  other('knee.flexion', 90, 'body'),
  other('ankle.plantarflexion', 40),
];
/** Bending forward from standing with straight knees: the trunk hangs, and the hips bend as far as they go. */
export const bentForward = (lumbar: Moves['degrees'], thoracic: Moves['degrees']): readonly Row[] => [
  trunk('lumbar.flexion', lumbar, 'body', 'measurement'),
  trunk('thoracic.flexion', thoracic, 'body', 'measurement'),
  both('hip.flexion', 'full', 'body', 'measurement'),
  both('knee.extension', 0, 'stretch'),
  ...STANDING,
];
export const bentBack = (lumbar: Moves['degrees'], thoracic: Moves['degrees']): readonly Row[] => [
  trunk('lumbar.extension', lumbar, 'body', 'measurement'),
  trunk('thoracic.extension', thoracic, 'body', 'measurement'),
  trunk('cervical.extension', 30, 'limb', 'measurement'),
  both('hip.extension', 10, 'body', 'measurement'),
  ...STANDING,
];
export const bentSideways = (lumbar: Moves['degrees'], thoracic: Moves['degrees']): readonly Row[] => [
  trunk('lumbar.lateralFlexion', lumbar, 'body', 'measurement'),
  trunk('thoracic.lateralFlexion', thoracic, 'body', 'measurement'),
  ...STANDING,
];
/** Arms press the trunk up from face down, hips stay down. */
export const pressUp = (thoracic: Moves['degrees']): readonly Row[] => [
  trunk('lumbar.extension', 'full', 'body', 'measurement'),
  trunk('thoracic.extension', thoracic, 'body', 'measurement'),
  trunk('cervical.extension', 30, 'limb', 'measurement'),
  both('hip.extension', 15, 'body', 'measurement'),
  both('wrist.extension', 90, 'body', 'active'),
  both('elbow.flexion', 120),
  both('elbow.extension', 0, 'body', 'active'),
  ...bears('both', ['wrist', 'elbow', 'shoulder'], 'active'),
  both('ankle.plantarflexion', 40),
];
/** The other knee hugged to the chest at the edge of the table, the thigh hangs. */
export const HUGGED: readonly Row[] = [
  other('hip.flexion', 120),
  other('knee.flexion', 130),
  trunk('lumbar.flexion', 30),
  both('elbow.flexion', 90, 'resisted', 'active'),
];
/** A hand up the back, and one over the shoulder. */
export const upTheBack = (of: Make): readonly Row[] => [
  of('shoulder.internalRotation', 'full', 'limb', 'measurement'),
  of('shoulder.extension', 45, 'limb', 'measurement'),
  of('shoulder.adduction', 20, 'limb', 'measurement'),
  of('elbow.flexion', 110, 'limb', 'measurement'),
];
export const OVER_THE_SHOULDER: readonly Row[] = [
  measured('shoulder.flexion', 150, 'limb', 'measurement'),
  measured('shoulder.abduction', 150, 'limb', 'measurement'),
  measured('shoulder.externalRotation', 90, 'limb', 'measurement'),
  measured('elbow.flexion', 140, 'limb', 'measurement'),
];
