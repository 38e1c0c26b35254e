import { arms, defineMotion, turn, type ProtocolSpec } from './define.js';
import type { Motion } from './types.js';

const LEG = ['knee', 'ankle', 'toe'];
const TROCHANTER = 'outer side of the greater trochanter';
const THIGH_LINE = 'outer mid-line of the thigh, towards the lateral epicondyle';
const ASIS = arms(
  'front pelvic bone (ASIS) of the same side',
  'line to the other front pelvic bone; the 90° reading is zero',
  'front mid-line of the thigh, towards the middle of the knee cap',
);
const SIDE_SITE = arms(
  TROCHANTER,
  'level, in line with the trunk',
  'outer mid-line of the thigh',
  'outer side of the thigh, just above the knee; zero with the leg level',
);
const ROTATIONS = ['internalRotation', 'externalRotation'] as const;
const words = (which: (typeof ROTATIONS)[number]) => (which === 'internalRotation' ? 'internal' : 'external');

const rotationTrap = (which: (typeof ROTATIONS)[number]): string =>
  `The foot swings ${which === 'internalRotation' ? 'outward' : 'inward'}: that is ${words(which)} rotation. It is named by the thigh bone, not by the foot.`;
const APART = 'Sitting, prone and supine at 90° are three measurements: never compare one with another.';

const rotation = (which: (typeof ROTATIONS)[number]): ProtocolSpec[] => {
  const inward = which === 'internalRotation';
  const trap = rotationTrap(which);
  const shin = 'along the crest of the shin, midway between the ankle bones';
  return [
    {
      at: 'prone',
      swing: 'vertical',
      start: 'Face down, knee bent to 90°, shin straight up, thighs together.',
      put: arms(
        'front of the knee cap, below the bent knee',
        'plumb, straight up',
        shin,
        'shin just above the ankle bones; zero with the shin plumb',
      ),
      hold: 'pelvis flat on the table, hand on the sacrum',
      fakes: ['pelvis lifts', 'thigh drifts', 'knee leaves 90°'],
      twoJoint: 'Rectus femoris is stretched with the knee at 90°: note it when the front of the thigh stops the motion.',
      trap,
      not: APART,
      dial: [0, inward ? -1 : 1, 70, 70],
      figure: turn('shinsFromFeet', 'knee', ['ankle', 'toe'], 0, 40),
    },
    {
      at: 'sitting',
      swing: 'vertical',
      start: 'Sitting, hip and knee at 90°, a folded towel under the thigh, shin hanging plumb.',
      put: arms(
        'front of the knee cap, at its middle',
        'plumb, straight down',
        shin,
        'shin just above the ankle bones; zero with the shin plumb',
      ),
      hold: 'end of the thigh, both sitting bones on the table',
      fakes: ['pelvis hikes', 'trunk leans', 'thigh drifts'],
      trap,
      not: APART,
      dial: [180, inward ? -1 : 1, 70, 70],
      figure: turn('sittingFront', 'knee', ['ankle'], 180, 35),
    },
    {
      at: 'supine',
      variant: 'hip-90',
      variantLabel: 'hip at 90°',
      modes: ['passive'],
      swing: 'horizontal',
      start: 'Face up, hip and knee bent to 90°, shin level and in line with the body.',
      put: arms('middle of the knee cap, seen from above', 'in line with the body', shin),
      hold: 'thigh upright, pelvis flat',
      fakes: ['pelvis rolls', 'thigh drifts', 'knee leaves 90°'],
      trap,
      not: `The shin sweeps level: no inclinometer reads it here. ${APART}`,
      dial: [180, inward ? -1 : 1, inward ? 70 : 100, 70],
      figure: turn('thighEnd', 'knee', ['ankle', 'toe'], 180, inward ? 30 : 60),
    },
    ...(inward ? [] : [COMBINED]),
  ];
};

