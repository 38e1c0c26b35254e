import { arms, defineMotion, MUSCLE_LENGTH, turn } from './define.js';
import type { Motion } from './types.js';

const LEG = ['knee', 'ankle', 'toe'];
const source = MUSCLE_LENGTH;
const NERVE = 'Pins and needles or a pull that changes with the neck or the ankle points to nerve, not muscle: note it and stop.';
const PAIRED = 'Knee straight and knee bent are a pair: each is kept by itself, their difference tells the two-joint muscle.';
const CALF = arms(
  'outer ankle bone',
  'outer mid-line of the lower leg, towards the head of the fibula',
  'parallel to the outer edge of the foot',
  'along the sole; zero with the sole square to the shin',
);
const FOOT_UP = ['foot', 'mtp', 'ip', 'toe', 'heel'];
const EDGE =
  'Sitting bones at the edge of the table, rolled back to lie, the other knee hugged until the low back lies flat; the side measured hangs free.';
const TILT = 'If the pelvis tilts forward the hip angle means nothing: hug the other knee closer and read again.';
const PLANE_LEVEL = { zeroIs: 'level' } as const;
const NOT_FROM = 'Shin and thigh readings differ by the knee’s give: never compare one with the other.';

const raise = (site: string) =>
  ({
    at: 'supine',
    swing: 'vertical',
    start: 'Face up, the other leg flat, ankle relaxed; the leg rises with its knee straight.',
    put: arms('outer side of the greater trochanter', 'level, mid-line of the trunk', 'outer mid-line of the thigh', site),
    hold: 'the other thigh flat, pelvis',
    fakes: ['knee bends', 'pelvis rolls back', 'other knee bends'],
    twoJoint: 'Hamstrings are meant to stop it.',
    caution: NERVE,
    not: NOT_FROM,
    dial: [270, 1, 120, 10],
    source,
  }) as const;

const drop = (leg: string) =>
  ({
    at: 'sidelying',
    modes: ['passive'],
    by: ['inclinometer', 'phone', 'goniometer', 'visual'],
    swing: 'vertical',
    reads: 'position',
    start: `On the other side, lower leg drawn up; ${leg}`,
    put: arms(
      'front pelvic bone (ASIS)',
      'level',
      'outer mid-line of the thigh',
      'outer side of the thigh, just above the knee; zero level',
    ),
    hold: 'pelvis stacked',
    fakes: ['pelvis tilts', 'hip bends', 'leg turns in'],
    twoJoint: 'Tensor and iliotibial band, but also gluteus medius and the capsule.',
    not: 'Knee bent and knee straight give different norms: never compare.',
    dial: [90, 1, 50, 40],
    source,
  }) as const;

