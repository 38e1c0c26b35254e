import { arms, defineMotion, turn } from './define.js';
import type { Motion } from './types.js';

const START = 'Upper arm at the side, elbow bent to 90°, thumb up: that is zero.';
const TRAP = 'Zero is thumb up, not palm up.';

const pronation = (at: 'sitting' | 'supine' | 'standing') =>
  ({
    at,
    swing: at === 'supine' ? 'horizontal' : 'vertical',
    start: `${at === 'supine' ? 'Face up. ' : at === 'sitting' ? 'Sitting. ' : 'Standing. '}${START}`,
    put: arms(
      'outer side of the ulnar styloid',
      'parallel to the upper arm',
      'back of the forearm, just above both styloids',
      'back of the forearm, just above the wrist',
    ),
    hold: 'elbow to the side',
    fakes: ['arm lifts out', 'wrist turns'],
    feel: ['hard', 'firm'],
    trap: TRAP,
    not: 'A pencil in the fist exaggerates: never compare with a reading on the forearm.',
    dial: [0, -1, 110, 110],
    figure: turn('forearmEnd', 'wrist', ['thumb'], 0, 75),
  }) as const;
const supination = (at: 'sitting' | 'supine' | 'standing') =>
  ({
    at,
    swing: at === 'supine' ? 'horizontal' : 'vertical',
    start: `${at === 'supine' ? 'Face up. ' : at === 'sitting' ? 'Sitting. ' : 'Standing. '}${START}`,
    put: arms(
      'inner side of the ulnar styloid',
      'parallel to the upper arm',
      'palm side of the forearm, just above both styloids',
      'palm side of the forearm, just above the wrist',
    ),
    hold: 'elbow to the side',
    fakes: ['elbow moves in', 'trunk leans', 'wrist turns'],
    twoJoint: 'Biceps pulls differently with the elbow’s angle: keep 90°.',
    trap: TRAP,
    dial: [0, 1, 110, 110],
    figure: turn('forearmEnd', 'wrist', ['thumb'], 0, 80),
  }) as const;

export const FOREARM: readonly Motion[] = [
  defineMotion('forearm.pronation', {
    name: 'Forearm pronation',
    short: 'Pronation',
    plane: 'R',
    opposite: 'supination',
    limits: [-80, 120],
    protocols: [pronation('sitting'), pronation('standing'), pronation('supine')],
  }),
  defineMotion('forearm.supination', {
    name: 'Forearm supination',
    short: 'Supination',
    plane: 'R',
    opposite: 'pronation',
    limits: [-80, 130],
    protocols: [supination('sitting'), supination('standing'), supination('supine')],
  }),
];
