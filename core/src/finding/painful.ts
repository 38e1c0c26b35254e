import type { Severity } from '../terms.js';
import { say } from '../words/say.js';
import { found } from './make.js';
import { readingsOf } from './opposite-pain.js';
import { note, readings } from './steps.js';
import { nameOf, once } from './sums.js';
import type { Found, Kind } from './types.js';

/** How much of ten, and where, in the words of whoever asked. */
interface Facts {
  readonly pain: number;
  readonly where: string | null;
}

/** @see common practice, no source: 1–3 mild, 4–6 moderate, 7–10 marked */
function painSeverity(pain: number): Severity {
  if (pain <= 3) return 'mild';
  return pain <= 6 ? 'moderate' : 'marked';
}

const amount = ({ facts: { pain, where } }: Found<Facts>): string =>
  where ? say('{pain} of 10, {where}', { pain, where }) : say('{pain} of 10', { pain });

/** Pain beats range: painful and full is not fine. */
export const painful: Kind<Facts> = {
  stage: 'pain',
  rank: 0,
  mark: 'pain',
  telling: true,
  ofAnswers: true,
  detect: ({ measured }) =>
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
          found(m, {
            severity: painSeverity(pain),
            facts: { pain, where: painWhere || null },
            steps: [
              readings(m),
              note('pain {pain} of 10 during this motion', { pain }),
              ...(bothHurt ? [note('active and passive hurt in the same direction: speaks against contractile tissue')] : []),
              note('pain is handled before range; stop where it hurts'),
            ],
          }),
        ];
      }),
  stands: (_, { pain }) => (pain ?? 0) > 0,
  verdict: (f) => say('hurts, {amount}', { amount: amount(f) }),
  brief: amount,
  sum: {
    at: 3,
    words: (all) =>
      all.length
        ? say('Hurts: {where}.', {
            where: once(all)
              .map((f) => `${nameOf(f)} (${f.brief})`)
              .join('; '),
          })
        : say('No pain was noted while measuring.'),
  },
};
