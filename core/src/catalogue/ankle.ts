import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const PUT = arms(
  'outer ankle bone',
  'outer mid-line of the lower leg, towards the head of the fibula',
  'parallel to the outer edge of the foot (fifth metatarsal)',
);
const SOLE = { ...PUT, site: 'along the sole, at the outer edge; zero with the sole square to the shin' };
const up = {
  put: PUT,
  hold: 'lower leg',
  fakes: ['midfoot gives way', 'knee straightens', 'toes pull up'],
  twoJoint: 'Gastrocnemius: keep the knee bent; soleus still limits.',
} as const;
const down = {
  put: PUT,
  hold: 'lower leg',
  fakes: ['forefoot drops', 'foot turns in', 'toes curl'],
  feel: ['firm', 'hard'],
  twoJoint: 'Toe extensors: let the toes relax.',
} as const;
const FOOT = ['foot', 'met', 'mtp', 'ip', 'toe', 'heel', 'sole'];
const FOOT_UP = ['foot', 'mtp', 'ip', 'toe', 'heel'];
const loaded = {
  swing: 'vertical',
  modes: ['active', 'passive'],
  put: arms('outer ankle bone', 'plumb', 'outer mid-line of the shin', 'front of the shin, a hand’s breadth below the knee; zero plumb'),
  hold: 'heel on the floor, knee over or just outside the second toe',
  not: 'Weight-bearing gives 35–45°, unloaded 10–20°: never compare the two.',
} as const;
const sitting = 'Sitting, knee bent to 90°, foot hanging, sole square to the shin.';
const supine = 'Face up, a roll under the knee so that it is bent, heel over the edge.';
const prone = 'Face down, knee bent to 90°, sole to the ceiling.';

export const ANKLE: readonly Motion[] = [
  defineMotion('ankle.dorsiflexion', {
    nearZero: true,
    name: 'Ankle dorsiflexion',
    short: 'Dorsiflexion',
    plane: 'S',
    opposite: 'plantarflexion',
    limits: [-60, 70],
    protocols: [
      { ...up, at: 'sitting', swing: 'vertical', start: sitting, dial: [270, 1, 50, 60], figure: turn('foot', 'ankle', FOOT, 'knee', 15) },
      { ...up, at: 'supine', swing: 'vertical', start: supine, dial: [0, 1, 50, 60], figure: turn('footUp', 'ankle', FOOT_UP, 'knee', 15) },
      {
        ...up,
        at: 'prone',
        swing: 'vertical',
        put: SOLE,
        start: prone,
        dial: [270, -1, 50, 60],
        figure: turn('soleUp', 'ankle', ['foot', 'heel', 'toe', 'mtp'], 'knee', 15),
      },
      {
        ...loaded,
        at: 'standing',
        variant: 'loaded',
        variantLabel: 'weight-bearing, knee bent',
        start: 'Facing a wall, the foot straight ahead; the knee travels forward until the heel is about to lift.',
        fakes: ['heel lifts', 'knee rolls in', 'arch drops', 'foot turns out'],
        twoJoint: 'Knee bent: soleus and the joint are read.',
        dial: [0, -1, 60, 30],
        figure: turn('lunge', 'ankle', ['knee'], 0, 36, { sites: ['ankle', 'knee'] }),
      },
      {
        ...loaded,
        at: 'standing',
        variant: 'loaded-straight',
        variantLabel: 'weight-bearing, knee straight',
        start: 'Stride stance, the side measured behind, its knee straight; the pelvis moves forward until the heel is about to lift.',
        fakes: ['heel lifts', 'knee bends', 'arch drops', 'foot turns out'],
        twoJoint: 'Knee straight: gastrocnemius is read.',
        dial: [0, -1, 60, 30],
        figure: turn('lungeStraight', 'ankle', ['knee'], 0, 30),
      },
      {
        ...loaded,
        at: 'halfKneeling',
        variant: 'loaded',
        variantLabel: 'weight-bearing',
        start: 'Half-kneeling, the foot measured in front; the knee travels forward over the toes.',
        fakes: ['heel lifts', 'knee rolls in', 'arch drops'],
        twoJoint: 'Knee bent: soleus and the joint are read.',
        dial: [0, -1, 60, 30],
        figure: turn('halfKneeling', 'ankle', ['knee'], 0, 34),
      },
    ],
  }),
  defineMotion('ankle.plantarflexion', {
    name: 'Ankle plantarflexion',
    short: 'Plantarflexion',
    plane: 'S',
    opposite: 'dorsiflexion',
    limits: [-40, 100],
    protocols: [
      {
        ...down,
        at: 'sitting',
        swing: 'vertical',
        start: sitting,
        dial: [270, -1, 80, 40],
        figure: turn('foot', 'ankle', FOOT, 'knee', 45),
      },
      {
        ...down,
        at: 'supine',
        swing: 'vertical',
        start: supine,
        dial: [0, -1, 80, 40],
        figure: turn('footUp', 'ankle', FOOT_UP, 'knee', 45),
      },
      {
        ...down,
        at: 'prone',
        swing: 'vertical',
        put: SOLE,
        start: prone,
        dial: [270, 1, 80, 40],
        figure: turn('soleUp', 'ankle', ['foot', 'heel', 'toe', 'mtp'], 'knee', 45),
      },
    ],
  }),
];
