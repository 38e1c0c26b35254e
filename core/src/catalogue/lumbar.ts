import type { Motion } from './types.js';

export const LUMBAR: readonly Motion[] = [
  {
    id: 'lumbar.flexion',
    joint: 'lumbar',
    plane: 'S',
    name: 'Lumbar flexion',
    short: 'Flexion',
    opposite: null,
    limits: { min: -20, max: 110 },
    zeroIs: 'neutral',
    pastZeroIsHyper: false,
    protocols: [
      {
        id: 'lumbar.flexion/standing',
        version: 1,
        motion: 'lumbar.flexion',
        position: 'standing',
        modes: ['active'],
        instruments: ['dualInclinometer'],
        startingPosition: 'Standing, weight on both feet, knees straight, arms hanging.',
        axis: 'upper site: 15 cm above the line through the back pelvic dimples; lower site: on the sacrum',
        stationaryArm: 'set both to zero in standing',
        movingArm: 'read both at the end of the bend; lumbar = upper − lower',
        stabilise: 'knees straight',
        substitutions: [{ id: 'knee-bends', label: 'knee bends' }],
        endFeel: ['firm'],
        twoJoint: 'Hamstrings hold the pelvis back: read the sacral site as well.',
        source: { cite: 'two-inclinometer method, AMA Guides, 4th ed.; 15 cm line: common practice', fromMemory: true },
      },
    ],
  },
];
