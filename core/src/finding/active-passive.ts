import { formatNumber } from '../angle/words.js';
import { measurementKey } from '../assessment.js';
import { mdcOfDifference } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import { shortfall } from '../norms/index.js';
import { errorLine, finding, motionOf, operand, sizeWords, trialArithmetic, unitOf } from './make.js';
import { weigh } from './severity.js';
import type { Detector, Evidence } from './types.js';

/** Active readings with the passive one of the same motion, side and position. */
function pairs({ measured, byKey }: Evidence): { active: MeasuredValue; passive: MeasuredValue; mdc: number }[] {
  return measured.flatMap((active) => {
    // Only a joint angle has an active and a passive end that say something beside each other.
    if (active.measurement.mode !== 'active' || motionOf(active).unit !== 'deg') return [];
    const passive = byKey.get(measurementKey({ ...active.measurement, mode: 'passive' }));
    return passive ? [{ active, passive, mdc: mdcOfDifference(active.sem, passive.sem) }] : [];
  });
}

const arithmetic = (active: MeasuredValue, passive: MeasuredValue, mdc: number): string[] => [
  `active: ${trialArithmetic(active)}`,
  `passive: ${trialArithmetic(passive)}`,
  `passive − active: ${operand(passive, passive.value)} − ${operand(active, active.value)} = ${formatNumber(passive.value - active.value)}${unitOf(active)}; error of a difference ${formatNumber(mdc)}${unitOf(active)}`,
  errorLine(active),
];

/** Range that is there when helped but not under the person's own power. */
export const activeShortOfPassive: Detector = (evidence) =>
  pairs(evidence).flatMap(({ active, passive, mdc }) => {
    const { activeGap, activeGapShare } = evidence.thresholds;
    const { better } = motionOf(active);
    if (evidence.stopped.has(active.key)) return [];
    const gap = shortfall(passive.value, active.value, better);
    const limit = Math.max(mdc, activeGap, activeGapShare * Math.abs(passive.value));
    if (gap <= limit) return [];
    const weight = weigh({ value: active.value, expected: passive.value, better, mdc }, evidence.thresholds);
    return [
      finding(active, {
        kind: 'active-short-of-passive',
        severity: weight.severity,
        expected: passive.value,
        percentLoss: weight.percentLoss,
        timesError: weight.timesError,
        verdict: `${sizeWords(active, gap)} ${better === 'less' ? 'more' : 'less'} than passive`,
        because: [
          ...arithmetic(active, passive, mdc),
          `more than the largest of error, ${formatNumber(activeGap)}° and ${formatNumber(activeGapShare * 100)} %: points to strength or control at the end of range rather than stiffness`,
        ],
      }),
    ];
  });

/** Cannot be: a joint goes at least as far when helped. One of the two wants measuring again. */
export const activeBeyondPassive: Detector = (evidence) =>
  pairs(evidence).flatMap(({ active, passive, mdc }) => {
    const { better } = motionOf(active);
    const gap = shortfall(active.value, passive.value, better);
    if (gap <= mdc) return [];
    return [
      finding(active, {
        kind: 'active-beyond-passive',
        severity: 'moderate',
        expected: passive.value,
        timesError: gap / mdc,
        verdict: `${sizeWords(active, gap)} ${better === 'less' ? 'less' : 'more'} than passive: measure both again`,
        because: [...arithmetic(active, passive, mdc), 'a helped motion goes at least as far: position, guarding or a slip of the hand'],
      }),
    ];
  });
