import { formatNumber, formatSigned } from '../angle/words.js';
import { measurementKey } from '../assessment.js';
import { mdcOfDifference } from '../error/sem.js';
import { shortfall } from '../norms/index.js';
import { errorLine, finding, motionOf, operand, sizeWords, trialArithmetic, unitOf } from './make.js';
import { weigh } from './severity.js';
import type { Detector, Thresholds } from './types.js';
import type { MeasuredValue } from '../measurement.js';

/** The clinic's least difference for this reading: fixed, or for a force a share of the better side. */
function threshold(better: MeasuredValue, { sideDifference }: Thresholds): number {
  const { unit } = motionOf(better);
  if (unit === 'yesNo') return Infinity;
  if (unit === 'N') return sideDifference.N * better.value;
  // Times of a stance differ by much between two tries: a share of the better side as well.
  return unit === 's' ? Math.max(sideDifference.s, STANCE_SHARE * better.value) : sideDifference[unit];
}

/** @see proposal from memory, confidence low */
const STANCE_SHARE = 0.3;

/**
 * The lesser side, when the sides differ by more than the error of a
 * difference and more than the clinic's threshold. Symmetric is not normal:
 * this says nothing about two sides that are both short. Where neither more
 * nor less is good (a girth), the smaller side is named.
 */
export const shortOfOtherSide: Detector = ({ measured, byKey, involvedSide, stopped, thresholds, arcs }) =>
  measured.flatMap((m) => {
    const side = m.measurement.side;
    if (side === 'midline' || stopped.has(m.key)) return [];
    const other = byKey.get(measurementKey({ ...m.measurement, side: side === 'left' ? 'right' : 'left' }));
    if (!other) return [];
    const { better } = motionOf(m);
    const way = better === 'neither' ? 'more' : better;
    const gap = shortfall(other.value, m.value, way);
    if (gap <= 0) return [];
    const mdc = mdcOfDifference(m.sem, other.sem);
    const least = threshold(other, thresholds);
    if (gap <= Math.max(mdc, least)) return [];
    const [left, right] = side === 'left' ? [m, other] : [other, m];
    const oneInvolved = involvedSide === 'left' || involvedSide === 'right';
    const [from, to, words] =
      involvedSide === 'right'
        ? [right, left, 'right (involved) − left']
        : [left, right, oneInvolved ? 'left (involved) − right' : 'left − right'];
    const weight = weigh({ value: m.value, expected: other.value, better: way, unit: motionOf(m).unit, mdc }, thresholds);
    const otherWord = side === 'left' ? 'right' : 'left';
    const unit = unitOf(m);
    const arc = arcs.find(
      (a) => a.motions.includes(m.measurement.motion) && a.mode === m.measurement.mode && a.position === m.measurement.position,
    );
    return [
      finding(m, {
        kind: 'short-of-other-side',
        severity: weight.severity,
        expected: other.value,
        percentLoss: weight.percentLoss,
        timesError: weight.timesError,
        verdict: `${sizeWords(m, gap)} ${way === 'less' ? 'more' : 'less'} than the ${otherWord} side`,
        because: [
          `this side: ${trialArithmetic(m)}`,
          `${otherWord} side: ${trialArithmetic(other)}`,
          `${words}: ${operand(from, from.value)} − ${operand(to, to.value)} = ${formatSigned(from.value - to.value)}${unit}`,
          `more than the error of a difference (1.96·√(${formatNumber(m.sem)}² + ${formatNumber(other.sem)}²) = ${formatNumber(mdc)}${unit}) and the clinic's threshold of ${formatNumber(least)}${unit}`,
          errorLine(m),
          ...(arc ? [`the whole arc, ${arc.name.toLowerCase()}: ${arc.words}`] : []),
        ],
      }),
    ];
  });
