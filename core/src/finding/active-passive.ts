import { formatNumber, formatWhole } from '../angle/words.js';
import { measurementKey } from '../assessment.js';
import { mdcOfDifference } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import { errorLine, finding, operand, trialArithmetic } from './make.js';
import { percentLoss, severityOf } from './severity.js';
import type { Detector, Evidence } from './types.js';

/** Active readings with the passive one of the same motion, side and position. */
function pairs({ measured, byKey }: Evidence): { active: MeasuredValue; passive: MeasuredValue; mdc: number }[] {
  return measured.flatMap((active) => {
    if (active.measurement.mode !== 'active') return [];
    const passive = byKey.get(measurementKey({ ...active.measurement, mode: 'passive' }));
    return passive ? [{ active, passive, mdc: mdcOfDifference(active.sem, passive.sem) }] : [];
  });
}

const arithmetic = (active: MeasuredValue, passive: MeasuredValue, mdc: number): string[] => [
  `active: ${trialArithmetic(active)}`,
  `passive: ${trialArithmetic(passive)}`,
  `passive − active: ${operand(passive.value)} − ${operand(active.value)} = ${formatNumber(passive.value - active.value)}°; error of a difference ${formatNumber(mdc)}°`,
  errorLine(active),
];

/** Range that is there when helped but not under the person's own power. */
export const activeShortOfPassive: Detector = (evidence) =>
  pairs(evidence).flatMap(({ active, passive, mdc }) => {
    const { activeGap, activeGapShare } = evidence.thresholds;
    const gap = passive.value - active.value;
    const limit = Math.max(mdc, activeGap, activeGapShare * Math.abs(passive.value));
    if (gap <= limit) return [];
    const loss = percentLoss(active.value, passive.value);
    return [
      finding(active, {
        kind: 'active-short-of-passive',
        severity: severityOf(loss, gap / mdc, evidence.thresholds),
        expected: passive.value,
        percentLoss: loss,
        timesError: gap / mdc,
        verdict: `${formatWhole(gap)}° less than passive`,
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
    const gap = active.value - passive.value;
    if (gap <= mdc) return [];
    return [
      finding(active, {
        kind: 'active-beyond-passive',
        severity: 'moderate',
        expected: passive.value,
        timesError: gap / mdc,
        verdict: `${formatWhole(gap)}° more than passive: measure both again`,
        because: [...arithmetic(active, passive, mdc), 'a helped motion goes at least as far: position, guarding or a slip of the hand'],
      }),
    ];
  });
