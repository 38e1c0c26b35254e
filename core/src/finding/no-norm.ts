import { describeEnd } from '../angle/words.js';
import { finding, motionOf, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

/** The chosen set is silent. Another set is named, never used in its place. */
export const noNorm: Detector = ({ measured, comparisons, normSet }) =>
  measured.flatMap((m) => {
    const all = comparisons.get(m.key) ?? [];
    if (all.some((c) => c.set === normSet.id)) return [];
    const about = motionOf(m);
    // A girth or a leg length is held against the other side and itself alone.
    if (about.better === 'neither') return [];
    const others = all.map((c) => `${c.setName} ${describeEnd(about, c.expected)}`).join(', ');
    const thumb =
      about.perDigit && m.measurement.digit === 1 ? ['the thumb has joints of its own: its values stand under thumbMcp and thumbIp'] : [];
    return [
      finding(m, {
        kind: 'no-norm',
        severity: 'note',
        verdict: `no norm in ${normSet.short}`,
        because: [
          trialArithmetic(m),
          `${normSet.title} has no value for this motion`,
          ...thumb,
          others ? `other installed sets, not used here: ${others}` : 'no other installed set has one either',
        ],
      }),
    ];
  });
