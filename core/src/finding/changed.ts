import { formatNumber, formatSigned, formatWhole } from '../angle/words.js';
import { changeBetween } from './change.js';
import { endWords, finding, operand, trialArithmetic } from './make.js';
import type { Detector } from './types.js';

/** Against the last visit: a real change, or one that measuring error covers. */
export const changed: Detector = ({ measured, previous }) =>
  measured.flatMap((m) => {
    const before = previous?.byKey.get(m.key);
    if (!before || !previous) return [];
    const c = changeBetween(before, m);
    const real = c.verdict !== 'within-error';
    const size = formatWhole(Math.abs(c.change));
    const verdict = real
      ? `${size}° ${c.verdict === 'more' ? 'more' : 'less'} than last time`
      : `${formatSigned(Math.round(c.change))}° since last time, within measuring error`;
    return [
      finding(m, {
        kind: real ? 'changed' : 'within-error',
        severity: c.verdict === 'less' ? 'mild' : 'note',
        expected: before.value,
        timesError: Math.abs(c.change) / c.mdc,
        verdict,
        because: [
          trialArithmetic(m),
          `on ${previous.on}: ${endWords(before)}`,
          `${operand(m.value)} − ${operand(before.value)} = ${formatSigned(c.change)}°; a change counts from ${formatNumber(c.mdc)}° (MDC95)`,
          ...c.caveats,
        ],
      }),
    ];
  });
