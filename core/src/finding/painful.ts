import type { Severity } from '../terms.js';
import { finding, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

/** @see common practice, no source: 1–3 mild, 4–6 moderate, 7–10 marked */
function painSeverity(pain: number): Severity {
  if (pain <= 3) return 'mild';
  return pain <= 6 ? 'moderate' : 'marked';
}

/** Pain beats range: painful and full is not fine. */
export const painful: Detector = ({ measured }) =>
  measured.flatMap((m) => {
    const { pain, painWhere } = m.measurement;
    if (!pain) return [];
    return [
      finding(m, {
        kind: 'painful',
        severity: painSeverity(pain),
        verdict: `hurts, ${pain} of 10${painWhere ? `, ${painWhere}` : ''}`,
        because: [trialArithmetic(m), `pain ${pain} of 10 during this motion`, 'pain is handled before range; stop where it hurts'],
      }),
    ];
  });
