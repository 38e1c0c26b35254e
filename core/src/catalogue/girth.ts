import { COMMON_PRACTICE } from '../terms.js';
import { defineMotion, tape } from './define.js';
import type { Motion } from './types.js';
import type { Position } from '../terms.js';

interface Girth {
  readonly id: string;
  readonly name: string;
  readonly where: string;
  readonly at: readonly Position[];
  readonly limits: readonly [number, number];
  readonly ring: readonly [at: string, width: number, tilt?: number, scene?: string];
  readonly midline?: true;
}

const LEG: readonly Position[] = ['supine', 'standing'];
const ARM: readonly Position[] = ['sitting', 'standing'];

const GIRTHS: readonly Girth[] = [
  {
    id: 'upperArm',
    name: 'Upper arm girth',
    where: '10 cm above the lateral epicondyle',
    at: ARM,
    limits: [10, 70],
    ring: ['upperArm', 26],
  },
  { id: 'forearm', name: 'Forearm girth', where: '10 cm below the lateral epicondyle', at: ARM, limits: [8, 60], ring: ['forearm', 24] },
  { id: 'wrist', name: 'Wrist girth', where: 'just beyond both styloids', at: ARM, limits: [8, 40], ring: ['wrist', 20] },
  {
    id: 'handFigureOfEight',
    name: 'Hand, figure of eight',
    where: 'wrist, across the palm to the little-finger knuckle, back across to the index knuckle, and round',
    at: ARM,
    limits: [15, 70],
    ring: ['mid', 90, 20, 'handTop'],
  },
  {
    id: 'thigh',
    name: 'Thigh girth, 10 cm',
    where: '10 cm above the upper edge of the knee cap',
    at: LEG,
    limits: [20, 110],
    ring: ['thigh', 34],
  },
  {
    id: 'thigh5',
    name: 'Thigh girth, 5 cm',
    where: '5 cm above the upper edge of the knee cap',
    at: LEG,
    limits: [20, 110],
    ring: ['thigh5', 32],
  },
  {
    id: 'thigh15',
    name: 'Thigh girth, 15 cm',
    where: '15 cm above the upper edge of the knee cap',
    at: LEG,
    limits: [20, 120],
    ring: ['thigh15', 38],
  },
  { id: 'knee', name: 'Knee girth', where: 'over the middle of the knee cap', at: LEG, limits: [20, 80], ring: ['knee', 32] },
  { id: 'calf', name: 'Calf girth', where: 'where it is widest', at: LEG, limits: [15, 70], ring: ['calf', 28] },
  {
    id: 'ankleFigureOfEight',
    name: 'Ankle, figure of eight',
    where: 'front of the ankle, navicular, under the arch, base of the fifth metatarsal, both ankle bones, round the tendon',
    at: LEG,
    limits: [25, 90],
    ring: ['ankle', 64, 25, 'footFront'],
  },
  {
    id: 'chest',
    name: 'Chest girth',
    where: 'level of the fourth rib space, breath relaxed',
    at: ['standing', 'sitting'],
    limits: [40, 180],
    ring: ['chest', 66],
    midline: true,
  },
  {
    id: 'waist',
    name: 'Waist girth',
    where: 'level of the navel, breath relaxed',
    at: ['standing', 'supine'],
    limits: [30, 200],
    ring: ['navel', 60],
    midline: true,
  },
];

export const GIRTHS_MOTIONS: readonly Motion[] = GIRTHS.map((girth) =>
  defineMotion(`girth.${girth.id}`, {
    name: girth.name,
    unit: 'cm',
    better: 'neither',
    sides: girth.midline ? 'midline' : 'limb',
    limits: girth.limits,
    protocols: girth.at.map((at) => ({
      at,
      modes: ['passive', 'active'],
      swing: 'none',
      start:
        at === 'supine'
          ? 'Face up, muscles relaxed.'
          : at === 'sitting'
            ? 'Sitting, muscles relaxed.'
            : 'Standing, weight on both feet, muscles relaxed.',
      put: tape(girth.where, 'round and back, the tape level and snug, not tight'),
      hold: 'muscles relaxed',
      fakes: ['muscle tightens', 'tape tilts'],
      feel: [],
      trials: 2,
      not: 'A girth says something only beside the other side, or beside itself later: mark the level.',
      figure: { kind: 'ring', scene: girth.ring[3] ?? 'front', at: girth.ring[0], width: girth.ring[1], tilt: girth.ring[2] ?? 0 },
      source: COMMON_PRACTICE,
    })),
  }),
);
