import { TOLERANCE, TOLERANCE_SHARE } from '../error/consistency.js';
import { endFigure, suffixOf } from '../words/figures.js';
import { say } from '../words/say.js';
import { motion } from '../catalogue/index.js';
import { errorStep, found, motionOf } from './make.js';
import { note, readings } from './steps.js';
import { TO_MEASURE_AGAIN } from './sums.js';
import type { Kind } from './types.js';

/** From where to where the trials run. */
interface Facts {
  readonly low: number;
  readonly high: number;
}

/** Repeated trials that do not agree. The value is kept and marked. */
export const inconsistentTrials: Kind<Facts> = {
  stage: 'again',
  rank: 0,
  mark: 'again',
  detect: ({ measured }) =>
    measured.flatMap((m) => {
      if (m.consistent !== false) return [];
      const { unit } = motionOf(m);
      return [
        found(m, {
          severity: 'mild',
          facts: { low: Math.min(...m.ends), high: Math.max(...m.ends) },
          steps: [
            readings(m),
            note(
              m.ends.length < 3
                ? 'the two trials lie further than {size} or {share} % from their mean'
                : 'no three trials in a row lie within {size} or {share} % of their mean',
              { size: { value: TOLERANCE[unit], unit }, share: TOLERANCE_SHARE * 100 },
            ),
            errorStep(m),
          ],
        }),
      ];
    }),
  verdict: (f) => {
    const about = motion(f.motion);
    return say('trials run from {low} to {high}: measure again', {
      low: endFigure(f.facts.low, about),
      high: `${endFigure(f.facts.high, about)}${suffixOf(f.unit)}`,
    });
  },
  sum: TO_MEASURE_AGAIN,
};
