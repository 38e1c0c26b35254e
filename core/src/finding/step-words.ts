import { isDual, isTilt, isValue, type Trial } from '../assessment.js';
import { motion, type Motion } from '../catalogue/index.js';
import { errorSourceWords } from '../error/source.js';
import { needWords, type NormComparison, type NormFlag } from '../norms/index.js';
import { describeEnd, endFigure, formatNumber, formatSigned, suffixOf } from '../words/figures.js';
import { instrumentWord } from '../words/instruments.js';
import { lookedUpWords } from '../words/looked-up.js';
import { dayWords, lower, say } from '../words/say.js';
import { caveatWords } from './change.js';
import { modeWord, sidedName } from './make.js';
import type { Given, Readings, Step, StepName } from './steps.js';
import { toldWords } from './told.js';
import { arcWords } from './total-arc.js';

type StepOf<S extends StepName> = Extract<Step, { readonly step: S }>;

const figure = (value: number, unit: Parameters<typeof suffixOf>[0]): string => `${formatNumber(value)}${suffixOf(unit)}`;

/** A value inside a sum; one that fell short of zero is said in words and bracketed. */
function operand(about: Motion, value: number): string {
  return value < 0 ? `(${endFigure(value, about)})` : formatNumber(value);
}

function trialWords(of: Readings, trial: Trial, index: number): string {
  if (isDual(trial)) {
    const { upper, lower: below } = trial;
    return `(${formatNumber(upper.end)} − ${formatNumber(upper.zero)}) − (${formatNumber(below.end)} − ${formatNumber(below.zero)})`;
  }
  if (isTilt(trial))
    return say('({zero} → {end} on the device)', { zero: formatNumber(trial.tilt.zero), end: formatNumber(trial.tilt.end) });
  const about = motion(of.motion);
  const kept = operand(about, of.ends[index]!);
  return isValue(trial) && trial.unit && trial.unit !== about.unit ? `${formatNumber(trial.value)} ${trial.unit} = ${kept}` : kept;
}

/** How the value came from the trials: "(30 + 32 + 31) ÷ 3 = 31". */
function readingWords(of: Readings): string {
  const by = instrumentWord(of.instrument);
  const about = motion(of.motion);
  const [one, ...others] = of.trials.map((trial, index) => trialWords(of, trial, index));
  if (about.unit === 'yesNo') return say('answered: {value}, {by}', { value: endFigure(of.value, about), by });
  const value = operand(about, of.value);
  if (others.length === 0) {
    if (one === value) return say('one reading of {value}, {by}', { value, by });
    // In another unit, what it comes to stands there already.
    return isValue(of.trials[0]!) ? `${one}, ${by}` : `${one} = ${value}, ${by}`;
  }
  const all = [one, ...others];
  if (of.summary !== 'mean')
    return say('{summary} of {readings} = {value}, {by}', { summary: say(of.summary), readings: all.join(', '), value, by });
  return `(${all.join(' + ')}) ÷ ${all.length} = ${value}, ${by}`;
}

const FLAG_WORDS: Readonly<Record<NormFlag, string>> = {
  'other-mode': 'norm is for the other mode; shown, not counted',
  'other-position': 'norm is for another position; shown, not counted',
  'other-protocol': 'norm is for another way of measuring; shown, not counted',
  'other-sex': 'norm is for the other sex, or sex not known',
  'no-edge': 'no edge can be drawn by its spread: nobody could be short by it; shown, not counted',
  'nearest-age': 'no band for this age; the nearest is shown, not counted',
};

/** What does not fit between a norm and this reading, in words. */
export function flagWords(flags: readonly NormFlag[]): string[] {
  return flags.map((flag) => say(FLAG_WORDS[flag]));
}

const WITHOUT_BAND: Readonly<Partial<Record<NormComparison['kind'], string>>> = {
  mean: 'a mean whose spread between people is not known',
  skewed: 'a mean whose spread is no bell curve',
  cutoff: 'a line that is drawn',
};

