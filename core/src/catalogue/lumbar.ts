import { defineMotion, dual, turn } from './define.js';
import type { Motion } from './types.js';

const SITES = dual('15 cm above the line through the back pelvic dimples', 'on the sacrum; lumbar = upper − lower');
const SOURCE = { cite: 'two-inclinometer method, AMA Guides, 4th ed.; 15 cm line: common practice', fromMemory: true };
const common = {
  at: 'standing',
  modes: ['active'],
  by: ['dualInclinometer'],
  swing: 'vertical',
  start: 'Standing, weight on both feet, knees straight, arms hanging; both set to zero there.',
  put: SITES,
  source: SOURCE,
} as const;
const FLAGS = 'New numbness, weakness, bladder or bowel change, a fracture or an unstable segment: do not measure, refer.';
const TOP = ['t12', 'line15', 'c7', 'neck', 'head', 'crown', 'ear', 'nose', 'shoulder', 'elbow', 'wrist', 'hand'];

export const LUMBAR: readonly Motion[] = [
  defineMotion('lumbar.flexion', {
    name: 'Lumbar flexion',
    short: 'Flexion',
    plane: 'S',
    sides: 'midline',
    opposite: 'extension',
    limits: [-20, 110],
    protocols: [
      {
        ...common,
        hold: 'knees straight',
        fakes: ['knees bend', 'hips slide back'],
        twoJoint: 'Hamstrings hold the pelvis back: read the sacral site as well.',
        not: 'A negative remainder means a misplaced site: read again, never cut it to 0.',
        caution: FLAGS,
        dial: [0, -1, 90, 50],
        figure: turn('standingSide', 'sacrum', TOP, 'knee', 50, { sites: ['line15', 'sacrum'] }),
      },
    ],
  }),
  defineMotion('lumbar.extension', {
    name: 'Lumbar extension',
    short: 'Extension',
    plane: 'S',
    sides: 'midline',
    opposite: 'flexion',
    limits: [-50, 70],
    protocols: [
      {
        ...common,
        hold: 'pelvis',
        fakes: ['hips push forward', 'knees bend'],
        feel: ['firm', 'hard'],
        caution: FLAGS,
        dial: [0, 1, 50, 60],
        figure: turn('standingSide', 'sacrum', TOP, 'knee', 22, { sites: ['line15', 'sacrum'] }),
      },
      {
        ...common,
        at: 'prone',
        variant: 'press-up',
        variantLabel: 'press-up',
        modes: ['passive'],
        start: 'Face down, hands under the shoulders; the arms press the trunk up, the hips stay down. Both set to zero lying flat.',
        hold: 'front of the hips on the table',
        fakes: ['hips lift', 'shoulders shrug'],
        not: 'Never compare with standing.',
        caution: FLAGS,
        dial: [270, 1, 60, 20],
        figure: turn('lyingDownPressUp', 'hip', ['shoulder', 'neck', 'head', 'elbow', 'wrist', 'hand'], 'knee', 32),
      },
    ],
  }),
  defineMotion('lumbar.lateralFlexion', {
    name: 'Lumbar lateral flexion',
    short: 'Lateral flexion',
    plane: 'F',
    sides: 'towards',
    opposite: null,
    limits: [-30, 60],
    protocols: [
      {
        ...common,
        hold: 'weight equal on both feet',
        fakes: ['trunk bends forward', 'heel lifts', 'hips slide'],
        trap: 'The side is the one the trunk moves to.',
        caution: FLAGS,
        dial: [0, -1, 50, 50],
        figure: turn(
          'back',
          's2',
          ['t12', 'c7', 'neck', 'head', 'crown', 'shoulder', 'shoulderR', 'elbow', 'elbowR', 'wrist', 'wristR'],
          180,
          22,
          { sites: ['t12', 's2'] },
        ),
      },
    ],
  }),
  defineMotion('lumbar.rotation', {
    name: 'Lumbar rotation',
    short: 'Rotation',
    plane: 'R',
    sides: 'towards',
    opposite: null,
    limits: [-30, 60],
    protocols: [
      {
        ...common,
        at: 'quadruped',
        start: 'On hands and knees, trunk level; both set to zero there.',
        put: dual('across the back at the 15 cm line', 'across the sacrum; lumbar = upper − lower'),
        hold: 'pelvis square',
        fakes: ['pelvis turns', 'trunk leans', 'upper back turns only'],
        trap: 'The side is the one the chest turns to.',
        not: 'In standing it turns about a plumb axis: no inclinometer reads it there. Skin moves: readings from outside greatly overstate the true rotation of about 5–7° a side.',
        caution: FLAGS,
        dial: [0, -1, 50, 50],
        figure: turn('backFromHeadEnd', 'middle', ['up', 'shoulder', 'shoulderR', 'elbow'], 0, 20),
      },
    ],
  }),
];
