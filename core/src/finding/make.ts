import { motion, protocolOf, type Motion } from '../catalogue/index.js';
import type { MeasuredValue } from '../measurement.js';
import type { Digit, Mode, MotionId, Side } from '../terms.js';
import { describeEnd, formatSize, rounded } from '../words/figures.js';
import { lower, say } from '../words/say.js';
import type { Step } from './steps.js';
import type { About, Found } from './types.js';

const DIGIT_WORD: Readonly<Record<Digit, string>> = { 1: 'thumb', 2: 'index', 3: 'middle finger', 4: 'ring finger', 5: 'little finger' };

/** "index", "thumb". */
export const digitWord = (digit: Digit): string => say(DIGIT_WORD[digit]);

/** The motion of a measured value, and with it its unit and words. */
export function motionOf(measured: Pick<MeasuredValue, 'measurement'>): Motion {
  return motion(measured.measurement.motion);
}

/** "Left hip internal rotation": side and motion; the finger where there is one; for the spine, the way moved. */
export function sidedName(id: MotionId, side: Side, digit?: Digit): string {
  const { name, sides, perDigit } = motion(id);
  const words = say(name);
  if (side === 'midline') return words;
  if (sides === 'towards') return say(side === 'left' ? '{motion} to the left' : '{motion} to the right', { motion: words });
  const finger = perDigit && digit ? `${digitWord(digit)}, ` : '';
  return say(side === 'left' ? 'Left {motion}' : 'Right {motion}', { motion: `${finger}${lower(words)}` });
}

export const modeWord = (mode: Mode): string => say(mode);

/** "Left hip internal rotation, passive": with the mode where it says something. */
export function modedName(id: MotionId, side: Side, mode: Mode, digit?: Digit): string {
  return `${sidedName(id, side, digit)}${motion(id).unit === 'deg' ? `, ${modeWord(mode)}` : ''}`;
}

/** "Left hip internal rotation, passive 19°": what a finding is about. */
export function subjectOf(about: Pick<About, 'motion' | 'side' | 'mode' | 'position' | 'protocol' | 'digit' | 'value'>): string {
  const { motion: id, side, digit, mode } = about;
  const protocol = protocolOf(about);
  // A girth or a knee to the wall is neither active nor passive; a variant has to be told from the usual way.
  const how = [motion(id).unit === 'deg' ? modeWord(mode) : '', protocol.variant ? say(protocol.label) : ''].filter(Boolean).join(', ');
  return `${sidedName(id, side, digit)},${how ? ` ${how}` : ''} ${describeEnd(motion(id), rounded(about.value, motion(id).unit))}`;
}

/** The size of a difference with its unit: `12°`, `1.5 cm`. */
export function sizeOf({ unit }: Pick<About, 'unit'>, value: number): string {
  return formatSize(value, unit);
}

/** The error that every finding with a limit names. */
export const errorStep = (measured: MeasuredValue): Step => ({
  step: 'error',
  unit: motionOf(measured).unit,
  sem: measured.sem,
  mdc95: measured.mdc95,
  source: measured.errorSource,
});

type Rest<F> = Pick<Found<F>, 'severity' | 'facts' | 'steps'> &
  Partial<Pick<Found<F>, 'expected' | 'percentLoss' | 'timesError' | 'agreement'>>;

/** What was found about one measurement; the difference follows from value and expected. */
export function found<F>(measured: MeasuredValue, rest: Rest<F>): Found<F> {
  const { motion: id, side, mode, position, digit } = measured.measurement;
  const expected = rest.expected ?? null;
  return {
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
    facts: rest.facts,
    steps: rest.steps,
  };
}