export const MUSCLE_LENGTHS: readonly Motion[] = [
  defineMotion('muscleLength.straightLegRaise', {
    name: 'Straight-leg raise',
    limits: [0, 150],
    zeroIs: 'level',
    protocols: [
      { ...raise('crest of the shin; zero with the leg level'), figure: turn('lyingUp', 'hip', LEG, 'shoulder', 75) },
      {
        ...raise('front of the thigh, just above the knee'),
        variant: 'thigh',
        variantLabel: 'read on the thigh',
        figure: turn('lyingUp', 'hip', LEG, 'shoulder', 70),
      },
    ],
  }),
  defineMotion('muscleLength.activeKneeExtension', {
    name: 'Knee extension with the hip at 90°',
    better: 'less',
    limits: [-10, 100],
    zeroIs: 'straight',
    plus: { long: '% short of straight', short: '%' },
    minus: { long: '% past straight', short: 'past %' },
    protocols: [
      {
        at: 'supine',
        reads: 'position',
        swing: 'vertical',
        start: 'Face up, hip held at 90° with the thigh plumb, the other leg flat, ankle relaxed; the knee straightens.',
        put: arms(
          'outer side of the knee',
          'outer mid-line of the thigh, plumb',
          'outer mid-line of the lower leg',
          'shin; read what is missing to plumb',
        ),
        hold: 'thigh plumb',
        fakes: ['thigh drifts', 'pelvis rolls back', 'other knee bends'],
        twoJoint: 'Hamstrings are meant to stop it.',
        trap: 'What is read is a position, the degrees still missing to straight: less is better. A book that counts 180 as straight prints 180 minus this.',
        caution: NERVE,
        dial: [0, -1, 80, 10],
        figure: turn('lyingUp9090', 'knee', ['ankle', 'toe'], 'hip', 25),
        source,
      },
    ],
  }),
  defineMotion('muscleLength.hipExtensionDrop', {
    nearZero: true,
    name: 'Edge-of-table hip drop',
    limits: [-60, 50],
    ...PLANE_LEVEL,
    plus: { long: '% below level', short: '%' },
    protocols: [
      {
        at: 'supine',
        modes: ['passive'],
        swing: 'vertical',
        reads: 'position',
        start: EDGE,
        put: arms('outer side of the greater trochanter', 'level', 'outer mid-line of the thigh', 'front of the thigh; zero level'),
        hold: 'the other knee hugged, low back flat',
        fakes: ['low back arches', 'thigh drifts out', 'leg turns out'],
        twoJoint: 'Rectus femoris: straighten the knee and look whether the thigh drops further.',
        not: TILT,
        dial: [270, -1, 40, 60],
        figure: turn('lyingUpEdge', 'hip', LEG, 'shoulder', 12),
        source,
      },
    ],
  }),
  defineMotion('muscleLength.kneeDrop', {
    name: 'Edge-of-table knee bend',
    limits: [0, 140],
    zeroIs: 'straight',
    protocols: [
      {
        at: 'supine',
        modes: ['passive'],
        swing: 'vertical',
        start: EDGE,
        put: arms('outer side of the knee', 'outer mid-line of the thigh', 'outer mid-line of the lower leg', 'shin and thigh; subtract'),
        hold: 'the other knee hugged',
        fakes: ['thigh lifts', 'low back arches'],
        twoJoint: 'Rectus femoris is meant to stop it.',
        not: 'With the thigh held on the table and with the leg hanging free are two methods; their figures conflict.',
        dial: [270, -1, 130, 10],
        figure: turn('lyingUpEdge', 'knee', ['ankle', 'toe'], 'hip', 75),
        source,
      },
    ],
  }),
  defineMotion('muscleLength.hipDropAbduction', {
    name: 'Edge-of-table outward drift',
    better: 'less',
    limits: [-20, 60],
    plus: { long: '% out', short: '%' },
    minus: { long: '% in', short: 'in %' },
    protocols: [
      {
        at: 'supine',
        modes: ['passive'],
        swing: 'horizontal',
        reads: 'position',
        start: EDGE,
        put: arms(
          'front pelvic bone (ASIS)',
          'line to the other front pelvic bone; the 90° reading is zero',
          'front mid-line of the thigh',
        ),
        hold: 'the other knee hugged, pelvis level',
        fakes: ['pelvis tilts', 'leg turns out'],
        twoJoint: 'Tensor and iliotibial band are meant to show.',
        not: TILT,
        dial: [180, -1, 50, 20],
        figure: turn('planSupine', 'hip', ['knee', 'ankle', 'toe'], 'hipR', 15),
        source,
      },
    ],
  }),
  defineMotion('muscleLength.proneKneeBend', {
    name: 'Prone knee bend',
    limits: [0, 160],
    zeroIs: 'straight',
    protocols: [
      {
        at: 'prone',
        modes: ['passive', 'active'],
        swing: 'vertical',
        start: 'Face down, thighs together, pelvis flat; the knee bends until the hip is about to rise.',
        put: arms('outer side of the knee', 'outer mid-line of the thigh', 'outer mid-line of the lower leg', 'shin, just above the ankle'),
        hold: 'pelvis flat, hand on the sacrum',
        fakes: ['hip lifts', 'low back arches', 'thigh drifts out'],
        twoJoint: 'Rectus femoris is meant to stop it; a hip that rises before 90° is taken as short.',
        dial: [90, -1, 150, 10],
        figure: turn('lyingDown', 'knee', ['ankle', 'toe', 'heel'], 'hip', 115),
        source,
      },
    ],
  }),
  ...(['Straight', 'Bent'] as const).map((knee) =>
    defineMotion(`muscleLength.calfKnee${knee}`, {
      nearZero: true,
      name: `Calf, knee ${knee.toLowerCase()}`,
      limits: [-60, 60],
      protocols: [
        {
          at: 'supine' as const,
          swing: 'vertical' as const,
          start:
            knee === 'Straight'
              ? 'Face up, knee straight, heel over the edge, heel bone held in line with the shin.'
              : 'Face up, knee bent to 90° over a roll, heel bone held in line with the shin.',
          put: CALF,
          hold: 'heel bone in line, lower leg still',
          fakes: ['midfoot gives way', knee === 'Straight' ? 'knee bends' : 'knee straightens', 'toes pull up'],
          twoJoint: `${knee === 'Straight' ? 'Gastrocnemius is meant to stop it.' : 'Gastrocnemius is slack: soleus or the joint stops it.'} ${PAIRED}`,
          dial: [0, 1, 50, 60] as const,
          figure: turn('footUp', 'ankle', FOOT_UP, 'knee', knee === 'Straight' ? 8 : 16),
          source,
        },
      ],
    }),
  ),
  defineMotion('muscleLength.sideLyingLegDrop', {
    name: 'Side-lying leg drop',
    limits: [-60, 60],
    ...PLANE_LEVEL,
    plus: { long: '% below level', short: '%' },
    protocols: [
      {
        ...drop('upper knee bent to 90°, hip brought back into line, then the thigh is let down.'),
        figure: turn('sidelying', 'hip', LEG, 270, 15),
      },
      {
        ...drop('upper leg straight, hip brought back into line, then let down.'),
        variant: 'knee-straight',
        variantLabel: 'knee straight',
        figure: turn('sidelying', 'hip', LEG, 270, 20),
      },
    ],
  }),
  defineMotion('muscleLength.latissimus', {
    name: 'Latissimus and teres major',
    limits: [0, 200],
    protocols: [
      {
        at: 'supine',
        swing: 'vertical',
        start: 'Face up, knees bent, pelvis tucked and held so that the low back stays flat; the arm rises, elbow straight, palm in.',
        put: arms('outer side of the shoulder', 'mid-line of the ribs', 'outer mid-line of the upper arm', 'outer side of the arm'),
        hold: 'low back flat',
        fakes: ['low back arches', 'ribs flare', 'elbow bends'],
        twoJoint: 'Latissimus and teres major are meant to stop it: the arm should reach the table.',
        dial: [270, 1, 190, 20],
        figure: turn('lyingUp', 'shoulder', ['elbow', 'wrist', 'hand'], 'hip', 165),
        source,
      },
    ],
  }),
  ...(['sternal', 'clavicular'] as const).map((part) =>
    defineMotion(`muscleLength.pectoralisMajor${part === 'sternal' ? 'Sternal' : 'Clavicular'}`, {
      name: `Pectoralis major, ${part} part`,
      limits: [-90, 60],
      ...PLANE_LEVEL,
      plus: { long: '% below level', short: '%' },
      protocols: [
        {
          at: 'supine' as const,
          modes: ['passive'] as const,
          swing: 'vertical' as const,
          reads: 'position' as const,
          start: `Face up at the edge of the table, arm out at ${part === 'sternal' ? '135' : '90'}°, palm up, let down towards the floor.`,
          put: arms('front of the shoulder', 'level', 'outer mid-line of the upper arm', 'outer side of the arm; zero level'),
          hold: 'ribs, so that the trunk does not roll',
          fakes: ['trunk rolls', 'low back arches', 'elbow bends'],
          twoJoint: 'Pectoralis major is meant to stop it: the arm should reach the level of the table.',
          dial: [90, 1, 40, 60] as const,
          figure: turn('trunkFromFeet', 'elbow', ['wrist', 'hand'], 90, 10),
          source,
        },
      ],
    }),
  ),
  ...(['Straight', 'Bent'] as const).map((knee) =>
    defineMotion(`muscleLength.adductorsKnee${knee}`, {
      name: `Hip adductors, knee ${knee.toLowerCase()}`,
      limits: [-20, 100],
      protocols: [
        {
          at: 'supine' as const,
          modes: ['passive'] as const,
          swing: 'horizontal' as const,
          start: `Face up, the other leg still, knee ${knee === 'Straight' ? 'straight' : 'bent over the table’s edge'}; the leg is led out.`,
          put: arms(
            'front pelvic bone (ASIS)',
            'line to the other front pelvic bone; the 90° reading is zero',
            'front mid-line of the thigh',
          ),
          hold: 'the other front pelvic bone',
          fakes: ['pelvis hikes', 'leg turns out', 'hip bends'],
          twoJoint: `Gracilis crosses the knee. ${PAIRED}`,
          dial: [180, -1, 80, 20] as const,
          figure: turn('planSupine', 'hip', ['knee', 'ankle', 'toe'], 'hipR', 40),
          source,
        },
      ],
    }),
  ),
  ...(['Extended', 'Flexed'] as const).map((mcp) =>
    defineMotion(`muscleLength.fingerIntrinsicsMcp${mcp}`, {
      name: `Middle joint (PIP) flexion, knuckle ${mcp === 'Extended' ? 'straight' : 'bent'}`,
      limits: [-20, 140],
      zeroIs: 'straight',
      perDigit: true,
      protocols: [
        {
          at: 'sitting' as const,
          modes: ['passive'] as const,
          by: ['goniometer', 'visual'] as const,
          swing: 'horizontal' as const,
          start: `Sitting, wrist neutral, knuckle held ${mcp === 'Extended' ? 'straight' : 'bent'}; the middle joint is bent.`,
          put: arms('back of the middle joint', 'back of the first phalanx', 'back of the middle phalanx'),
          hold: `knuckle ${mcp === 'Extended' ? 'straight' : 'bent'}`,
          fakes: ['knuckle moves', 'wrist moves'],
          twoJoint: 'Less with the knuckle straight: intrinsic muscles. Less with it bent: long extensors. The same: the joint.',
          dial: [270, -1, 130, 20] as const,
          figure: turn('fingerSide', 'pip', ['dip', 'tip'], 'mcp', 85),
          source,
        },
      ],
    }),
  ),
];
