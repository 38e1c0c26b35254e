import { describeEnd, formatNumber, formatSigned, formatSize, suffixOf } from '../angle/words.js';
import type { Motion } from '../catalogue/index.js';
import { agreement, needWords, type NormComparison, type NormFlag } from '../norms/index.js';
import { errorLine, finding, motionOf, operand, sizeWords, trialArithmetic } from './make.js';
import { weigh } from './severity.js';
import type { Detector } from './types.js';

const FLAG_WORDS: Readonly<Record<NormFlag, string>> = {
  'other-mode': 'norm is for the other mode; shown, not counted',
  'other-position': 'norm is for another position; shown, not counted',
  'other-protocol': 'norm is for another way of measuring; shown, not counted',
  'other-sex': 'norm is for the other sex, or sex not known',
  'nearest-age': 'no band for this age; the nearest is shown, not counted',
};

/** What does not fit between a norm and this reading, in words. */
export function flagWords(flags: readonly NormFlag[]): string[] {
  return flags.map((flag) => FLAG_WORDS[flag]);
}

function normLine(norm: NormComparison, motion: Motion): string {
  const { low, high } = norm.expectedBand;
  const spread =
    norm.kind === 'mean'
      ? ', a mean whose spread between people is not known'
      : low < high
        ? `, expected band ${formatNumber(low)}–${formatNumber(high)}`
        : ', a single figure without spread';
  const score = norm.z === null ? '' : `, z ${formatSigned(norm.z)}`;
  const note = norm.note ? ` (${norm.note})` : '';
  return `${norm.setName}: ${describeEnd(motion, norm.expected)}, ${norm.band}${spread}${score}${note} — ${norm.source}; confidence ${norm.confidence}`;
}

/** Below what the norm that judges expects; above it, for a distance that should be small. */
export const shortOfNormal: Detector = ({ measured, comparisons, judging, needs, stopped, thresholds }) =>
  measured.flatMap((m) => {
    const all = comparisons.get(m.key) ?? [];
    const norm = judging.get(m.key);
    if (!norm?.short || stopped.has(m.key)) return [];
    const about = motionOf(m);
    const unit = suffixOf(about.unit);
    const less = about.better === 'less';
    const weight = weigh(
      { value: norm.value, expected: norm.expected, better: about.better, unit: about.unit, mdc: m.mdc95, motion: about.id },
      thresholds,
    );
    const votes = agreement(all);
    const voice =
      votes.of === 0
        ? 'no installed set has a norm for this mode, position and way of measuring'
        : `${votes.short} of ${votes.of} norm sets for this mode and position call it short`;
    const [from, take] = less ? [norm.value, norm.expected] : [norm.expected, norm.value];
    const tasks = needWords(needs.get(m.key) ?? []);
    return [
      finding(m, {
        kind: 'short-of-normal',
        severity: weight.severity,
        expected: norm.expected,
        percentLoss: weight.percentLoss,
        timesError: weight.timesError,
        agreement: votes,
        verdict: less
          ? `${sizeWords(m, norm.deficit)} more than ${formatSize(norm.expected, about.unit)}, by ${norm.setName}`
          : `${sizeWords(m, norm.deficit)} short of ${expectedWords(norm.expected, about)}, by ${norm.setName}`,
        because: [
          trialArithmetic(m),
          ...(norm.value === m.value ? [] : [`counted as this source counts its readings: ${operand(m, norm.value)}${unit}`]),
          normLine(norm, about),
          ...flagWords(norm.flags),
          `${operand(m, from)} − ${operand(m, take)} = ${formatNumber(norm.deficit)}${unit}` +
            (weight.percentLoss === null ? '' : `, a loss of ${formatNumber(weight.percentLoss)} %`) +
            `, ${formatNumber(weight.timesError)} × the measuring error`,
          errorLine(m),
          voice,
          ...(tasks ? [`${tasks} (what tasks ask differs between people)`] : []),
        ],
      }),
    ];
  });

const expectedWords = (expected: number, about: Motion): string =>
  expected < 0 ? describeEnd(about, expected) : formatSize(expected, about.unit);
