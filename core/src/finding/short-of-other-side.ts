import { formatNumber, formatSigned, formatWhole } from '../angle/words.js';
import { measurementKey } from '../assessment.js';
import { mdcOfDifference } from '../error/sem.js';
import { errorLine, finding, operand, trialArithmetic } from './make.js';
import { percentLoss, severityOf } from './severity.js';
import type { Detector } from './types.js';

/**
 * The lesser side, when the sides differ by more than the error of a
 * difference and more than the clinic's threshold. Symmetric is not normal:
 * this says nothing about two sides that are both short.
 */
export const shortOfOtherSide: Detector = ({ measured, byKey, involvedSide, thresholds }) =>
  measured.flatMap((m) => {
    const side = m.measurement.side;
    if (side === 'midline') return [];
    const other = byKey.get(measurementKey({ ...m.measurement, side: side === 'left' ? 'right' : 'left' }));
    if (!other || m.value >= other.value) return [];
    const mdc = mdcOfDifference(m.sem, other.sem);
    const gap = other.value - m.value;
    if (gap <= Math.max(mdc, thresholds.sideDifference)) return [];
    const [left, right] = side === 'left' ? [m, other] : [other, m];
    const oneInvolved = involvedSide === 'left' || involvedSide === 'right';
    const [from, to, words] =
      involvedSide === 'right'
        ? [right, left, 'right (involved) − left']
        : [left, right, oneInvolved ? 'left (involved) − right' : 'left − right'];
    const loss = percentLoss(m.value, other.value);
    const otherWord = side === 'left' ? 'right' : 'left';
    return [
      finding(m, {
        kind: 'short-of-other-side',
        severity: severityOf(loss, gap / mdc, thresholds),
        expected: other.value,
        percentLoss: loss,
        timesError: gap / mdc,
        verdict: `${formatWhole(gap)}° less than the ${otherWord} side`,
        because: [
          `this side: ${trialArithmetic(m)}`,
          `${otherWord} side: ${trialArithmetic(other)}`,
          `${words}: ${operand(from.value)} − ${operand(to.value)} = ${formatSigned(from.value - to.value)}°`,
          `more than the error of a difference (1.96·√(${formatNumber(m.sem)}² + ${formatNumber(other.sem)}²) = ${formatNumber(mdc)}°) and the clinic's threshold of ${formatNumber(thresholds.sideDifference)}°`,
          errorLine(m),
        ],
      }),
    ];
  });
