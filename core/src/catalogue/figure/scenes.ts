import { CLOSE_UPS } from './close-ups.js';
import { MOVEMENTS } from './movements.js';
import type { Bone, Point, Scene } from './types.js';

/*
 * Stick bodies in the positions of the catalogue. Lying patients seen from
 * their left side have the head on the right face up, on the left face down;
 * sitting and standing ones seen from their left face to the left. Seen from
 * the front, the patient's left is on the right.
 */
const THIGH = 22;
const SHIN = 16;
const ARM = 13;
const FOREARM = 10;

const sideBones: readonly Bone[] = [
  ['neck', 'shoulder', 14],
  ['shoulder', 'hip', 34],
  ['hip', 'knee', THIGH],
  ['knee', 'ankle', SHIN],
  ['ankle', 'toe', 9],
  ['shoulder', 'elbow', ARM],
  ['elbow', 'wrist', FOREARM],
  ['wrist', 'hand', 8],
];
const head = { at: 'head', radius: 21 };
const TABLE: Scene['furniture'] = [
  [
    [14, 186],
    [346, 186],
  ],
];
const FLOOR: Scene['furniture'] = [
  [
    [40, 234],
    [320, 234],
  ],
];

const LYING_UP = {
  head: [320, 158],
  crown: [342, 156],
  nose: [314, 134],
  neck: [296, 166],
  shoulder: [276, 164],
  elbow: [226, 160],
  wrist: [182, 158],
  hand: [164, 158],
  t12: [226, 168],
  hip: [186, 166],
  asis: [190, 148],
  knee: [116, 168],
  ankle: [50, 170],
  heel: [42, 178],
  toe: [44, 142],
  navel: [206, 148],
  acromion: [284, 148],
  tableTop: [284, 186],
} satisfies Record<string, Point>;

const LYING_DOWN = {
  head: [40, 160],
  neck: [64, 166],
  shoulder: [84, 164],
  elbow: [134, 160],
  wrist: [176, 158],
  hand: [194, 158],
  hip: [174, 166],
  buttock: [184, 146],
  knee: [244, 170],
  ankle: [308, 172],
  heel: [318, 160],
  toe: [326, 200],
} satisfies Record<string, Point>;

const SITTING = {
  head: [206, 40],
  crown: [206, 18],
  ear: [208, 40],
  nose: [184, 42],
  neck: [210, 62],
  c7: [222, 68],
  shoulder: [210, 76],
  elbow: [208, 120],
  wrist: [206, 158],
  hand: [206, 172],
  chin: [190, 56],
  notch: [196, 82],
  t12: [222, 118],
  hip: [214, 160],
  knee: [144, 164],
  ankle: [142, 226],
  toe: [112, 230],
} satisfies Record<string, Point>;

const STANDING = {
  head: [190, 28],
  crown: [190, 6],
  ear: [192, 28],
  nose: [168, 30],
  neck: [194, 50],
  c7: [204, 54],
  shoulder: [194, 62],
  elbow: [192, 96],
  wrist: [188, 126],
  hand: [186, 138],
  line15: [210, 90],
  t12: [210, 92],
  sacrum: [208, 126],
  hip: [196, 128],
  knee: [192, 182],
  ankle: [196, 226],
  toe: [168, 230],
} satisfies Record<string, Point>;

/** Facing the patient: the patient's left is on the right. */
const FRONT = {
  head: [180, 30],
  crown: [180, 8],
  nose: [180, 34],
  neck: [180, 54],
  shoulder: [214, 66],
  shoulderR: [146, 66],
  elbow: [222, 112],
  elbowR: [138, 112],
  wrist: [226, 152],
  wristR: [134, 152],
  chest: [180, 88],
  navel: [180, 124],
  pelvis: [180, 138],
  hip: [198, 142],
  hipR: [162, 142],
  thigh: [199, 166],
  thigh5: [200, 174],
  thigh15: [199, 157],
  knee: [200, 188],
  kneeR: [160, 188],
  calf: [201, 206],
  ankle: [201, 228],
  ankleR: [159, 228],
  upperArm: [218, 90],
  forearm: [224, 130],
} satisfies Record<string, Point>;

const frontBones: readonly Bone[] = [
  ['neck', 'pelvis', 34],
  ['shoulderR', 'shoulder', 16],
  ['hipR', 'hip', 22],
  ['shoulder', 'elbow', ARM],
  ['elbow', 'wrist', FOREARM],
  ['shoulderR', 'elbowR', ARM],
  ['elbowR', 'wristR', FOREARM],
  ['hip', 'knee', 20],
  ['knee', 'ankle', 14],
  ['hipR', 'kneeR', 20],
  ['kneeR', 'ankleR', 14],
];

