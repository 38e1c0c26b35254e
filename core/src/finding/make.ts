import { describeEnd, endFigure, formatNumber, formatSize, rounded, suffixOf } from '../angle/words.js';
import { isDual, isTilt, isValue, type Trial } from '../assessment.js';
import { motion, protocolOf, type Motion } from '../catalogue/index.js';
import type { MeasuredValue } from '../measurement.js';
import type { Digit, Mode, MotionId, Side } from '../terms.js';
import type { Unplaced } from './types.js';

const SIDE_WORD: Readonly<Record<Side, string>> = { left: 'Left', right: 'Right', midline: '' };
const DIGIT_WORD: Readonly<Record<Digit, string>> = { 1: 'thumb', 2: 'index', 3: 'middle finger', 4: 'ring finger', 5: 'little finger' };

/** The motion of a measured value, and with it its unit and words. */
export function motionOf(measured: MeasuredValue): Motion {
  return motion(measured.measurement.motion);
}

/** "Left hip internal rotation": side and motion; the finger where there is one; for the spine, the way moved. */
export function sidedName(id: MotionId, side: Side, digit?: Digit): string {
  const { name, sides, perDigit } = motion(id);
  if (side === 'midline') return name;
  if (sides === 'towards') return `${name} to the ${side}`;
  const finger = perDigit && digit ? `${DIGIT_WORD[digit]}, ` : '';
  return `${SIDE_WORD[side]} ${finger}${name.charAt(0).toLowerCase()}${name.slice(1)}`;
}

/** "Left hip internal rotation, passive": with the mode where it says something. */
export function modedName(id: MotionId, side: Side, mode: Mode, digit?: Digit): string {
  return `${sidedName(id, side, digit)}${motion(id).unit === 'deg' ? `, ${mode}` : ''}`;
}

/** "Left hip internal rotation, passive 19°": what a finding is about. */
export function subjectOf(measured: MeasuredValue): string {
  const { motion: id, side, digit, mode } = measured.measurement;
  const protocol = protocolOf(measured.measurement);
  // A girth or a knee to the wall is neither active nor passive; a variant has to be told from the usual way.
  const how = [motion(id).unit === 'deg' ? mode : '', protocol.variant ? protocol.label : ''].filter(Boolean).join(', ');
  return `${sidedName(id, side, digit)},${how ? ` ${how}` : ''} ${endWords(measured, rounded(measured.value, motion(id).unit))}`;
}

/** The value of a measurement in words: never a bare signed extension. */
export function endWords(measured: MeasuredValue, value = measured.value): string {
  return describeEnd(motionOf(measured), value);
}

/** The size of a difference with its unit: `12°`, `1.5 cm`. */
export function sizeWords(measured: MeasuredValue, value: number): string {
  return formatSize(value, motionOf(measured).unit);
}

/** The unit after a figure: `°`, ` cm`. */
export function unitOf(measured: MeasuredValue): string {
  return suffixOf(motionOf(measured).unit);
}

function trialWords(measured: MeasuredValue, trial: Trial, index: number): string {
  if (isDual(trial)) {
    const { upper, lower } = trial;
    return `(${formatNumber(upper.end)} − ${formatNumber(upper.zero)}) − (${formatNumber(lower.end)} − ${formatNumber(lower.zero)})`;
  }
  if (isTilt(trial)) return `(${formatNumber(trial.tilt.zero)} → ${formatNumber(trial.tilt.end)} on the device)`;
  const kept = operand(measured, measured.ends[index]!);
  return isValue(trial) && trial.unit && trial.unit !== motionOf(measured).unit
    ? `${formatNumber(trial.value)} ${trial.unit} = ${kept}`
    : kept;
}

/** How the value came from the trials: "(30 + 32 + 31) ÷ 3 = 31". */
export function trialArithmetic(measured: MeasuredValue): string {
  const { trials, instrument } = measured.measurement;
  const sources = trials.map((trial, index) => trialWords(measured, trial, index));
  const value = operand(measured, measured.value);
  if (sources.length > 1 && measured.summary !== 'mean') return `${measured.summary} of ${sources.join(', ')} = ${value}, ${instrument}`;
  const sum = sources.length === 1 ? sources[0] : `(${sources.join(' + ')}) ÷ ${sources.length}`;
  return sum === value ? `one reading of ${value}, ${instrument}` : `${sum} = ${value}, ${instrument}`;
}

/** A value inside a sum; one that fell short of zero is said in words and bracketed. */
export function operand(measured: MeasuredValue, value: number): string {
  return value < 0 ? `(${endFigure(value, motionOf(measured))})` : formatNumber(value);
}

/** The error line every finding with a limit carries. */
export function errorLine(measured: MeasuredValue): string {
  const unit = unitOf(measured);
  return `measuring error: SEM ${formatNumber(measured.sem)}${unit}, MDC95 ${formatNumber(measured.mdc95)}${unit} (${measured.errorSource})`;
}

type Rest = Pick<Unplaced, 'kind' | 'severity' | 'verdict' | 'because'> &
  Partial<Pick<Unplaced, 'expected' | 'percentLoss' | 'timesError' | 'agreement' | 'subject' | 'brief'>>;

/** A finding about one measurement; the difference follows from value and expected. */
export function finding(measured: MeasuredValue, rest: Rest): Unplaced {
  const { motion: id, side, mode, position, digit } = measured.measurement;
  const expected = rest.expected ?? null;
  return {
    kind: rest.kind,
    severity: rest.severity,
    motion: id,
    side,
    mode,
    position,
    protocol: protocolOf(measured.measurement).id,
    digit,
    unit: motion(id).unit,
    value: measured.value,
    expected,
    difference: expected === null ? null : measured.value - expected,
    percentLoss: rest.percentLoss ?? null,
    timesError: rest.timesError ?? null,
    agreement: rest.agreement ?? null,
    subject: rest.subject ?? subjectOf(measured),
    verdict: rest.verdict,
    brief: rest.brief ?? rest.verdict,
    because: rest.because,
  };
}
