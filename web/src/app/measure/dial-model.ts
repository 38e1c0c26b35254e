import { bandAround, describeEnd, endFigure, formatSize, formatWhole, type Mode, motion, rounded, shortDay } from '@dial-gauge/core';

import { facingFor } from '../ui/dial/geometry';
import type { StripModel } from '../ui/arc-strip/arc-strip';
import type { DialModel } from '../ui/dial/dial';
import type { Exam } from './exam';

/** What the dial shows of the exam in hand: core numbers in, marks and words out. */
export function dialModel(exam: Exam): DialModel | null {
  const { dial } = exam.record.protocol();
  if (!dial) return null;
  const { side } = exam.record.place();
  const { mode } = exam.record.row();
  const about = exam.record.motion();
  const value = valueIn(exam);
  const opposite = about.opposite ? motion(about.opposite).short : '';
  const edge = edgeOf(exam, value);
  const gap = edge === null || value === null ? null : { to: edge, words: `${formatWhole(Math.abs(edge - value))}° short` };
  const allowed = exam.record.allowed();
  const stop = allowed.kind === 'stop' ? { at: allowed.at, words: `stop ${endFigure(allowed.at, about)}` } : null;
  const inMode = (of: Mode) => (mode === of ? value : (exam.record.measuredFor({ mode: of })?.value ?? null));
  const model = {
    stop,
    facing: facingFor(dial, side),
    scale: dial.scale,
    ends: { on: endWord(about.short), back: endWord(opposite) },
    needle: value,
    error: bandAround(exam.sources.sem()),
    active: inMode('active'),
    passive: inMode('passive'),
    expected: exam.record.expected(),
    gap,
    otherSide: otherSideMark(exam),
    lastVisit: lastVisitMark(exam),
  };
  return { ...model, text: describe(exam, model) };
}

/** What is typed, or held already. */
const valueIn = (exam: Exam): number | null => exam.sources.value() ?? exam.record.measured()?.value ?? null;

/** Where the expected range begins, for a value that is short of it. */
function edgeOf(exam: Exam, value: number | null): number | null {
  const norm = value === null ? undefined : exam.record.normFor(value);
  if (!norm?.short) return null;
  return exam.record.motion().better === 'less' ? norm.expectedBand.high : norm.expectedBand.low;
}

function otherSideMark(exam: Exam): DialModel['otherSide'] {
  const { side } = exam.record.place();
  if (side === 'midline') return null;
  const opposite = side === 'left' ? 'right' : 'left';
  const other = exam.record.measuredFor({ side: opposite });
  return other && { at: other.value, words: `${opposite} ${endFigure(Math.round(other.value), exam.record.motion())}` };
}

function lastVisitMark(exam: Exam): DialModel['lastVisit'] {
  const last = exam.record.lastVisit();
  return last && { at: last.value, words: `${shortDay(last.on)}: ${endFigure(Math.round(last.value), exam.record.motion())}` };
}

/** "Internal rotation" → "internal": the scale's ends are named in a word. */
const endWord = (short: string): string => short.toLowerCase().replace(' rotation', '');

function describe(exam: Exam, model: Omit<DialModel, 'text'>): string {
  const words = (value: number) => describeEnd(exam.record.motion(), Math.round(value));
  const parts = [
    exam.record.nameOf(exam.record.row(), exam.record.place().side),
    model.needle === null
      ? 'no reading yet'
      : `needle at ${words(model.needle)}, plus or minus ${formatWhole(model.error)} measuring error`,
    model.expected ? `expected ${formatWhole(model.expected.low)} to ${formatWhole(model.expected.high)}` : 'no norm in this set',
    model.stop ? `stops at ${words(model.stop.at)} by a precaution` : '',
    model.gap?.words ?? '',
    model.otherSide?.words ?? '',
    model.lastVisit ? `last visit ${model.lastVisit.words}` : '',
  ];
  return `${parts.filter(Boolean).join('; ')}.`;
}

/** Where no angle is measured: the value along a straight scale, beside what is expected and the last visit. */
export function straightModel(exam: Exam): StripModel {
  const about = exam.record.motion();
  const value = valueIn(exam);
  const expected = exam.record.expected();
  const last = exam.record.lastVisit();
  const shown = [value, expected?.low, expected?.high, last?.value].filter((mark) => typeof mark === 'number');
  const reach = Math.max(about.unit === 'N' ? 100 : 10, ...shown);
  const least = Math.min(0, ...shown);
  const step = reach > 100 ? 50 : 5;
  const said = [
    exam.record.nameOf(exam.record.row(), exam.record.place().side),
    value === null ? 'no reading yet' : describeEnd(about, rounded(value, about.unit)),
    expected ? `expected ${formatSize(expected.low, about.unit)} to ${formatSize(expected.high, about.unit)}` : 'no norm in this set',
    last ? `last visit ${describeEnd(about, rounded(last.value, about.unit))}` : '',
  ];
  return {
    side: 'right',
    range: { from: Math.floor(least / step) * step, to: Math.ceil((reach + step * 0.4) / step) * step },
    label: (mark) => endFigure(mark, about),
    active: null,
    passive: value,
    expected,
    gapTo: edgeOf(exam, value),
    lastVisit: last?.value ?? null,
    pain: exam.record.cell().pain ?? 0,
    value: '',
    text: `${said.filter(Boolean).join('; ')}.`,
  };
}
