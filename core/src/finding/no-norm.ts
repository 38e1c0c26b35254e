import { describeEnd } from '../angle/words.js';
import { findNormSet } from '../norms/index.js';
import { finding, motionOf, trialArithmetic } from './make.js';
import { notJudged } from './silence.js';
import type { Detector } from './types.js';

/** No set of the clinic's order has a comparable value: it is not judged, and that is said. What does not fit is named, never used in its place. */
export const noNorm: Detector = (evidence) =>
  evidence.measured.flatMap((m) => {
    if (notJudged(m, evidence)?.reason !== 'no-comparable-norm') return [];
    const about = motionOf(m);
    const all = evidence.comparisons.get(m.key) ?? [];
    const others = all.map((c) => `${c.setName} ${describeEnd(about, c.expected)}`).join(', ');
    const thumb =
      about.perDigit && m.measurement.digit === 1 ? ['the thumb has joints of its own: its values stand under thumbMcp and thumbIp'] : [];
    const asked = evidence.order.flatMap((id) => findNormSet(id)?.short ?? []);
    return [
      finding(m, {
        kind: 'no-norm',
        severity: 'note',
        verdict: 'not judged: no norm that may be compared with it',
        because: [
          trialArithmetic(m),
          `none of the sets that are asked (${asked.length > 3 ? `${asked.slice(0, 3).join(', ')} and ${asked.length - 3} more` : asked.join(', ')}) has a value for this motion, mode, position, way of measuring and age`,
          ...thumb,
          others
            ? `shown and not used, for another mode, position, way or age: ${others}`
            : 'no installed set has any value for this motion',
        ],
      }),
    ];
  });
