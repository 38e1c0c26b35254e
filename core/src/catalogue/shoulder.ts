import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const LATERAL_HUMERUS = 'outer mid-line of the upper arm, towards the lateral epicondyle';
const ACROMION_SIDE = 'outer side of the shoulder, a thumb’s breadth below the acromion';
const ARM = ['elbow', 'wrist', 'hand'];
const FLEX_TWO = 'Long head of triceps: keep the elbow straight. Latissimus and teres major: keep the pelvis tucked.';
const ROTATION_TRAP = (way: 'inwards' | 'outwards') =>
  `Named by the arm bone, not by the hand: the ${way === 'inwards' ? 'palm goes towards the feet' : 'back of the hand goes towards the head'}.`;

const AT_SIDE_TRAP = 'Named by the arm bone, not by the hand: the forearm swings away from the body.';

const flexion = {
  put: arms(
    ACROMION_SIDE,
    'mid-line of the ribs, parallel to the trunk',
    LATERAL_HUMERUS,
    'outer side of the arm, just above the elbow; zero with the arm at the side',
  ),
  hold: 'ribs and low back: stop when they lift',
  fakes: ['low back arches', 'ribs flare', 'trunk leans', 'arm drifts out'],
  twoJoint: FLEX_TWO,
} as const;
const abduction = {
  put: arms(
    'front of the shoulder, near the acromion',
    'parallel to the breastbone',
    'front mid-line of the upper arm, towards the medial epicondyle',
    'outer side of the arm, just above the elbow; zero with the arm at the side',
  ),
  hold: 'ribs and the shoulder girdle',
  fakes: ['shoulder shrugs', 'trunk leans away', 'arm drifts forward'],
  twoJoint: 'Long head of triceps: keep the elbow straight.',
  not: 'Lost outward rotation blocks abduction: let the palm turn up, and do not compare with a palm-down reading.',
} as const;
const rotation = (way: 'internal' | 'external') =>
  ({
    put: arms(
      'tip of the elbow (olecranon)',
      'plumb',
      'along the ulna, towards its styloid',
      'forearm just above the wrist; zero with the forearm plumb',
    ),
    fakes:
      way === 'internal'
        ? ['shoulder tips forward', 'shoulder shrugs', 'wrist bends', 'elbow leaves 90°']
        : ['back arches', 'arm leaves 90°', 'wrist bends'],
    trap: ROTATION_TRAP(way === 'internal' ? 'inwards' : 'outwards'),
    not: 'At the side and at 90° of abduction are two measurements: never compare one with the other.',
  }) as const;
const NINETY =
  'Face up, arm out to the side at 90°, elbow bent to 90°, a folded towel under the upper arm so that it is level with the shoulder, forearm plumb.';
const NINETY_PRONE = 'Face down, arm out to the side at 90° on the table, elbow over the edge and bent to 90°, forearm hanging plumb.';

