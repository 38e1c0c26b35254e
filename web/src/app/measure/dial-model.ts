import { bandAround, describeEnd, endFigure, formatSize, formatWhole, motion, rounded, shortDay } from '@dial-gauge/core';

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
  const measured = exam.record.measured();
  const value = exam.sources.value() ?? measured?.value ?? null;
  const norm = value === null ? undefined : exam.record.normFor(value);
  const other = side === 'midline' ? null : exam.record.measuredFor({ side: side === 'left' ? 'right' : 'left' });
  const active = exam.record.measuredFor({ mode: 'active' });
  const passive = exam.record.measuredFor({ mode: 'passive' });
  const last = exam.record.lastVisit();
  const shown = exam.record.motion();
  const opposite = shown.opposite ? motion(shown.opposite).short : '';
  const edge = norm?.short ? (about.better === 'less' ? norm.expectedBand.high : norm.expectedBand.low) : null;
  const gap = edge === null || value === null ? null : { to: edge, words: `${formatWhole(Math.abs(edge - value))}° short` };
  const allowed = exam.record.allowed();
  const stop = allowed.kind === 'stop' ? { at: allowed.at, words: `stop ${endFigure(allowed.at, about)}` } : null;
  const model = {
    stop,
    facing: facingFor(dial, side),
    scale: dial.scale,
    ends: { on: endWord(shown.short), back: endWord(opposite) },
    needle: value,
    error: bandAround(exam.sources.sem()),
    active: mode === 'active' ? value : (active?.value ?? null),
    passive: mode === 'passive' ? value : (passive?.value ?? null),
    expected: exam.record.expected(),
    gap,
    otherSide: other && { at: other.value, words: `${side === 'left' ? 'right' : 'left'} ${endFigure(Math.round(other.value), about)}` },
    lastVisit: last && { at: last.value, words: `${shortDay(last.on)}: ${endFigure(Math.round(last.value), about)}` },
  };
  return { ...model, text: describe(exam, model) };
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
  const value = exam.sources.value() ?? exam.record.measured()?.value ?? null;
  const norm = value === null ? undefined : exam.record.normFor(value);
  const expected = exam.record.expected();
  const last = exam.record.lastVisit();
  const reach = Math.max(value ?? 0, expected?.high ?? 0, last?.value ?? 0, about.unit === 'N' ? 100 : 10);
  const least = Math.min(0, value ?? 0, expected?.low ?? 0, last?.value ?? 0);
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
    gapTo: norm?.short ? (about.better === 'less' ? norm.expectedBand.high : norm.expectedBand.low) : null,
    lastVisit: last?.value ?? null,
    pain: exam.record.cell().pain ?? 0,
    value: '',
    text: `${said.filter(Boolean).join('; ')}.`,
  };
}
