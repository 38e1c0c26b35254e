import { COMMON_PRACTICE, type Mode, type Source } from '../terms.js';
import { defineMotion, tape, type MotionSpec, type ProtocolSpec } from './define.js';
import type { Figure } from './figure/types.js';
import type { Motion } from './types.js';

const BOTH: readonly Mode[] = ['active', 'passive'];
const LINEAR: Source = {
  cite: 'standard linear measures; Schober 1937; Macrae & Wright 1969; van Adrichem & van der Korst 1973; Jenkinson et al. 1994',
  fromMemory: true,
};
const between = (scene: string, from: string, to: string): Figure => ({ kind: 'tape', scene, from, to });
const HEEL = { long: '% above the floor', short: '%' } as const;

type Tape = Omit<ProtocolSpec, 'swing' | 'by'> & Partial<Pick<ProtocolSpec, 'by'>>;
const taped = (id: string, spec: Omit<MotionSpec, 'unit' | 'protocols'> & { readonly protocols: readonly Tape[] }): Motion =>
  defineMotion(`distance.${id}`, {
    ...spec,
    unit: 'cm',
    protocols: spec.protocols.map((p) => ({ source: LINEAR, by: ['tape', 'visual'], ...p, swing: 'none' })),
  });

const lunge = {
  modes: BOTH,
  put: tape('tip of the great toe', 'wall, when the knee just touches it with the heel down'),
  hold: 'heel on the floor, knee over or just outside the foot: rolling in does not count',
  fakes: ['heel lifts', 'knee rolls in', 'arch drops', 'foot turns out'],
  not: 'About 3.6° of shin lean go with a centimetre as a group figure: an estimate, never a measured angle.',
} as const;
const reach = (from: 'above' | 'below'): Tape => ({
  at: 'standing',
  modes: ['active', 'passive'],
  start: `Standing, one hand goes ${from === 'above' ? 'over the shoulder and down the back' : 'behind the back and up'}.`,
  put: tape('tip of the middle finger', from === 'above' ? 'top of the opposite shoulder blade' : 'bottom of the opposite shoulder blade'),
  hold: 'trunk upright',
  fakes: ['trunk leans', 'low back arches', 'shoulder tips forward'],
  not: 'Examiners agree poorly on a reached vertebra: the tape is steadier.',
  figure: from === 'above' ? between('handsBehind', 'upperHand', 'scapulaTop') : between('handsBehind', 'lowerHand', 'scapulaLow'),
  source: COMMON_PRACTICE,
});

