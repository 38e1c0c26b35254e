import { formatNumber, formatSigned, formatWhole } from '../angle/words.js';
import { agreement, type NormComparison, type NormFlag } from '../norms/index.js';
import { errorLine, finding, operand, trialArithmetic } from './make.js';
import { percentLoss, severityOf } from './severity.js';
import type { Detector } from './types.js';

const FLAG_WORDS: Readonly<Record<NormFlag, string>> = {
  'other-mode': 'norm is for the other mode; shown, not counted',
  'other-position': 'norm is for another position; shown, not counted',
  'other-sex': 'norm is for the other sex, or sex not known',
  'nearest-age': 'no band for this age; the nearest is used',
};

/** What does not fit between a norm and this reading, in words. */
export function flagWords(flags: readonly NormFlag[]): string[] {
  return flags.map((flag) => FLAG_WORDS[flag]);
}

function normLine(norm: NormComparison): string {
  const { low, high } = norm.expectedBand;
  const spread = low < high ? `, expected band ${formatNumber(low)}–${formatNumber(high)}` : ', a single figure without spread';
  const score = norm.z === null ? '' : `, z ${formatSigned(norm.z)}`;
  return `${norm.setName}: ${formatNumber(norm.expected)}°, ${norm.band}${spread}${score} — ${norm.source}; confidence ${norm.confidence}`;
}

/** Below what the chosen norm set expects. */
export const shortOfNormal: Detector = ({ measured, comparisons, normSet, thresholds }) =>
  measured.flatMap((m) => {
    const all = comparisons.get(m.key) ?? [];
    const norm = all.find((c) => c.set === normSet.id);
    if (!norm?.short) return [];
    const loss = percentLoss(m.value, norm.expected);
    const timesError = norm.deficit / m.mdc95;
    const votes = agreement(all);
    const voice =
      votes.of === 0
        ? 'no installed set has a norm for this mode and position'
        : `${votes.short} of ${votes.of} norm sets for this mode and position call it short`;
    return [
      finding(m, {
        kind: 'short-of-normal',
        severity: severityOf(loss, timesError, thresholds),
        expected: norm.expected,
        percentLoss: loss,
        timesError,
        agreement: votes,
        verdict: `${formatWhole(norm.deficit)}° short of the expected ${formatWhole(norm.expected)}°`,
        because: [
          trialArithmetic(m),
          normLine(norm),
          ...flagWords(norm.flags),
          `${formatNumber(norm.expected)} − ${operand(m.value)} = ${formatNumber(norm.deficit)}°` +
            (loss === null ? '' : `, a loss of ${formatNumber(loss)} %`) +
            `, ${formatNumber(timesError)} × the measuring error`,
          errorLine(m),
          voice,
        ],
      }),
    ];
  });