/** Seen from behind: the patient's left is on the left. */
const mirrored = (points: Readonly<Record<string, Point>>): Record<string, Point> =>
  Object.fromEntries(Object.entries(points).map(([name, [x, y]]) => [name, [360 - x, y] as const]));

const BACK = { ...mirrored(FRONT), c7: [180, 58], t12: [180, 102], s2: [180, 138] } satisfies Record<string, Point>;

const scene = (
  id: string,
  seenFrom: string,
  points: Readonly<Record<string, Point>>,
  bones: readonly Bone[],
  furniture: Scene['furniture'] = [],
  withHead = true,
): Scene => ({ id, seenFrom, points, bones, furniture, head: withHead ? head : undefined });

const FROM_LEFT = 'from the side being measured';

const BODIES: readonly Scene[] = [
  scene('lyingUp', FROM_LEFT, LYING_UP, sideBones, TABLE),
  scene('lyingUpKneeBent', FROM_LEFT, { ...LYING_UP, knee: [140, 108], ankle: [104, 172], toe: [78, 176] }, sideBones, TABLE),
  scene('lyingUpHipBent', FROM_LEFT, { ...LYING_UP, ankle: [130, 112], toe: [112, 98] }, sideBones, TABLE),
  scene('lyingUp9090', FROM_LEFT, { ...LYING_UP, knee: [186, 92], ankle: [120, 92], toe: [114, 70] }, sideBones, TABLE),
  scene('lyingUpArmOut', FROM_LEFT, { ...LYING_UP, elbow: [276, 150], wrist: [276, 92], hand: [276, 74] }, sideBones, TABLE),
  scene(
    'lyingUpEdge',
    FROM_LEFT,
    {
      ...LYING_UP,
      hip: [186, 130],
      shoulder: [272, 140],
      neck: [294, 142],
      head: [318, 136],
      knee: [110, 130],
      ankle: [110, 196],
      toe: [84, 204],
      elbow: [250, 120],
      wrist: [216, 104],
      hand: [206, 98],
    },
    sideBones,
    [
      [
        [196, 160],
        [346, 160],
      ],
    ],
  ),
  scene('lyingDown', FROM_LEFT, LYING_DOWN, sideBones, TABLE),
  scene('lyingDownKneeBent', FROM_LEFT, { ...LYING_DOWN, ankle: [244, 104], heel: [250, 92], toe: [216, 98] }, sideBones, TABLE),
  scene('lyingDownArmOut', FROM_LEFT, { ...LYING_DOWN, elbow: [84, 172], wrist: [84, 218], hand: [84, 232] }, sideBones, TABLE),
  scene(
    'lyingDownPressUp',
    FROM_LEFT,
    { ...LYING_DOWN, head: [66, 84], neck: [82, 106], shoulder: [92, 118], elbow: [88, 150], wrist: [84, 178], hand: [70, 182] },
    sideBones,
    TABLE,
  ),
  scene('sittingSide', FROM_LEFT, SITTING, sideBones, [
    [
      [160, 178],
      [270, 178],
    ],
    [
      [60, 234],
      [230, 234],
    ],
  ]),
  scene('sittingForearm', FROM_LEFT, { ...SITTING, wrist: [164, 122], hand: [148, 122] }, sideBones, [
    [
      [160, 178],
      [270, 178],
    ],
  ]),
  scene('sittingLegOut', FROM_LEFT, { ...SITTING, ankle: [78, 164], toe: [72, 138] }, sideBones, [
    [
      [130, 180],
      [270, 180],
    ],
  ]),
  scene('standingSide', FROM_LEFT, STANDING, sideBones, FLOOR),
  scene('planSidelying', 'from above, the feet towards you', STANDING, sideBones),
  scene(
    'standingKneeBent',
    FROM_LEFT,
    { ...STANDING, knee: [188, 184], ankle: [240, 164], toe: [262, 188], heel: [240, 152], buttock: [214, 140] },
    sideBones,
    FLOOR,
  ),
  scene(
    'standingBent',
    FROM_LEFT,
    {
      ...STANDING,
      head: [84, 116],
      neck: [106, 110],
      shoulder: [118, 108],
      elbow: [116, 148],
      wrist: [114, 184],
      hand: [112, 202],
      fingertip: [112, 208],
      floor: [112, 234],
      toe: [166, 230],
    },
    sideBones,
    FLOOR,
  ),
  scene(
    'lunge',
    FROM_LEFT,
    {
      ...STANDING,
      head: [214, 30],
      neck: [212, 50],
      shoulder: [210, 62],
      hip: [206, 140],
      knee: [112, 168],
      ankle: [140, 222],
      toe: [108, 230],
      wall: [84, 230],
      elbow: [170, 84],
      wrist: [120, 86],
      hand: [98, 84],
      backKnee: [250, 178],
      backFoot: [306, 226],
    },
    [...sideBones, ['hip', 'backKnee', 18], ['backKnee', 'backFoot', 13]],
    [
      [
        [84, 20],
        [84, 234],
      ],
      [
        [84, 234],
        [330, 234],
      ],
    ],
  ),
  scene(
    'lungeStraight',
    FROM_LEFT,
    {
      ...STANDING,
      head: [160, 26],
      neck: [166, 46],
      shoulder: [170, 58],
      hip: [190, 128],
      knee: [222, 176],
      ankle: [248, 222],
      toe: [216, 230],
      elbow: [136, 74],
      wrist: [106, 70],
      hand: [92, 66],
      frontKnee: [136, 160],
      frontFoot: [140, 226],
    },
    [...sideBones, ['hip', 'frontKnee', 18], ['frontKnee', 'frontFoot', 13]],
    [
      [
        [84, 20],
        [84, 234],
      ],
      [
        [84, 234],
        [330, 234],
      ],
    ],
  ),
  scene(
    'halfKneeling',
    FROM_LEFT,
    {
      ...STANDING,
      head: [206, 40],
      neck: [206, 60],
      shoulder: [206, 74],
      hip: [206, 146],
      knee: [136, 158],
      ankle: [150, 222],
      toe: [120, 230],
      elbow: [190, 108],
      wrist: [160, 136],
      hand: [146, 146],
      backKnee: [216, 222],
      backFoot: [284, 226],
      wall: [88, 230],
    },
    [...sideBones, ['hip', 'backKnee', 18], ['backKnee', 'backFoot', 13]],
    FLOOR,
  ),
  scene('wallStanding', FROM_LEFT, { ...STANDING, tragus: [192, 28], occiput: [212, 28], wallPoint: [232, 28] }, sideBones, [
    [
      [232, 4],
      [232, 234],
    ],
    FLOOR[0]!,
  ]),
  scene(
    'quadruped',
    FROM_LEFT,
    {
      head: [62, 96],
      neck: [86, 104],
      shoulder: [104, 108],
      elbow: [106, 152],
      wrist: [106, 196],
      hand: [92, 202],
      hip: [222, 110],
      knee: [228, 196],
      ankle: [292, 200],
      toe: [312, 202],
    },
    sideBones,
    [
      [
        [40, 210],
        [330, 210],
      ],
    ],
  ),
  scene('front', 'facing the patient', FRONT, frontBones, FLOOR),
  scene('oneLeg', 'facing the patient', { ...FRONT, kneeR: [134, 176], ankleR: [142, 214] }, frontBones, FLOOR),
  scene('back', 'from behind', BACK, frontBones, FLOOR),
  scene(
    'handsBehind',
    'from behind',
    {
      ...BACK,
      elbow: [134, 22],
      wrist: [170, 66],
      upperHand: [176, 82],
      elbowR: [228, 126],
      wristR: [186, 116],
      lowerHand: [182, 100],
      scapulaTop: [196, 72],
      scapulaLow: [196, 104],
    },
    [...frontBones, ['wrist', 'upperHand', 8], ['wristR', 'lowerHand', 8]],
    FLOOR,
  ),
  scene('planSupine', 'from above, the feet towards you', { ...FRONT, toe: [204, 238] }, frontBones),
  scene(
    'sittingFront',
    'facing the patient',
    { ...FRONT, hip: [206, 146], hipR: [154, 146], knee: [210, 158], kneeR: [150, 158], ankle: [210, 222], ankleR: [150, 222] },
    frontBones,
    [
      [
        [120, 172],
        [240, 172],
      ],
    ],
  ),
  scene(
    'sidelying',
    'facing the patient, who lies on the other side',
    {
      head: [40, 150],
      neck: [64, 154],
      shoulder: [82, 140],
      pelvis: [172, 150],
      hip: [176, 138],
      knee: [246, 138],
      ankle: [314, 138],
      toe: [322, 150],
      hipR: [176, 168],
      kneeR: [236, 172],
      ankleR: [296, 174],
    },
    [
      ['neck', 'pelvis', 36],
      ['hipR', 'kneeR', 20],
      ['kneeR', 'ankleR', 14],
      ['hip', 'knee', THIGH],
      ['knee', 'ankle', SHIN],
      ['ankle', 'toe', 9],
    ],
    TABLE,
  ),
];

/** Every scene a figure may be drawn on. */
export const SCENES: readonly Scene[] = [...BODIES, ...CLOSE_UPS, ...MOVEMENTS];

const byId = new Map(SCENES.map((s) => [s.id, s]));

/** @throws RangeError for a scene that does not exist */
export function sceneOf(id: string): Scene {
  const found = byId.get(id);
  if (!found) throw new RangeError(`no scene "${id}"`);
  return found;
}
