import { finding, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

/** The chosen set is silent. Another set is named, never used in its place. */
export const noNorm: Detector = ({ measured, comparisons, normSet }) =>
  measured.flatMap((m) => {
    const all = comparisons.get(m.key) ?? [];
    if (all.some((c) => c.set === normSet.id)) return [];
    const others = all.map((c) => `${c.setName} ${c.expected}°`).join(', ');
    return [
      finding(m, {
        kind: 'no-norm',
        severity: 'note',
        verdict: `no norm in ${normSet.short}`,
        because: [
          trialArithmetic(m),
          `${normSet.title} has no value for this motion`,
          others ? `other installed sets, not used here: ${others}` : 'no other installed set has one either',
        ],
      }),
    ];
  });
