import { shortfall } from '../norms/index.js';
import { say } from '../words/say.js';
import { activePairs, pairSteps } from './active-pairs.js';
import { found, motionOf, sizeOf } from './make.js';
import { weigh } from './severity.js';
import { note } from './steps.js';
import { wherePhrase } from './sums.js';
import type { Kind } from './types.js';

/** How far the active end stays behind, and whether behind means more (a distance). */
interface Facts {
  readonly gap: number;
  readonly less: boolean;
}

/** Range that is there when helped but not under the person's own power. */
export const activeShortOfPassive: Kind<Facts> = {
  stage: 'loss',
  rank: 2,
  mark: 'inner',
  wants: 'control',
  joins: true,
  opens: true,
  telling: true,
  detect: (evidence) =>
    activePairs(evidence).flatMap((pair) => {
      const { active, passive, mdc } = pair;
      const { activeGap, activeGapShare } = evidence.thresholds;
      const { better } = motionOf(active);
      if (evidence.stopped.has(active.key)) return [];
      const gap = shortfall(passive.value, active.value, better);
      const limit = Math.max(mdc, activeGap, activeGapShare * Math.abs(passive.value));
      if (gap <= limit) return [];
      const weight = weigh({ value: active.value, expected: passive.value, better, mdc }, evidence.thresholds);
      return [
        found(active, {
          severity: weight.severity,
          expected: passive.value,
          percentLoss: weight.percentLoss,
          timesError: weight.timesError,
          facts: { gap, less: better === 'less' },
          steps: [
            ...pairSteps(pair),
            note(
              'more than the largest of error, {gap} and {share} %: points to strength or control at the end of range rather than stiffness',
              { gap: { value: activeGap, unit: 'deg' }, share: activeGapShare * 100 },
            ),
          ],
        }),
      ];
    }),
  verdict: (f) => say(f.facts.less ? '{size} more than passive' : '{size} less than passive', { size: sizeOf(f, f.facts.gap) }),
  sum: { at: 2, words: (all) => wherePhrase('Active clearly less than passive: {where}.', all) },
};
