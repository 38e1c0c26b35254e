import { endFigure } from '../angle/words.js';
import { errorLine, finding, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

/** Repeated trials that do not agree. The value is kept and marked. */
export const inconsistentTrials: Detector = ({ measured }) =>
  measured.flatMap((m) => {
    if (m.consistent !== false) return [];
    const low = endFigure(Math.min(...m.ends));
    const high = endFigure(Math.max(...m.ends));
    return [
      finding(m, {
        kind: 'inconsistent-trials',
        severity: 'mild',
        verdict: `trials run from ${low} to ${high}°: measure again`,
        because: [
          trialArithmetic(m),
          m.ends.length < 3
            ? 'the two trials lie further than 5° or 10 % from their mean'
            : 'no three trials in a row lie within 5° or 10 % of their mean',
          errorLine(m),
        ],
      }),
    ];
  });
