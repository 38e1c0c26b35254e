import { formatNumber, formatSigned, rounded } from '../angle/words.js';
import { changeBetween, isLoss } from './change.js';
import { endWords, finding, motionOf, operand, sizeWords, trialArithmetic, unitOf } from './make.js';
import type { Detector } from './types.js';

/** Against the last visit: a real change, or one that measuring error covers. */
export const changed: Detector = ({ measured, previous, errors }) =>
  measured.flatMap((m) => {
    const before = previous?.byKey.get(m.key);
    if (!before || !previous) return [];
    const c = changeBetween(before, m, errors);
    const real = c.verdict !== 'within-error';
    const unit = unitOf(m);
    const verdict = real
      ? `${sizeWords(m, Math.abs(c.change))} ${c.verdict} than last time`
      : `${formatSigned(rounded(c.change, motionOf(m).unit))}${unit} since last time, within measuring error`;
    return [
      finding(m, {
        kind: real ? 'changed' : 'within-error',
        severity: isLoss(c) ? 'mild' : 'note',
        expected: before.value,
        timesError: Math.abs(c.change) / c.mdc,
        verdict,
        ...(real ? { brief: `${sizeWords(m, Math.abs(c.change))} ${c.verdict}` } : {}),
        because: [
          trialArithmetic(m),
          `on ${previous.on}: ${endWords(before)}`,
          `${operand(m, m.value)} − ${operand(before, before.value)} = ${formatSigned(c.change)}${unit}; a change counts from ${formatNumber(c.mdc)}${unit} (MDC95, ${c.errorSource})`,
          ...c.caveats,
        ],
      }),
    ];
  });
