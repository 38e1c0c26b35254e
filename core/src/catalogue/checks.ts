import { COMMON_PRACTICE, type Mode, type Position } from '../terms.js';
import { defineMotion } from './define.js';
import type { Figure } from './figure/types.js';
import type { Motion } from './types.js';

interface Check {
  readonly id: string;
  readonly name: string;
  readonly at: Position;
  readonly start: string;
  /** Yes, when. */
  readonly yes: string;
  readonly faults: readonly string[];
  readonly midline?: boolean;
  readonly modes?: readonly Mode[];
  readonly caution?: string;
  readonly hold?: string;
  readonly figure: Figure;
}

const STAND_BY = 'Stand close enough to catch; stop on pain.';

/** Answered by eye: does it hold, and which faults were seen. @see common practice, no source */
const ALL: readonly Check[] = [
  {
    id: 'squatHeelsDown',
    name: 'Squat to level thighs, heels down',
    at: 'standing',
    start: 'Feet hip-wide, slightly turned out, arms held forward; down as far as is comfortable and up again.',
    yes: 'the thighs come level with both heels on the floor',
    faults: ['heels lift', 'knees roll in', 'pelvis tucks under', 'trunk drops forward', 'weight shifts to one side', 'arches drop'],
    midline: true,
    caution: STAND_BY,
    figure: { kind: 'stand', scene: 'standingSide' },
  },
  {
    id: 'stepDown',
    name: 'Step down from a low step',
    at: 'standing',
    start: 'Standing on a low step, the other heel taps the floor in front and comes back. The side is the standing leg.',
    yes: 'the knee stays over the foot and the pelvis level, three times',
    faults: ['knee rolls in', 'pelvis drops', 'trunk leans', 'balance lost', 'arch drops'],
    caution: STAND_BY,
    figure: { kind: 'stand', scene: 'oneLeg' },
  },
  {
    id: 'fistToWall',
    name: 'Knee to wall past a fist',
    at: 'standing',
    start: 'One fist between the toes and the wall; the knee goes to the wall with the heel down.',
    yes: 'the knee touches the wall with a fist between toes and wall',
    faults: ['heel lifts', 'knee rolls in', 'arch drops', 'foot turns out'],
    figure: { kind: 'stand', scene: 'lunge' },
  },
  {
    id: 'heelTouchesButtock',
    name: 'Heel touches the buttock',
    at: 'prone',
    start: 'Face down; the heel is brought to the buttock by hand.',
    yes: 'the heel touches with the pelvis flat on the table',
    faults: ['pelvis lifts', 'low back arches', 'thigh turns out'],
    modes: ['passive'],
    figure: { kind: 'stand', scene: 'lyingDown' },
  },
  {
    id: 'chinToChest',
    name: 'Chin to chest',
    at: 'sitting',
    start: 'Sitting tall, mouth closed; the chin goes to the chest.',
    yes: 'the chin touches the chest with the mouth closed',
    faults: ['mouth opens', 'upper back rounds'],
    midline: true,
    figure: { kind: 'stand', scene: 'sittingSide' },
  },
  {
    id: 'armsOverhead',
    name: 'Arms overhead, back flat',
    at: 'supine',
    start: 'Face up, knees bent, low back on the table; straight arms go overhead to the table.',
    yes: 'the arms reach the table with the back still on it',
    faults: ['ribs flare', 'low back arches', 'elbows bend'],
    figure: { kind: 'stand', scene: 'lyingUp' },
  },
];

export const CHECKS: readonly Motion[] = ALL.map((check) =>
  defineMotion(`check.${check.id}`, {
    name: check.name,
    unit: 'yesNo',
    better: 'neither',
    sides: check.midline ? 'midline' : 'limb',
    limits: [0, 1],
    protocols: [
      {
        at: check.at,
        modes: check.modes ?? ['active'],
        by: ['visual'],
        swing: 'none',
        start: check.start,
        put: { how: 'eye', yes: check.yes },
        hold: check.hold ?? 'nothing: watch',
        fakes: check.faults,
        feel: [],
        trials: 1,
        caution: check.caution,
        figure: check.figure,
        source: COMMON_PRACTICE,
      },
    ],
  }),
);
