import { motion } from '../catalogue/index.js';
import { JOINTS, type Joint, type MotionId } from '../terms.js';

/** The body as a chain: each joint with its neighbours above. The first are on the ground. */
const UPWARDS: readonly (readonly [Joint, Joint])[] = [
  ['greatToeIp', 'greatToeMtp'],
  ['greatToeMtp', 'subtalar'],
  ['subtalar', 'ankle'],
  ['ankle', 'knee'],
  ['knee', 'hip'],
  ['hip', 'lumbar'],
  ['lumbar', 'thoracolumbar'],
  ['thoracolumbar', 'thoracic'],
  ['thoracic', 'cervical'],
  ['thoracic', 'shoulder'],
  ['shoulder', 'elbow'],
  ['elbow', 'forearm'],
  ['forearm', 'wrist'],
  ['wrist', 'thumbCmc'],
  ['thumbCmc', 'thumbMcp'],
  ['thumbMcp', 'thumbIp'],
  ['wrist', 'fingerMcp'],
  ['fingerMcp', 'fingerPip'],
  ['fingerPip', 'fingerDip'],
];

/** From the ground up: feet, legs, trunk, neck, arms, hands. */
export const FROM_THE_GROUND: readonly Joint[] = [...new Set(UPWARDS.flat())];

/** What is measured beside the angle of one joint, under the joint it belongs to. A test asks for every one. */
const ABOUT: Readonly<Partial<Record<Joint, readonly MotionId[]>>> = {
  hip: [
    'muscleLength.straightLegRaise',
    'muscleLength.hipExtensionDrop',
    'muscleLength.hipDropAbduction',
    'muscleLength.sideLyingLegDrop',
    'muscleLength.adductorsKneeStraight',
    'muscleLength.adductorsKneeBent',
    'distance.intermalleolar',
    'distance.legLength',
    'distance.legLengthApparent',
    'girth.thigh',
    'girth.thigh5',
    'girth.thigh15',
    'strength.hipFlexion',
    'strength.hipExtension',
    'strength.hipAbduction',
    'strength.hipAdduction',
    'strength.hipInternalRotation',
    'strength.hipExternalRotation',
  ],
  knee: [
    'muscleLength.activeKneeExtension',
    'muscleLength.kneeDrop',
    'muscleLength.proneKneeBend',
    'distance.heelToButtock',
    'distance.heelHeightDifference',
    'girth.knee',
    'strength.kneeExtension',
    'strength.kneeFlexion',
    'check.squatHeelsDown',
    'check.stepDown',
    'check.heelTouchesButtock',
  ],
  ankle: [
    'muscleLength.calfKneeStraight',
    'muscleLength.calfKneeBent',
    'distance.kneeToWall',
    'girth.calf',
    'girth.ankleFigureOfEight',
    'strength.ankleDorsiflexion',
    'strength.anklePlantarflexion',
    'balance.singleLegStanceEyesOpen',
    'balance.singleLegStanceEyesClosed',
    'check.fistToWall',
  ],
  shoulder: [
    'muscleLength.latissimus',
    'muscleLength.pectoralisMajorSternal',
    'muscleLength.pectoralisMajorClavicular',
    'distance.handsBehindBack',
    'distance.handBehindBackFromAbove',
    'distance.handBehindBackFromBelow',
    'distance.acromionToTable',
    'strength.shoulderFlexion',
    'strength.shoulderAbduction',
    'strength.shoulderInternalRotation',
    'strength.shoulderExternalRotation',
    'check.armsOverhead',
  ],
  fingerPip: ['muscleLength.fingerIntrinsicsMcpExtended', 'muscleLength.fingerIntrinsicsMcpFlexed'],
  lumbar: ['distance.fingerToFloor', 'distance.schober15', 'distance.schoberModified', 'girth.waist'],
  thoracolumbar: ['distance.lateralFingertipTravel'],
  cervical: ['distance.tragusToWall', 'distance.occiputToWall', 'distance.chinToSternum', 'check.chinToChest'],
  thoracic: ['distance.chestExpansion', 'girth.chest'],
  thumbCmc: ['distance.thumbOpposition'],
  fingerMcp: ['distance.pulpToCrease'],
  elbow: ['girth.upperArm', 'strength.elbowFlexion', 'strength.elbowExtension'],
  forearm: ['girth.forearm'],
  wrist: ['girth.wrist', 'girth.handFigureOfEight', 'strength.wristExtension', 'strength.wristFlexion'],
  subtalar: ['strength.footInversion', 'strength.footEversion'],
};
const OWN = new Map(Object.entries(ABOUT).flatMap(([joint, motions]) => motions.map((id) => [id, joint as Joint] as const)));

/**
 * The joint that a measurement belongs to, be it an angle of it or a length, a force or a check about it.
 *
 * @throws RangeError for a motion that is put to no joint
 */
export function jointOf(id: MotionId): Joint {
  const joint = JOINTS.find((own) => own === motion(id).joint) ?? OWN.get(id);
  if (!joint) throw new RangeError(`${id} is put to no joint`);
  return joint;
}

/** How many joints lie between two, along the body; 0 for the same. */
export function jointsApart(from: Joint, to: Joint): number {
  let reached: readonly Joint[] = [from];
  for (let steps = 0; steps < FROM_THE_GROUND.length; steps++) {
    if (reached.includes(to)) return steps;
    reached = FROM_THE_GROUND.filter((joint) =>
      UPWARDS.some(([a, b]) => (a === joint && reached.includes(b)) || (b === joint && reached.includes(a)) || reached.includes(joint)),
    );
  }
  return FROM_THE_GROUND.length;
}
