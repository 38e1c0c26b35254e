import type { Source } from '../terms.js';
import { defineMotion } from './define.js';
import type { Motion } from './types.js';

const SOURCE: Source = { cite: 'single-leg stance: Springer et al. 2007', fromMemory: true };

export const BALANCE: readonly Motion[] = (['EyesOpen', 'EyesClosed'] as const).map((eyes) =>
  defineMotion(`balance.singleLegStance${eyes}`, {
    name: `Single-leg stance, eyes ${eyes === 'EyesOpen' ? 'open' : 'closed'}`,
    unit: 's',
    limits: [0, 180],
    protocols: [
      {
        at: 'standing',
        modes: ['active'],
        by: ['stopwatch', 'visual'],
        swing: 'none',
        start: `Barefoot, arms crossed over the chest${eyes === 'EyesClosed' ? ', eyes closed before the foot leaves the floor' : ', eyes on a spot ahead'}; the other foot is lifted near the ankle, not touching it.`,
        put: {
          how: 'clock',
          starts: 'when the foot leaves the floor',
          stops: 'when the arms uncross, the foot touches, the standing foot moves, the eyes open, or after 45 s',
        },
        hold: 'nothing: stand close enough to catch',
        fakes: ['arms uncross', 'legs touch', 'standing foot hops', 'trunk sways far'],
        feel: [],
        summary: 'best',
        caution: 'Stand beside the patient, a support within reach; not with dizziness today.',
        trap: 'The side is the standing leg.',
        figure: { kind: 'stand', scene: 'oneLeg' },
        source: SOURCE,
      },
    ],
  }),
);