export const SHOULDER: readonly Motion[] = [
  defineMotion('shoulder.flexion', {
    name: 'Shoulder flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-60, 210],
    protocols: [
      {
        ...flexion,
        at: 'supine',
        swing: 'vertical',
        start: 'Face up, knees bent, arm at the side, palm in, thumb up.',
        dial: [270, 1, 190, 60],
        figure: turn('lyingUp', 'shoulder', ARM, 'hip', 150),
      },
      {
        ...flexion,
        at: 'sitting',
        swing: 'vertical',
        start: 'Sitting tall, back supported, arm at the side, palm in.',
        dial: [180, 1, 190, 60],
        figure: turn('sittingSide', 'shoulder', ARM, 180, 140),
      },
      {
        ...flexion,
        at: 'standing',
        swing: 'vertical',
        start: 'Standing, back against a wall, knees soft, arm at the side, palm in.',
        dial: [180, 1, 190, 60],
        figure: turn('standingSide', 'shoulder', ARM, 180, 140),
      },
      {
        ...flexion,
        at: 'supine',
        variant: 'scapula-held',
        variantLabel: 'shoulder blade held',
        modes: ['passive'],
        swing: 'vertical',
        start: 'Face up, knees bent, arm at the side; the edge of the shoulder blade held down.',
        hold: 'outer edge of the shoulder blade: stop when it moves',
        fakes: ['shoulder blade turns up', 'ribs flare'],
        not: 'The joint alone gives about 90–120° of the whole shoulder’s 180°: never compare the two.',
        dial: [270, 1, 150, 60],
        figure: turn('lyingUp', 'shoulder', ARM, 'hip', 105),
      },
    ],
  }),
  defineMotion('shoulder.extension', {
    name: 'Shoulder extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-90, 100],
    protocols: [
      {
        at: 'prone',
        swing: 'vertical',
        start: 'Face down, head turned away, no pillow, arm at the side, elbow slightly bent.',
        put: arms(ACROMION_SIDE, 'mid-line of the ribs', LATERAL_HUMERUS, 'back of the arm, just above the elbow'),
        hold: 'shoulder blade and ribs',
        fakes: ['trunk turns', 'shoulder tips forward', 'arm drifts out'],
        twoJoint: 'Long head of biceps: keep the elbow slightly bent.',
        dial: [90, -1, 80, 40],
        figure: turn('lyingDown', 'shoulder', ARM, 'hip', 45),
      },
      ...(['sitting', 'standing'] as const).map((at) => ({
        at,
        swing: 'vertical' as const,
        start: `${at === 'sitting' ? 'Sitting on a stool' : 'Standing'}, arm at the side, palm in, elbow slightly bent.`,
        put: arms(ACROMION_SIDE, 'mid-line of the ribs', LATERAL_HUMERUS, 'back of the arm, just above the elbow'),
        hold: 'trunk upright',
        fakes: ['trunk leans forward', 'shoulder tips forward', 'arm drifts out'],
        twoJoint: 'Long head of biceps: keep the elbow slightly bent.',
        dial: [180, -1, 80, 40] as const,
        figure: turn(at === 'sitting' ? 'sittingSide' : 'standingSide', 'shoulder', ARM, 180, 45),
      })),
    ],
  }),
  defineMotion('shoulder.abduction', {
    name: 'Shoulder abduction',
    short: 'Abduction',
    plane: 'F',
    opposite: 'adduction',
    limits: [-60, 210],
    protocols: [
      {
        ...abduction,
        at: 'supine',
        swing: 'horizontal',
        start: 'Face up, arm at the side, palm up.',
        dial: [180, -1, 190, 40],
        figure: turn('planSupine', 'shoulder', ['elbow', 'wrist'], 180, 120),
      },
      {
        ...abduction,
        at: 'sitting',
        swing: 'vertical',
        start: 'Sitting tall, arm at the side, palm turned forward.',
        dial: [180, -1, 190, 40],
        figure: turn('front', 'shoulder', ['elbow', 'wrist'], 180, 120),
      },
      {
        ...abduction,
        at: 'standing',
        swing: 'vertical',
        start: 'Standing tall, arm at the side, palm turned forward.',
        dial: [180, -1, 190, 40],
        figure: turn('front', 'shoulder', ['elbow', 'wrist'], 180, 120),
      },
    ],
  }),
  defineMotion('shoulder.adduction', {
    name: 'Shoulder adduction',
    short: 'Adduction',
    plane: 'F',
    opposite: 'abduction',
    limits: [-180, 90],
    protocols: (['supine', 'sitting'] as const).map((at) => ({
      at,
      swing: at === 'supine' ? ('horizontal' as const) : ('vertical' as const),
      start: `${at === 'supine' ? 'Face up' : 'Sitting'}, arm at the side; it passes in front of the body.`,
      put: arms('front of the shoulder, near the acromion', 'parallel to the breastbone', 'front mid-line of the upper arm'),
      hold: 'trunk',
      fakes: ['trunk leans', 'trunk turns'],
      feel: ['soft' as const, 'firm' as const],
      not: 'Handbooks take the arm at the side (0) or across the body (45–75): say which end was read.',
      dial: [180, 1, 80, 60] as const,
      figure: turn(at === 'supine' ? 'planSupine' : 'front', 'shoulder', ['elbow', 'wrist'], 180, 35),
    })),
  }),
  defineMotion('shoulder.internalRotation', {
    name: 'Shoulder internal rotation',
    short: 'Internal rotation',
    plane: 'R',
    opposite: 'externalRotation',
    limits: [-90, 130],
    protocols: [
      {
        ...rotation('internal'),
        at: 'supine',
        swing: 'vertical',
        start: NINETY,
        hold: 'the upper arm level; the chest still',
        dial: [0, -1, 110, 130],
        figure: turn('lyingUpArmOut', 'elbow', ['wrist', 'hand'], 0, 60),
      },
      {
        ...rotation('internal'),
        at: 'supine',
        variant: 'scapula-held',
        variantLabel: 'shoulder blade held',
        modes: ['passive'],
        swing: 'vertical',
        start: NINETY,
        hold: 'hand over the coracoid and the spine of the shoulder blade: stop when they move',
        not: 'With the blade held the reading is smaller: never compare with one taken without.',
        dial: [0, -1, 110, 130],
        figure: turn('lyingUpArmOut', 'elbow', ['wrist', 'hand'], 0, 45),
      },
      {
        ...rotation('internal'),
        at: 'prone',
        swing: 'vertical',
        start: NINETY_PRONE,
        hold: 'shoulder blade',
        dial: [180, -1, 110, 130],
        figure: turn('lyingDownArmOut', 'elbow', ['wrist', 'hand'], 180, 60),
      },
    ],
  }),
  defineMotion('shoulder.externalRotation', {
    name: 'Shoulder external rotation',
    short: 'External rotation',
    plane: 'R',
    opposite: 'internalRotation',
    limits: [-90, 160],
    protocols: [
      {
        ...rotation('external'),
        at: 'supine',
        swing: 'vertical',
        start: NINETY,
        hold: 'chest and shoulder blade',
        twoJoint: 'Pectoralis major and subscapularis stop it: note the pull at the front.',
        dial: [0, 1, 130, 110],
        figure: turn('lyingUpArmOut', 'elbow', ['wrist', 'hand'], 0, 80),
      },
      {
        ...rotation('external'),
        at: 'prone',
        swing: 'vertical',
        start: NINETY_PRONE,
        hold: 'shoulder blade',
        dial: [180, 1, 130, 110],
        figure: turn('lyingDownArmOut', 'elbow', ['wrist', 'hand'], 180, 80),
      },
      {
        ...rotation('external'),
        at: 'supine',
        variant: 'at-side',
        variantLabel: 'arm at the side',
        trap: AT_SIDE_TRAP,
        swing: 'vertical',
        start: 'Face up, arm at the side on a folded towel, elbow bent to 90°, forearm plumb.',
        hold: 'elbow to the side',
        fakes: ['elbow leaves the side', 'trunk turns', 'shoulder blade pulls back'],
        dial: [0, 1, 110, 90],
        figure: turn('trunkFromFeet', 'elbow', ['wrist', 'hand'], 0, 55),
      },
      {
        ...rotation('external'),
        at: 'sitting',
        variant: 'at-side',
        variantLabel: 'arm at the side',
        trap: AT_SIDE_TRAP,
        swing: 'horizontal',
        start: 'Sitting, arm at the side, elbow bent to 90°, forearm straight ahead.',
        put: arms('tip of the elbow (olecranon)', 'straight ahead', 'along the ulna, towards its styloid'),
        hold: 'elbow to the side',
        fakes: ['elbow leaves the side', 'trunk turns', 'shoulder blade pulls back'],
        not: 'The forearm sweeps level: an inclinometer cannot read it here; take supine. Never compare with 90° of abduction.',
        dial: [0, -1, 110, 90],
        figure: turn('elbowFromAbove', 'elbow', ['wrist', 'hand'], 0, 55),
      },
    ],
  }),
  ...(['horizontalAdduction', 'horizontalAbduction'] as const).map((which) => {
    const across = which === 'horizontalAdduction';
    return defineMotion(`shoulder.${which}`, {
      name: across ? 'Shoulder horizontal adduction' : 'Shoulder horizontal abduction',
      short: across ? 'Horizontal adduction' : 'Horizontal abduction',
      plane: 'T',
      opposite: across ? 'horizontalAbduction' : 'horizontalAdduction',
      limits: across ? [-60, 170] : [-130, 90],
      protocols: [
        {
          at: 'sitting' as const,
          swing: 'horizontal' as const,
          start: 'Sitting, arm out to the side at 90°, elbow bent.',
          put: arms('top of the acromion', 'along the line of the shoulders', 'upper mid-line of the arm'),
          hold: 'trunk and shoulder blade',
          fakes: ['trunk turns', across ? 'shoulder blade slides forward' : 'shoulder blade pulls back'],
          feel: across ? (['firm', 'soft'] as const) : (['firm'] as const),
          twoJoint: across ? undefined : 'Biceps: keep the elbow bent. Pectoralis major is the usual limit.',
          not: 'The arm sweeps level: no inclinometer reads it in sitting.',
          dial: [270, across ? 1 : -1, across ? 150 : 70, across ? 60 : 60] as const,
          figure: turn('headFromAbove', 'shoulder', ['elbow', 'wrist'], 'shoulderR', across ? 110 : 35),
        },
        {
          at: 'supine' as const,
          swing: 'vertical' as const,
          start: 'Face up, arm out to the side at 90° over the edge of the table, elbow bent.',
          put: arms(
            'top of the acromion',
            'level, along the line of the shoulders',
            'upper mid-line of the arm',
            'outer side of the arm above the elbow; zero with the arm level',
          ),
          hold: 'shoulder blade',
          fakes: ['trunk rolls', across ? 'shoulder blade slides forward' : 'ribs flare'],
          feel: across ? (['firm', 'soft'] as const) : (['firm'] as const),
          dial: [90, across ? -1 : 1, across ? 150 : 70, 60] as const,
          figure: turn('trunkFromFeet', 'elbow', ['wrist', 'hand'], 90, across ? 100 : 30),
        },
      ],
    });
  }),
];
