import { describeEnd, endFigure, formatNumber } from '../angle/words.js';
import { isDual } from '../assessment.js';
import { motion } from '../catalogue/index.js';
import type { MeasuredValue } from '../measurement.js';
import type { Side } from '../terms.js';
import type { Finding } from './types.js';

const SIDE_WORD: Readonly<Record<Side, string>> = { left: 'Left', right: 'Right', midline: '' };

/** "Left hip internal rotation, passive 19°": what a finding is about. */
export function subjectOf(measured: MeasuredValue): string {
  const { motion: id, side, mode } = measured.measurement;
  const { name } = motion(id);
  const sided = side === 'midline' ? name : `${SIDE_WORD[side]} ${name.charAt(0).toLowerCase()}${name.slice(1)}`;
  return `${sided}, ${mode} ${endWords(measured, Math.round(measured.value))}`;
}

/** The value of a measurement in words: never a bare signed extension. */
export function endWords(measured: MeasuredValue, value = measured.value): string {
  return describeEnd(motion(measured.measurement.motion), value);
}

/** How the value came from the trials: "(30 + 32 + 31) ÷ 3 = 31". */
export function trialArithmetic(measured: MeasuredValue): string {
  const { trials, instrument } = measured.measurement;
  const sources = trials.map((trial) => {
    if (isDual(trial)) {
      const { upper, lower } = trial;
      return `(${formatNumber(upper.end)} − ${formatNumber(upper.zero)}) − (${formatNumber(lower.end)} − ${formatNumber(lower.zero)})`;
    }
    return operand(trial.end);
  });
  const sum = sources.length === 1 ? sources[0] : `(${sources.join(' + ')}) ÷ ${sources.length}`;
  const value = operand(measured.value);
  return sum === value ? `one reading of ${value}, ${instrument}` : `${sum} = ${value}, ${instrument}`;
}

/** A value inside a sum; one that fell short of zero is said in words and bracketed. */
export function operand(value: number): string {
  return value < 0 ? `(${endFigure(value)})` : formatNumber(value);
}

/** The error line every finding with a limit carries. */
export function errorLine(measured: MeasuredValue): string {
  return `measuring error: SEM ${formatNumber(measured.sem)}°, MDC95 ${formatNumber(measured.mdc95)}° (${measured.errorSource})`;
}

type Rest = Pick<Finding, 'kind' | 'severity' | 'verdict' | 'because'> &
  Partial<Pick<Finding, 'expected' | 'percentLoss' | 'timesError' | 'agreement'>>;

/** A finding about one measurement; the difference follows from value and expected. */
export function finding(measured: MeasuredValue, rest: Rest): Finding {
  const { motion: id, side, mode, position } = measured.measurement;
  const expected = rest.expected ?? null;
  return {
    kind: rest.kind,
    severity: rest.severity,
    motion: id,
    side,
    mode,
    position,
    value: measured.value,
    expected,
    difference: expected === null ? null : measured.value - expected,
    percentLoss: rest.percentLoss ?? null,
    timesError: rest.timesError ?? null,
    agreement: rest.agreement ?? null,
    subject: subjectOf(measured),
    verdict: rest.verdict,
    because: rest.because,
  };
}