/** One school turns out with the thigh falling out as well: further than turning alone, and another thing. */
const COMBINED: ProtocolSpec = {
  at: 'supine',
  variant: 'combined',
  variantLabel: 'hip bent, thigh falling out',
  modes: ['passive'],
  swing: 'horizontal',
  start: 'Face up, hip and knee bent; the thigh falls out to the side while the shin is turned in across the body.',
  put: arms('middle of the knee cap, seen from above', 'in line with the body', 'front edge of the shin'),
  hold: 'pelvis flat',
  fakes: ['pelvis rolls', 'back arches', 'knee opens'],
  trap: 'Outward is named by the thigh bone, not by the foot, which comes in.',
  not: 'Turning and spreading together: never compare with turning alone.',
  dial: [180, 1, 110, 30],
  figure: turn('thighEnd', 'knee', ['ankle', 'toe'], 180, 80),
};

export const HIP: readonly Motion[] = [
  defineMotion('hip.flexion', {
    name: 'Hip flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-60, 170],
    zeroIs: 'straight',
    protocols: [
      {
        at: 'supine',
        swing: 'vertical',
        start: 'Face up, the other thigh flat on the table. The knee bends as the hip bends.',
        put: arms(TROCHANTER, 'mid-line of the pelvis and trunk', THIGH_LINE, 'front of the thigh, just above the knee'),
        hold: 'pelvis: stop when it starts to roll, keep the other thigh down',
        fakes: ['pelvis rolls back', 'leg turns out', 'other thigh lifts'],
        feel: ['soft'],
        twoJoint: 'Hamstrings: keep the knee bent.',
        dial: [270, 1, 150, 30],
        figure: turn('lyingUpHipBent', 'hip', LEG, 'shoulder', 110),
      },
      {
        at: 'standing',
        swing: 'vertical',
        modes: ['active'],
        start: 'Standing, one hand on a support; the knee lifts and bends.',
        put: arms(TROCHANTER, 'mid-line of the trunk', THIGH_LINE, 'front of the thigh, just above the knee'),
        hold: 'trunk tall, the standing knee straight',
        fakes: ['pelvis rolls back', 'trunk leans back', 'standing knee bends'],
        feel: ['soft'],
        twoJoint: 'Hamstrings: keep the knee bent.',
        not: 'The leg works against its weight: never compare with lying.',
        dial: [180, 1, 150, 30],
        figure: turn('standingSide', 'hip', ['knee'], 'shoulder', 90),
      },
    ],
  }),
  defineMotion('hip.extension', {
    nearZero: true,
    name: 'Hip extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-90, 60],
    zeroIs: 'straight',
    protocols: [
      {
        at: 'prone',
        swing: 'vertical',
        start: 'Face down, both legs straight, no pillow under the belly.',
        put: arms(TROCHANTER, 'mid-line of the pelvis', THIGH_LINE, 'back of the thigh, just above the knee'),
        hold: 'pelvis held down on the table',
        fakes: ['low back arches', 'pelvis lifts', 'leg drifts out'],
        twoJoint: 'Rectus femoris: keep the knee straight.',
        dial: [90, -1, 50, 40],
        figure: turn('lyingDown', 'hip', ['knee', 'ankle', 'toe', 'heel'], 'shoulder', 15),
      },
      {
        at: 'sidelying',
        swing: 'horizontal',
        start: 'On the other side, the lower knee drawn up to hold the pelvis, upper leg straight.',
        put: arms(TROCHANTER, 'mid-line of the pelvis', THIGH_LINE),
        hold: 'pelvis upright',
        fakes: ['low back arches', 'pelvis rolls back', 'leg turns out'],
        twoJoint: 'Rectus femoris: keep the knee straight.',
        not: 'The thigh sweeps level: no inclinometer reads it here.',
        dial: [180, -1, 50, 40],
        figure: turn('planSidelying', 'hip', LEG, 'shoulder', 15),
      },
      {
        at: 'halfKneeling',
        swing: 'vertical',
        start: 'Kneeling on the side measured, the other foot in front; the pelvis shifts forward, tucked.',
        put: arms(TROCHANTER, 'plumb, in line with the trunk', THIGH_LINE, 'front of the thigh; zero with the thigh plumb'),
        modes: ['active'],
        hold: 'pelvis tucked, trunk tall',
        fakes: ['low back arches', 'trunk leans', 'pelvis turns'],
        twoJoint: 'Rectus femoris: the knee is bent, so the front of the thigh may stop it.',
        not: 'Body weight adds to it: never compare with prone.',
        dial: [180, -1, 50, 40],
        figure: turn('halfKneeling', 'hip', ['backKnee', 'backFoot'], 'shoulder', 15),
      },
    ],
  }),
  defineMotion('hip.abduction', {
    name: 'Hip abduction',
    short: 'Abduction',
    plane: 'F',
    opposite: 'adduction',
    limits: [-40, 100],
    protocols: [
      {
        at: 'supine',
        swing: 'horizontal',
        start: 'Face up, both legs straight, toes to the ceiling.',
        put: ASIS,
        hold: 'the other front pelvic bone',
        fakes: ['pelvis hikes', 'leg turns out', 'hip bends'],
        twoJoint: 'Gracilis: bend the knee and look whether the range grows.',
        dial: [180, -1, 80, 50],
        figure: turn('planSupine', 'hip', ['knee', 'ankle', 'toe'], 'hipR', 40),
      },
      {
        at: 'sidelying',
        swing: 'vertical',
        start: 'On the other side, the lower leg bent, the upper leg level and straight.',
        put: SIDE_SITE,
        hold: 'pelvis stacked, waist long',
        fakes: ['pelvis hikes', 'leg turns out', 'hip bends', 'pelvis rolls back'],
        twoJoint: 'Gracilis: bend the knee and look whether the range grows.',
        not: 'Against the leg’s weight and from level: never compare with supine.',
        dial: [90, -1, 80, 50],
        figure: turn('sidelying', 'hip', LEG, 270, 35),
      },
      {
        at: 'standing',
        modes: ['active'],
        swing: 'vertical',
        start: 'Standing tall, a hand on a support, weight on the other leg.',
        put: ASIS,
        hold: 'pelvis level',
        fakes: ['pelvis hikes', 'trunk leans', 'leg turns out'],
        not: 'Against the leg’s weight: never compare with supine.',
        dial: [180, -1, 80, 50],
        figure: turn('front', 'hip', ['knee', 'ankle'], 'hipR', 35),
      },
    ],
  }),
  defineMotion('hip.adduction', {
    name: 'Hip adduction',
    short: 'Adduction',
    plane: 'F',
    opposite: 'abduction',
    limits: [-60, 70],
    protocols: [
      {
        at: 'supine',
        swing: 'horizontal',
        start: 'Face up, toes to the ceiling, the other leg moved out of the way.',
        put: ASIS,
        hold: 'the same side of the pelvis',
        fakes: ['pelvis hikes', 'leg turns in', 'knee bends'],
        twoJoint: 'Tensor and iliotibial band: keep the knee as it was.',
        dial: [180, 1, 50, 80],
        figure: turn('planSupine', 'hip', ['knee', 'ankle', 'toe'], 'hipR', 25),
      },
      {
        at: 'sidelying',
        swing: 'vertical',
        start: 'On the other side at the back edge of the table, the upper leg straight and dropping behind.',
        put: SIDE_SITE,
        hold: 'pelvis stacked',
        fakes: ['pelvis hikes', 'hip bends', 'leg turns in'],
        not: 'Never compare with supine.',
        dial: [90, 1, 50, 80],
        figure: turn('sidelying', 'hip', LEG, 270, 20),
      },
    ],
  }),
  ...ROTATIONS.map((which) =>
    defineMotion(`hip.${which}`, {
      name: `Hip ${words(which)} rotation`,
      short: which === 'internalRotation' ? 'Internal rotation' : 'External rotation',
      plane: 'R',
      opposite: which === 'internalRotation' ? 'externalRotation' : 'internalRotation',
      limits: [-60, which === 'internalRotation' ? 100 : 110],
      protocols: rotation(which),
    }),
  ),
];
