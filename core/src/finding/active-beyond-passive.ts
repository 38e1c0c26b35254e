import { shortfall } from '../norms/index.js';
import { say } from '../words/say.js';
import { activePairs, pairSteps } from './active-pairs.js';
import { found, motionOf, sizeOf } from './make.js';
import { note } from './steps.js';
import { TO_MEASURE_AGAIN } from './sums.js';
import type { Kind } from './types.js';

interface Facts {
  readonly gap: number;
  readonly less: boolean;
}

/** Cannot be: a joint goes at least as far when helped. One of the two wants measuring again. */
export const activeBeyondPassive: Kind<Facts> = {
  stage: 'again',
  rank: 0,
  mark: 'again',
  detect: (evidence) =>
    activePairs(evidence).flatMap((pair) => {
      const { active, passive, mdc } = pair;
      const { better } = motionOf(active);
      const gap = shortfall(active.value, passive.value, better);
      if (gap <= mdc) return [];
      return [
        found(active, {
          severity: 'moderate',
          expected: passive.value,
          timesError: gap / mdc,
          facts: { gap, less: better === 'less' },
          steps: [...pairSteps(pair), note('a helped motion goes at least as far: position, guarding or a slip of the hand')],
        }),
      ];
    }),
  verdict: (f) =>
    say(f.facts.less ? '{size} less than passive: measure both again' : '{size} more than passive: measure both again', {
      size: sizeOf(f, f.facts.gap),
    }),
  sum: TO_MEASURE_AGAIN,
};