function normWords(norm: NormComparison, about: Motion): string {
  const { low, high } = norm.expectedBand;
  const spread =
    low < high
      ? say('expected band {low}–{high}', { low: formatNumber(low), high: formatNumber(high) })
      : say(WITHOUT_BAND[norm.kind] ?? 'a single figure without spread');
  const score = norm.z === null ? '' : `, z ${formatSigned(norm.z)}`;
  const remark = norm.note ? ` (${say(norm.note)})` : '';
  const sure = norm.lookedUp ? lookedUpWords(norm.lookedUp) : say('confidence {of}', { of: say(norm.confidence) });
  return `${norm.setName}: ${describeEnd(about, norm.expected)}, ${say(norm.band)}, ${spread}${score}${remark} — ${say(norm.source)}; ${sure}`;
}

function differenceWords(d: StepOf<'difference'>): string {
  const about = motion(d.motion);
  const unit = about.unit;
  const sum = `${operand(about, d.from)} − ${operand(about, d.take)} = ${d.signed ? formatSigned(d.is) : formatNumber(d.is)}${suffixOf(unit)}`;
  const size = d.mdc === undefined ? '' : figure(d.mdc, unit);
  const tail =
    d.source !== undefined
      ? say('; a change counts from {size} (MDC95, {source})', { size, source: errorSourceWords(d.source) })
      : d.mdc === undefined
        ? ''
        : say('; error of a difference {size}', { size });
  const least = d.least === undefined ? '' : say(', and at least {size}', { size: figure(d.least, unit) });
  const loss =
    d.percentLoss === null || d.percentLoss === undefined ? '' : say(', a loss of {percent} %', { percent: formatNumber(d.percentLoss) });
  const times = d.timesError === undefined ? '' : say(', {times} × the measuring error', { times: formatNumber(d.timesError) });
  return `${d.what ? `${say(d.what)}: ` : ''}${sum}${loss}${times}${tail}${least}`;
}

function givenWords(given: Given): string {
  if (typeof given === 'number') return formatNumber(given);
  if (typeof given === 'string') return say(given);
  return 'unit' in given ? figure(given.value, given.unit) : given.map((words) => say(words)).join(', ');
}