export const DISTANCES: readonly Motion[] = [
  taped('kneeToWall', {
    name: 'Knee to wall',
    limits: [0, 30],
    protocols: [
      {
        ...lunge,
        at: 'standing',
        start: 'Facing a wall, toes straight ahead; the knee goes forward to touch the wall over the second toe.',
        figure: between('lunge', 'toe', 'wall'),
        source: { cite: 'weight-bearing lunge: Bennell et al. 1998; Konor et al. 2012', fromMemory: true },
      },
      {
        ...lunge,
        at: 'halfKneeling',
        start: 'Half-kneeling at a wall, the foot measured in front; the knee goes forward to touch the wall.',
        figure: between('halfKneeling', 'toe', 'wall'),
        source: { cite: 'weight-bearing lunge: Bennell et al. 1998; Konor et al. 2012', fromMemory: true },
      },
    ],
  }),
  taped('heelToButtock', {
    name: 'Heel to buttock',
    better: 'less',
    limits: [0, 80],
    protocols: [
      {
        at: 'prone',
        modes: ['passive', 'active'],
        start: 'Face down, thighs together, pelvis flat; the knee bends.',
        put: tape('back of the heel', 'buttock, straight across'),
        hold: 'pelvis flat',
        fakes: ['hip lifts', 'thigh drifts out', 'low back arches'],
        feel: ['soft', 'firm'],
        figure: between('lyingDownKneeBent', 'heel', 'buttock'),
      },
      {
        at: 'standing',
        modes: ['active', 'passive'],
        start: 'Standing, a hand on a support, the heel is drawn to the buttock.',
        put: tape('back of the heel', 'buttock, straight across'),
        hold: 'thighs together, pelvis tucked',
        fakes: ['low back arches', 'thigh drifts forward'],
        feel: ['soft', 'firm'],
        not: 'Never compare with prone.',
        figure: between('standingKneeBent', 'heel', 'buttock'),
      },
    ],
  }),
  taped('heelHeightDifference', {
    name: 'Heel height difference',
    better: 'less',
    sides: 'midline',
    limits: [0, 20],
    protocols: [
      {
        at: 'prone',
        modes: ['passive'],
        start: 'Face down, knees just past the edge, legs hanging relaxed.',
        put: tape('the higher heel', 'level of the lower heel'),
        hold: 'thighs flat',
        fakes: ['hip turns', 'pelvis tilts'],
        not: 'One centimetre goes with about 1° of lost knee extension: an estimate, never a measured angle.',
        figure: between('lyingDown', 'heel', 'ankle'),
        source: { cite: 'Schlegel et al. 2002', fromMemory: true },
      },
    ],
  }),
  taped('fingerToFloor', {
    name: 'Finger to floor',
    better: 'less',
    sides: 'midline',
    limits: [-40, 100],
    plus: HEEL,
    minus: { long: '% past the floor', short: 'past %' },
    protocols: [
      {
        at: 'standing',
        modes: BOTH,
        start: 'Standing on a box, feet together, knees straight; bending forward, arms hanging.',
        put: tape('tip of the middle finger', 'floor (box edge)'),
        hold: 'knees straight',
        fakes: ['knees bend', 'one shoulder reaches'],
        twoJoint: 'Hamstrings and back together: it does not tell which.',
        not: 'It is not a lumbar reading: the hips take part.',
        figure: between('standingBent', 'fingertip', 'floor'),
      },
    ],
  }),
  taped('lateralFingertipTravel', {
    name: 'Sideways fingertip travel',
    sides: 'limb',
    limits: [0, 45],
    protocols: [
      {
        at: 'standing',
        modes: ['active'],
        start: 'Standing, back to a wall, arms hanging; a mark at the fingertip on the thigh, then bending to that side.',
        put: tape('first fingertip mark', 'fingertip mark at the end'),
        hold: 'both feet flat, back at the wall',
        fakes: ['trunk bends forward', 'heel lifts', 'knee bends'],
        trap: 'The side is the one the trunk moves to.',
        figure: between('back', 'wrist', 'knee'),
      },
    ],
  }),
  taped('handsBehindBack', {
    name: 'Both hands behind the back',
    limits: [-60, 30],
    plus: { long: 'fingers overlap by %', short: 'overlap %' },
    minus: { long: 'a gap of %', short: 'gap %' },
    protocols: [
      {
        at: 'standing',
        modes: ['active', 'passive'],
        start: 'Standing, one hand over the shoulder, the other from below; both reach for each other.',
        put: tape('tip of the upper middle finger', 'tip of the lower middle finger; overlap counts up, a gap down'),
        hold: 'trunk upright',
        fakes: ['trunk leans', 'low back arches', 'shoulder tips forward'],
        trap: 'The side is that of the upper arm.',
        trials: 2,
        summary: 'best',
        figure: between('handsBehind', 'upperHand', 'lowerHand'),
        source: { cite: 'Rikli & Jones 1999', fromMemory: true },
      },
    ],
  }),
  taped('handBehindBackFromAbove', {
    name: 'Hand over the shoulder to the far blade',
    better: 'less',
    limits: [-10, 60],
    minus: { long: '% past it', short: 'past %' },
    protocols: [reach('above')],
  }),
  taped('handBehindBackFromBelow', {
    name: 'Hand behind the back to the far blade',
    better: 'less',
    limits: [-10, 60],
    minus: { long: '% past it', short: 'past %' },
    protocols: [reach('below')],
  }),
  taped('schober15', {
    name: 'Lumbar skin stretch, 15 cm line',
    sides: 'midline',
    limits: [-5, 15],
    zeroIs: 'neutral',
    protocols: [
      {
        at: 'standing',
        modes: ['active'],
        start:
          'Standing; a mark on the line through the back pelvic dimples and one 15 cm above; then bending forward. What is read is the increase.',
        put: tape('line through the back pelvic dimples', 'mark 15 cm above, at the end of the bend, less 15 cm'),
        hold: 'knees straight',
        fakes: ['knees bend'],
        not: 'Three ways of marking exist: never compare one with another.',
        figure: between('standingSide', 'line15', 'sacrum'),
      },
    ],
  }),
  taped('schoberModified', {
    name: 'Lumbar skin stretch, 5 below and 10 above',
    sides: 'midline',
    limits: [-5, 15],
    protocols: [
      {
        at: 'standing',
        modes: ['active'],
        start:
          'Standing; marks 5 cm below and 10 cm above the line through the back pelvic dimples; then bending forward. What is read is the increase.',
        put: tape('mark 5 cm below the dimples', 'mark 10 cm above, at the end of the bend, less 15 cm'),
        hold: 'knees straight',
        fakes: ['knees bend'],
        not: 'Three ways of marking exist: never compare one with another.',
        figure: between('standingSide', 'line15', 'hip'),
      },
    ],
  }),
  taped('tragusToWall', {
    name: 'Ear to wall',
    better: 'less',
    sides: 'midline',
    limits: [0, 60],
    protocols: [
      {
        at: 'standing',
        modes: ['active'],
        start: 'Standing, heels and buttocks at the wall, chin tucked, drawing the head back.',
        put: tape('front of the ear (tragus)', 'wall; mean of both sides'),
        hold: 'heels at the wall',
        fakes: ['chin lifts', 'low back arches'],
        figure: between('wallStanding', 'tragus', 'wallPoint'),
      },
    ],
  }),
  taped('occiputToWall', {
    name: 'Back of the head to wall',
    better: 'less',
    sides: 'midline',
    limits: [0, 40],
    protocols: [
      {
        at: 'standing',
        modes: ['active'],
        start: 'Standing, heels and buttocks at the wall, chin level.',
        put: tape('back of the head', 'wall'),
        hold: 'heels at the wall',
        fakes: ['chin lifts'],
        figure: between('wallStanding', 'occiput', 'wallPoint'),
      },
    ],
  }),
  taped('chestExpansion', {
    name: 'Chest expansion',
    sides: 'midline',
    limits: [0, 15],
    protocols: [
      {
        at: 'standing',
        modes: ['active'],
        start: 'Standing, hands on the head, tape round the chest at the fourth rib space; full breath out, then in.',
        put: tape('girth after a full breath out', 'girth after a full breath in'),
        hold: 'tape level',
        fakes: ['trunk arches', 'shoulders shrug'],
        trials: 2,
        summary: 'best',
        figure: { kind: 'ring', scene: 'front', at: 'chest', width: 62, tilt: 0 },
      },
    ],
  }),
  taped('chinToSternum', {
    name: 'Chin to breastbone',
    better: 'less',
    sides: 'midline',
    limits: [0, 15],
    protocols: [
      {
        at: 'sitting',
        modes: ['active'],
        start: 'Sitting, trunk supported, mouth shut, chin to chest.',
        put: tape('point of the chin', 'notch of the breastbone'),
        hold: 'trunk',
        fakes: ['mouth opens', 'upper back bends'],
        caution: 'Ask first about dizziness, numbness and recent injury.',
        figure: between('sittingSide', 'chin', 'notch'),
      },
    ],
  }),
  taped('intermalleolar', {
    name: 'Between the ankles, legs apart',
    sides: 'midline',
    limits: [0, 220],
    protocols: [
      {
        at: 'supine',
        modes: ['active'],
        start: 'Face up, knees straight, legs moved as far apart as they go, toes up.',
        put: tape('inner ankle bone', 'the other inner ankle bone'),
        hold: 'pelvis flat',
        fakes: ['legs turn out', 'knees bend'],
        figure: between('planSupine', 'ankle', 'ankleR'),
      },
    ],
  }),
  taped('acromionToTable', {
    name: 'Shoulder to table',
    better: 'less',
    limits: [0, 20],
    protocols: [
      {
        at: 'supine',
        modes: ['passive'],
        start: 'Face up, arms at the sides, relaxed.',
        put: tape('back edge of the acromion', 'table'),
        hold: 'nothing: it is a resting height',
        fakes: ['trunk rolls'],
        not: 'Over 2.5 cm is called short by some, but people without complaint average about 6 cm.',
        figure: between('lyingUp', 'acromion', 'tableTop'),
        source: { cite: 'Sahrmann 2002; Lewis & Valentine 2007', fromMemory: true },
      },
    ],
  }),
  taped('thumbOpposition', {
    name: 'Thumb to the base of the little finger',
    better: 'less',
    limits: [0, 12],
    protocols: [
      {
        at: 'sitting',
        modes: ['active', 'passive'],
        start: 'Sitting, palm up, the thumb reaches across.',
        put: tape('tip of the thumb', 'crease at the base of the little finger'),
        hold: 'fifth metacarpal',
        fakes: ['finger bends to meet it', 'wrist moves'],
        feel: ['soft', 'firm'],
        figure: between('palm', 'tip', 'littleMcp'),
      },
    ],
  }),
  taped('pulpToCrease', {
    name: 'Fingertip to palm crease',
    better: 'less',
    perDigit: true,
    limits: [0, 15],
    protocols: [
      {
        at: 'sitting',
        modes: ['active', 'passive'],
        start: 'Sitting, wrist neutral, making a fist.',
        put: tape('pulp of the finger', 'far crease of the palm'),
        hold: 'wrist neutral',
        fakes: ['wrist bends'],
        feel: ['soft', 'firm'],
        figure: between('fingerHooked', 'tip', 'crease'),
      },
    ],
  }),
  ...(['legLength', 'legLengthApparent'] as const).map((id) =>
    taped(id, {
      name: id === 'legLength' ? 'Leg length' : 'Leg length, apparent',
      better: 'neither',
      limits: [30, 140],
      protocols: [
        {
          at: 'supine',
          modes: BOTH,
          start: 'Face up, pelvis square, legs parallel and in the same position.',
          put: tape(id === 'legLength' ? 'front pelvic bone (ASIS)' : 'navel', 'inner ankle bone'),
          hold: 'pelvis square',
          fakes: ['pelvis tilts', 'leg drifts'],
          feel: [],
          trials: 2,
          not:
            id === 'legLength'
              ? 'Take the mean of two: a single one agrees poorly with a radiograph.'
              : 'It differs from the true length when the pelvis is tilted.',
          figure: between('lyingUp', id === 'legLength' ? 'asis' : 'navel', 'ankle'),
          source: { cite: 'Beattie et al. 1990', fromMemory: true },
        },
      ],
    }),
  ),
];
