import { arms, defineMotion, INCLINOMETRY, turn } from './define.js';
import type { Motion } from './types.js';

const DIZZY =
  'Ask first about dizziness, double vision, fainting, trouble with speech or swallowing, numbness, recent injury, long steroid use and inflammatory arthritis. Any of them: do not measure, refer.';
const SEAT =
  'Sitting with the back supported, hands holding the seat so that the trunk stays still; base of the nose level with the base of the ear.';
const SITES = 'top of the head, and the bony point at the base of the neck (T1); neck = head − T1';
const BY = ['goniometer', 'inclinometer', 'dualInclinometer', 'phone', 'picture', 'visual'] as const;
const nod = {
  at: 'sitting',
  by: BY,
  swing: 'vertical',
  start: SEAT,
  put: arms('opening of the ear', 'plumb', 'base of the nose', SITES),
  hold: 'trunk and shoulders',
  caution: DIZZY,
} as const;

export const CERVICAL: readonly Motion[] = [
  defineMotion('cervical.flexion', {
    name: 'Neck flexion',
    short: 'Flexion',
    plane: 'S',
    sides: 'midline',
    opposite: 'extension',
    limits: [-40, 110],
    protocols: [
      {
        ...nod,
        fakes: ['upper back bends', 'chin pokes forward', 'mouth opens'],
        twoJoint: 'Upper trapezius and levator: rest the arms, mouth closed.',
        dial: [0, -1, 90, 100],
        figure: turn('sittingSide', 'neck', ['head', 'crown', 'nose', 'ear'], 0, 45, { sites: ['crown', 'c7'] }),
      },
    ],
  }),
  defineMotion('cervical.extension', {
    name: 'Neck extension',
    short: 'Extension',
    plane: 'S',
    sides: 'midline',
    opposite: 'flexion',
    limits: [-40, 130],
    protocols: [
      {
        ...nod,
        fakes: ['upper back arches', 'trunk leans back'],
        feel: ['firm', 'hard'],
        twoJoint: 'Front neck muscles: let the mouth open slightly.',
        dial: [0, 1, 110, 90],
        figure: turn('sittingSide', 'neck', ['head', 'crown', 'nose', 'ear'], 0, 50, { sites: ['crown', 'c7'] }),
      },
    ],
  }),
  defineMotion('cervical.lateralFlexion', {
    name: 'Neck lateral flexion',
    short: 'Lateral flexion',
    plane: 'F',
    sides: 'towards',
    opposite: null,
    limits: [-40, 80],
    protocols: [
      {
        at: 'sitting',
        by: BY,
        swing: 'vertical',
        start: SEAT,
        put: arms('spine of C7', 'plumb, along the upper back', 'back mid-line of the head', SITES),
        hold: 'the opposite shoulder down',
        fakes: ['shoulder lifts', 'trunk leans', 'head turns'],
        twoJoint: 'Upper trapezius: support the arm.',
        caution: DIZZY,
        trap: 'The side is the one the ear moves to.',
        dial: [0, -1, 70, 70],
        figure: turn('back', 'neck', ['head', 'crown'], 0, 40, { sites: ['crown', 'neck'] }),
      },
    ],
  }),
  defineMotion('cervical.rotation', {
    name: 'Neck rotation',
    short: 'Rotation',
    plane: 'R',
    sides: 'towards',
    opposite: null,
    limits: [-60, 120],
    protocols: [
      {
        at: 'sitting',
        swing: 'horizontal',
        start: SEAT,
        put: arms('top of the head', 'parallel to the line of the shoulders', 'towards the tip of the nose'),
        hold: 'shoulders',
        fakes: ['trunk turns', 'shoulder lifts', 'head tilts'],
        caution: DIZZY,
        trap: 'The side is the one the nose moves to.',
        not: 'It turns about a plumb axis: no inclinometer reads it in sitting. Take it supine; never compare the two.',
        dial: [0, -1, 100, 100],
        figure: turn('headFromAbove', 'middle', ['nose', 'front'], 'shoulderR', 60),
      },
      {
        at: 'supine',
        by: ['inclinometer', 'phone', 'visual'],
        swing: 'vertical',
        start: 'Face up, head on the table without a pillow, nose to the ceiling.',
        put: { how: 'sites', upper: 'across the forehead; zero with the nose straight up' },
        hold: 'shoulders flat',
        fakes: ['shoulder lifts', 'head tilts'],
        caution: DIZZY,
        trap: 'The side is the one the nose moves to.',
        not: 'Lying and sitting readings differ: never compare the two.',
        dial: [0, -1, 100, 100],
        figure: turn('headEnd', 'middle', ['nose'], 0, 60),
        source: INCLINOMETRY,
      },
      {
        at: 'supine',
        variant: 'flexed',
        variantLabel: 'neck fully bent',
        modes: ['passive'],
        by: ['goniometer', 'visual'],
        swing: 'horizontal',
        start: 'Face up, the neck bent fully forward and held there; then turned.',
        put: arms('top of the head', 'line of the shoulders', 'towards the tip of the nose'),
        hold: 'the full bend',
        fakes: ['bend is lost', 'head tilts'],
        caution: DIZZY,
        trap: 'The side is the one the nose moves to.',
        not: 'It isolates the upper neck, about 44° a side; the plane is tilted, so an inclinometer reads too little. Never compare with free rotation.',
        dial: [0, -1, 70, 70],
        figure: turn('headEnd', 'middle', ['nose'], 0, 40),
      },
    ],
  }),
];
