import { endFigure } from '../angle/words.js';
import { toleranceWords } from '../error/consistency.js';
import { errorLine, finding, motionOf, trialArithmetic, unitOf } from './make.js';
import type { Detector } from './types.js';

/** Repeated trials that do not agree. The value is kept and marked. */
export const inconsistentTrials: Detector = ({ measured }) =>
  measured.flatMap((m) => {
    if (m.consistent !== false) return [];
    const about = motionOf(m);
    const low = endFigure(Math.min(...m.ends), about);
    const high = endFigure(Math.max(...m.ends), about);
    return [
      finding(m, {
        kind: 'inconsistent-trials',
        severity: 'mild',
        verdict: `trials run from ${low} to ${high}${unitOf(m)}: measure again`,
        because: [
          trialArithmetic(m),
          m.ends.length < 3
            ? `the two trials lie further than ${toleranceWords(about.unit)} from their mean`
            : `no three trials in a row lie within ${toleranceWords(about.unit)} of their mean`,
          errorLine(m),
        ],
      }),
    ];
  });
