import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const HAND = ['mcp', 'pip', 'dip', 'tip'];
const SIDE = arms(
  'little-finger side of the wrist, over the triquetrum',
  'outer mid-line of the ulna, towards the elbow',
  'outer mid-line of the fifth metacarpal',
  'back of the third metacarpal',
);
const TOP = arms(
  'back of the wrist, over the capitate',
  'mid-line of the forearm, towards the lateral epicondyle',
  'back of the third metacarpal',
);
const START = 'Sitting, forearm palm-down on the table, hand over the edge.';
const deviation = {
  at: 'sitting',
  swing: 'horizontal',
  start: 'Sitting, forearm and hand palm-down, flat on the table.',
  put: TOP,
  hold: 'forearm',
  fakes: ['elbow moves', 'wrist bends'],
} as const;
const tilted = {
  ...deviation,
  variant: 'thumb-up',
  variantLabel: 'thumb up',
  swing: 'vertical',
  by: ['inclinometer', 'phone', 'visual'],
  start: 'Sitting, forearm on the table on its little-finger side, thumb up, hand over the edge.',
  put: arms('wrist', 'forearm, level', 'second metacarpal', 'along the second metacarpal; zero in line with the forearm'),
} as const;

export const WRIST: readonly Motion[] = [
  defineMotion('wrist.flexion', {
    name: 'Wrist flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-80, 110],
    protocols: [
      {
        at: 'sitting',
        swing: 'vertical',
        start: START,
        put: SIDE,
        hold: 'radius and ulna on the table',
        fakes: ['hand deviates', 'forearm turns'],
        twoJoint: 'Long finger extensors: keep the fingers relaxed, not in a fist.',
        dial: [270, -1, 100, 90],
        figure: turn('handSide', 'wrist', HAND, 'elbow', 65),
      },
    ],
  }),
  defineMotion('wrist.extension', {
    name: 'Wrist extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-90, 120],
    protocols: [
      {
        at: 'sitting',
        swing: 'vertical',
        start: START,
        put: SIDE,
        hold: 'radius and ulna on the table',
        fakes: ['hand deviates', 'forearm turns'],
        twoJoint: 'Long finger flexors: let the fingers bend.',
        dial: [270, 1, 100, 90],
        figure: turn('handSide', 'wrist', HAND, 'elbow', 60),
      },
      {
        at: 'quadruped',
        variant: 'loaded',
        variantLabel: 'weight on the palms',
        modes: ['active'],
        swing: 'vertical',
        start: 'On hands and knees, palms flat under the shoulders, elbows straight; the shoulders move forward past the hands.',
        put: arms(
          'little-finger side of the wrist',
          'level, along the hand on the floor',
          'outer mid-line of the forearm',
          'back of the forearm; zero with the forearm in line with the hand',
        ),
        hold: 'heel of the hand on the floor',
        fakes: ['heel of the hand lifts', 'elbow bends', 'fingers curl'],
        not: 'Body weight adds to it: never compare with an unloaded reading.',
        dial: [90, -1, 120, 20],
        figure: turn('quadruped', 'wrist', ['elbow', 'shoulder'], 270, 100, { zeroAt: 90 }),
      },
    ],
  }),
  ...(['radialDeviation', 'ulnarDeviation'] as const).map((which) => {
    const radial = which === 'radialDeviation';
    const feel = radial ? (['hard'] as const) : (['firm'] as const);
    const [on, back] = radial ? [40, 60] : [60, 40];
    return defineMotion(`wrist.${which}`, {
      name: radial ? 'Wrist radial deviation' : 'Wrist ulnar deviation',
      short: radial ? 'Radial deviation' : 'Ulnar deviation',
      plane: 'F',
      opposite: radial ? 'ulnarDeviation' : 'radialDeviation',
      limits: radial ? [-50, 60] : [-40, 80],
      protocols: [
        {
          ...deviation,
          feel,
          dial: [0, radial ? 1 : -1, on, back],
          figure: turn(
            'handTop',
            'wrist',
            ['mid', 'middle', 'index', 'indexMcp', 'ring', 'little', 'littleMcp', 'thumbMcp', 'thumb'],
            'forearm',
            radial ? 20 : 30,
          ),
        },
        { ...tilted, feel, dial: [270, radial ? 1 : -1, on, back], figure: turn('handSide', 'wrist', HAND, 'elbow', radial ? 20 : 30) },
      ],
    });
  }),
];
