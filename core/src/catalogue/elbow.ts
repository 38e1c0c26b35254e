import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const PUT = arms(
  'lateral epicondyle of the upper arm',
  'outer mid-line of the upper arm, towards the acromion',
  'outer mid-line of the forearm, towards the radial styloid',
  'forearm just above the wrist; check that the upper arm is level',
);
const FORE = ['wrist', 'hand'];
const flexed = {
  put: PUT,
  hold: 'end of the upper arm',
  fakes: ['shoulder bends forward', 'forearm turns in'],
  feel: ['soft', 'hard'],
  twoJoint: 'Long head of triceps: keep the shoulder at 0°, not overhead.',
} as const;
const straight = {
  put: PUT,
  hold: 'upper arm on the towel',
  fakes: ['shoulder goes back', 'shoulder blade moves'],
  feel: ['hard'],
  twoJoint: 'Long head of biceps: shoulder at 0° or bent, never behind the body; forearm neutral.',
} as const;
const LYING = 'Face up, arm at the side, palm up, a folded towel under the end of the upper arm.';
const SITTING = 'Sitting, upper arm hanging at the side, palm forward.';

export const ELBOW: readonly Motion[] = [
  defineMotion('elbow.flexion', {
    name: 'Elbow flexion',
    short: 'Flexion',
    plane: 'S',
    opposite: 'extension',
    limits: [-30, 170],
    zeroIs: 'straight',
    protocols: [
      {
        ...flexed,
        at: 'supine',
        swing: 'vertical',
        start: LYING,
        dial: [270, 1, 160, 30],
        figure: turn('lyingUp', 'elbow', FORE, 'shoulder', 110),
      },
      {
        ...flexed,
        at: 'sitting',
        swing: 'vertical',
        start: SITTING,
        dial: [180, 1, 160, 30],
        figure: turn('sittingSide', 'elbow', FORE, 'shoulder', 110),
      },
      {
        ...flexed,
        at: 'standing',
        swing: 'vertical',
        start: 'Standing, upper arm hanging at the side, palm forward.',
        dial: [180, 1, 160, 30],
        figure: turn('standingSide', 'elbow', FORE, 'shoulder', 110),
      },
    ],
  }),
  defineMotion('elbow.extension', {
    name: 'Elbow extension',
    short: 'Extension',
    plane: 'S',
    opposite: 'flexion',
    limits: [-140, 30],
    zeroIs: 'straight',
    hyper: true,
    protocols: [
      {
        ...straight,
        at: 'supine',
        swing: 'vertical',
        start: LYING,
        dial: [270, -1, 30, 150],
        figure: turn('lyingUp', 'elbow', FORE, 'shoulder', 0),
      },
      {
        ...straight,
        at: 'sitting',
        swing: 'vertical',
        start: SITTING,
        dial: [180, -1, 30, 150],
        figure: turn('sittingSide', 'elbow', FORE, 'shoulder', 0),
      },
      {
        ...straight,
        at: 'standing',
        swing: 'vertical',
        start: 'Standing, upper arm hanging at the side, palm forward.',
        dial: [180, -1, 30, 150],
        figure: turn('standingSide', 'elbow', FORE, 'shoulder', 0),
      },
    ],
  }),
];