/** Every step in words; the compiler asks for each. */
const WORDS: { readonly [S in StepName]: (step: StepOf<S>) => string } = {
  readings: ({ whose, of }) => `${whose ? `${say(whose)}: ` : ''}${readingWords(of)}`,
  error: ({ unit, sem, mdc95, source }) =>
    say('measuring error: SEM {sem}, MDC95 {mdc} ({source})', {
      sem: figure(sem, unit),
      mdc: figure(mdc95, unit),
      source: errorSourceWords(source),
    }),
  difference: differenceWords,
  'error-of-sides': ({ unit, sems: [a, b], mdc, least }) =>
    say('more than the error of a difference (1.96·√({a}² + {b}²) = {mdc}) and the clinic’s threshold of {least}', {
      a: formatNumber(a),
      b: formatNumber(b),
      mdc: figure(mdc, unit),
      least: figure(least, unit),
    }),
  counted: ({ motion: id, value }) => {
    const about = motion(id);
    return say('counted as this source counts its readings: {value}', { value: `${operand(about, value)}${suffixOf(about.unit)}` });
  },
  norm: ({ motion: id, norm }) => normWords(norm, motion(id)),
  flags: ({ flags }) => flagWords(flags).join('; '),
  votes: ({ short, of }) =>
    of === 0
      ? say('no installed set has a norm for this mode, position and way of measuring')
      : say('{short} of {of} norm sets for this mode and position call it short', { short, of }),
  tasks: ({ needs }) => say('{tasks} (what tasks ask differs between people)', { tasks: needWords(needs) }),
  'upper-edge': ({ motion: id, norm, edge }) =>
    say(
      norm.kind === 'distribution'
        ? '{set}: {expected}, {band}; beyond begins at {edge} (mean + 1.96 SD) — {source}'
        : '{set}: {expected}, {band}; beyond begins at {edge} (its figure, measuring error and the clinic’s least difference) — {source}',
      {
        set: norm.setName,
        expected: describeEnd(motion(id), norm.expected),
        band: say(norm.band),
        edge: figure(edge, motion(id).unit),
        source: say(norm.source),
      },
    ),
  'not-used': ({ motion: id, norms }) =>
    norms.length === 0
      ? say('no installed set has any value for this motion')
      : say('shown and not used, for another mode, position, way or age, or because nobody could be short by it: {others}', {
          others: norms.map(({ set, expected }) => `${set} ${describeEnd(motion(id), expected)}`).join(', '),
        }),
  arc: ({ arc }) => say('the whole arc, {name}: {words}', { name: lower(say(arc.name)), words: arcWords(arc) }),
  before: ({ motion: id, on, value }) => say('on {day}: {value}', { day: dayWords(on), value: describeEnd(motion(id), value) }),
  caveat: ({ caveat }) => caveatWords(caveat),
  usual: ({ motion: id, weeks, low, high }) => {
    const [about, week] = [motion(id), formatNumber(weeks)];
    const least = describeEnd(about, low);
    return high === null || high === low
      ? say('usual at week {week}: {low} or more', { week, low: least })
      : say('usual at week {week}: {low} to {high}', { week, low: least, high: describeEnd(about, high) });
  },
  told: ({ motion: id, fromWeek, lookedUp, ...told }) => {
    const parts = { week: fromWeek, what: toldWords(id, told) };
    if (!lookedUp) return say('from week {week} on, without an end, the surgeon is told: {what} (from memory)', parts);
    return `${say('from week {week} on, without an end, the surgeon is told: {what}', parts)}; ${lookedUpWords(lookedUp)}`;
  },
  'end-feel': ({ felt, usual }) =>
    say('end feel noted: {felt}; usual here: {usual}', { felt: say(felt), usual: usual.map((feel) => say(feel)).join(say(' or ')) }),
  pain: ({ motion: id, side, digit, mode, pain, of }) =>
    say('{mode} {name}: pain {pain} of 10 ({reading})', {
      mode: modeWord(mode),
      name: lower(sidedName(id, side, digit)),
      pain,
      reading: readingWords(of),
    }),
  'share-lost': ({ motion: id, side, of, expected, from, share, error }) => {
    const parts = {
      name: sidedName(id, side),
      reading: readingWords(of),
      expected: figure(expected, motion(id).unit),
      from: say(from),
      share: formatNumber(share * 100),
      error: formatNumber(error * 100),
    };
    return share < error
      ? say('{name}: {reading}; expected {expected} ({from}), loss within measuring error ± {error} %', parts)
      : say('{name}: {reading}; expected {expected} ({from}), {share} % lost ± {error} %', parts);
  },
  unmeasured: ({ motions }) =>
    motions.length === 0
      ? say('every motion of the pattern is measured')
      : say('still unmeasured: {motions}', { motions: motions.map((id) => lower(say(motion(id).name))).join(', ') }),
  source: ({ source, confidence, caution }) => {
    const memory = source.fromMemory ? say('from memory') : '';
    const sure = confidence ? say('confidence {of}', { of: say(confidence) }) : '';
    const aside = [memory, sure].filter(Boolean).join(', ');
    return `${say(source.cite)}${aside ? ` (${aside})` : ''}${caution ? `. ${say(caution)}` : ''}`;
  },
  note: ({ note, given }) =>
    say(note, given && Object.fromEntries(Object.entries(given).map(([name, value]) => [name, givenWords(value)]))),
};

/** One step as a line. */
export function stepWords<S extends StepName>(step: StepOf<S>): string {
  return WORDS[step.step as S](step);
}
