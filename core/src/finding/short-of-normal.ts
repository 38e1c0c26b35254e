import { agreement } from '../norms/index.js';
import { motion } from '../catalogue/index.js';
import { describeEnd, formatSize } from '../words/figures.js';
import { say } from '../words/say.js';
import { errorStep, found, motionOf, sizeOf } from './make.js';
import { weigh } from './severity.js';
import { readings, type Step } from './steps.js';
import { wherePhrase } from './sums.js';
import type { Kind } from './types.js';

/** The set that judged it, and how far short of it: for a distance that should be small, how far above it. */
interface Facts {
  readonly set: string;
  readonly setName: string;
  readonly deficit: number;
  readonly less: boolean;
}

/** Below what the norm that judges expects; above it, for a distance that should be small. */
export const shortOfNormal: Kind<Facts> = {
  stage: 'loss',
  rank: 1,
  mark: 'gap',
  wants: 'loss',
  joins: true,
  opens: true,
  telling: true,
  detect: ({ measured, comparisons, judging, needs, stopped, thresholds }) =>
    measured.flatMap((m) => {
      const norm = judging.get(m.key);
      if (!norm?.short || stopped.has(m.key)) return [];
      const { id, unit, better } = motionOf(m);
      const less = better === 'less';
      const weight = weigh({ value: norm.value, expected: norm.expected, better, unit, mdc: m.mdc95, motion: id }, thresholds);
      const votes = agreement(comparisons.get(m.key) ?? []);
      const [from, take] = less ? [norm.value, norm.expected] : [norm.expected, norm.value];
      const tasks = needs.get(m.key) ?? [];
      const steps: Step[] = [readings(m)];
      if (norm.value !== m.value) steps.push({ step: 'counted', motion: id, value: norm.value });
      steps.push({ step: 'norm', motion: id, norm });
      if (norm.flags.length) steps.push({ step: 'flags', flags: norm.flags });
      const { percentLoss, timesError } = weight;
      steps.push({ step: 'difference', motion: id, from, take, is: norm.deficit, percentLoss, timesError });
      steps.push(errorStep(m), { step: 'votes', short: votes.short, of: votes.of });
      if (tasks.length) steps.push({ step: 'tasks', needs: tasks });
      return [
        found(m, {
          severity: weight.severity,
          expected: norm.expected,
          percentLoss,
          timesError,
          agreement: votes,
          facts: { set: norm.set, setName: norm.setName, deficit: norm.deficit, less },
          steps,
        }),
      ];
    }),
  stands: ({ expected, facts: { less } }, { value }) => expected !== null && (less ? value > expected : value < expected),
  verdict: (f) => {
    const { less, deficit, setName } = f.facts;
    const expected = f.expected ?? 0;
    return say(less ? '{size} more than {expected}, by {set}' : '{size} short of {expected}, by {set}', {
      size: sizeOf(f, deficit),
      expected: !less && expected < 0 ? describeEnd(motion(f.motion), expected) : formatSize(expected, f.unit),
      set: setName,
    });
  },
  sum: { at: 0, words: (all) => wherePhrase('Short of normal: {where}.', all) },
};
