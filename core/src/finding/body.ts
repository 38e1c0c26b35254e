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

/** Which joint a test of muscle length, a distance, a girth, a force or a check belongs to, by the first part of its name that is known. */
const BY_NAME: readonly (readonly [RegExp, Joint])[] = [
  [/^distance\.(heelToButtock|heelHeight)/, 'knee'],
  [/^muscleLength\.(kneeDrop|proneKneeBend|activeKneeExtension)/, 'knee'],
  [/^muscleLength\.calf|kneeToWall|ankle|[cC]alf|^balance|fistToWall/, 'ankle'],
  [/foot/i, 'subtalar'],
  [/fingerToFloor|schober|waist/, 'lumbar'],
  [/lateralFingertip/, 'thoracolumbar'],
  [/chestExpansion|girth\.chest/, 'thoracic'],
  [/chin|tragus|occiput/, 'cervical'],
  [/shoulder|latissimus|pectoralis|handsBehind|handBehind|acromion|armsOverhead/, 'shoulder'],
  [/elbow|upperArm/, 'elbow'],
  [/forearm/, 'forearm'],
  [/thumb/, 'thumbCmc'],
  [/pulpToCrease/, 'fingerMcp'],
  [/fingerIntrinsics/, 'fingerPip'],
  [/wrist|handFigure/, 'wrist'],
  [/stepDown|squat/, 'knee'],
  [/heelTouches|[kK]nee/, 'knee'],
  [/[hH]ip|straightLeg|thigh|adductors|intermalleolar|legLength|LegDrop/, 'hip'],
];

/** The joint that a measurement belongs to, be it an angle of it or a length, a force or a check about it. */
export function jointOf(id: MotionId): Joint {
  const region = id.slice(0, id.indexOf('.'));
  const own = JOINTS.find((joint) => joint === region);
  if (own) return own;
  return BY_NAME.find(([name]) => name.test(id))?.[1] ?? 'hip';
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
