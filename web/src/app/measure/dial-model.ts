import { bandAround, describeEnd, endFigure, formatWhole, motion } from '@dial-gauge/core';
import { shortDay } from '../caseload/words';
import { facingFor } from '../ui/dial/geometry';
import type { DialModel } from '../ui/dial/dial';
import type { Exam } from './exam';

/** What the dial shows of the exam in hand: core numbers in, marks and words out. */
export function dialModel(exam: Exam): DialModel | null {
  const { dial } = exam.protocol();
  if (!dial) return null;
  const { side } = exam.place();
  const { mode } = exam.row();
  const measured = exam.measured();
  const value = exam.typedAngle() ?? measured?.value ?? null;
  const norm = value === null ? undefined : exam.normFor(value);
  const other = exam.measuredFor({ side: side === 'left' ? 'right' : 'left' });
  const active = exam.measuredFor({ mode: 'active' });
  const passive = exam.measuredFor({ mode: 'passive' });
  const last = exam.lastVisit();
  const shown = exam.motion();
  const opposite = shown.opposite ? motion(shown.opposite).short : '';
  const edge = norm?.short ? norm.expectedBand.low : null;
  const gap = edge === null || value === null ? null : { to: edge, words: `${formatWhole(edge - value)}° short` };
  const model = {
    facing: facingFor(dial, side),
    scale: dial.scale,
    ends: { on: endWord(shown.short), back: endWord(opposite) },
    needle: value,
    error: bandAround(exam.sem()),
    active: mode === 'active' ? value : (active?.value ?? null),
    passive: mode === 'passive' ? value : (passive?.value ?? null),
    expected: exam.expected(),
    gap,
    otherSide: other && { at: other.value, words: `${side === 'left' ? 'right' : 'left'} ${endFigure(Math.round(other.value))}` },
    lastVisit: last && { at: last.value, words: `${shortDay(last.on)}: ${endFigure(Math.round(last.value))}` },
  };
  return { ...model, text: describe(exam, model) };
}

/** "Internal rotation" → "internal": the scale's ends are named in a word. */
const endWord = (short: string): string => short.toLowerCase().replace(' rotation', '');

function describe(exam: Exam, model: Omit<DialModel, 'text'>): string {
  const { name } = exam.motion();
  const words = (value: number) => describeEnd(exam.motion(), Math.round(value));
  const parts = [
    `${exam.place().side} ${name.toLowerCase()}, ${exam.row().mode}`,
    model.needle === null
      ? 'no reading yet'
      : `needle at ${words(model.needle)}, plus or minus ${formatWhole(model.error)} measuring error`,
    model.expected ? `expected ${formatWhole(model.expected.low)} to ${formatWhole(model.expected.high)}` : 'no norm in this set',
    model.gap?.words ?? '',
    model.otherSide?.words ?? '',
    model.lastVisit ? `last visit ${model.lastVisit.words}` : '',
  ];
  return `${parts.filter(Boolean).join('; ')}.`;
}
