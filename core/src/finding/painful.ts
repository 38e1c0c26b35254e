import type { Severity } from '../terms.js';
import { finding, trialArithmetic } from './make.js';
import { readingsOf } from './opposite-pain.js';
import type { Detector } from './types.js';

/** @see common practice, no source: 1–3 mild, 4–6 moderate, 7–10 marked */
function painSeverity(pain: number): Severity {
  if (pain <= 3) return 'mild';
  return pain <= 6 ? 'moderate' : 'marked';
}

/** Pain beats range: painful and full is not fine. */
export const painful: Detector = ({ measured }) =>
  // The worst first: findings of one severity keep this order.
  [...measured]
    .sort((a, b) => (b.measurement.pain ?? 0) - (a.measurement.pain ?? 0))
    .flatMap((m) => {
      const { pain, painWhere, motion, side, digit, mode } = m.measurement;
      if (!pain) return [];
      const bothHurt = readingsOf(measured, { motion, side }, mode === 'active' ? 'passive' : 'active', digit).some(
        (o) => (o.measurement.pain ?? 0) > 0,
      );
      return [
        finding(m, {
          kind: 'painful',
          severity: painSeverity(pain),
          verdict: `hurts, ${pain} of 10${painWhere ? `, ${painWhere}` : ''}`,
          brief: `${pain} of 10${painWhere ? `, ${painWhere}` : ''}`,
          because: [
            trialArithmetic(m),
            `pain ${pain} of 10 during this motion`,
            ...(bothHurt ? ['active and passive hurt in the same direction: speaks against contractile tissue'] : []),
            'pain is handled before range; stop where it hurts',
          ],
        }),
      ];
    });
