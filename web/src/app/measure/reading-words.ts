import {
  bandAround,
  dayWords,
  describeEnd,
  endFigure,
  forbiddenWords,
  formatNumber,
  formatSize,
  isTilted,
  type Motion,
  rounded,
  sitesInOrder,
  twoSiteExample,
} from '@dial-gauge/core';

import { INSTRUMENT_WORDS, UNIT_WORDS } from '../ui/words';
import type { HeldReading } from './record/cells';
import type { Exam } from './exam';

/** Under the figures: what to type, or what is typed and how sure it is. */
export function readingWords(exam: Exam, byTouch = false): string {
  const about = exam.record.motion();
  if (exam.sources.isLive()) return liveWords(exam, byTouch);
  if (exam.sources.isOffered()) return picturedWords(exam, byTouch);
  const tool = INSTRUMENT_WORDS[exam.record.instrument()];
  const read = exam.typed.offer();
  if (exam.typed.text() !== '' && !read.ok && read.next) return `now the ${read.next} · ${orderWords(exam)}`;
  if (read.ok && 'arc' in read) return 'an arc: Enter fills both directions';
  const value = exam.sources.value() ?? exam.record.measured()?.value;
  if (value === undefined) return `${askWords(exam)}${byTouch ? '' : ', Enter holds'} · ${tool}`;
  if (about.unit === 'yesNo') return `${describeEnd(about, value)} · ${tool}`;
  return valueWords(exam, value, tool);
}

/** What the figures come to where that is not what was typed, with its error and what to look at again. */
function valueWords(exam: Exam, value: number, tool: string): string {
  const about = exam.record.motion();
  const derived = exam.typed.reading()?.entered !== undefined || exam.record.isDual();
  const parts = [
    value < 0 || about.plus || derived ? describeEnd(about, rounded(value, about.unit)) : '',
    `± ${formatSize(bandAround(exam.sources.sem()), about.unit)} measuring error`,
    tool,
    exam.record.protocol().reads === 'position' ? 'a position, not a change' : '',
    exam.record.isDual() && value < 0 ? 'the lower site moved more: check both sites' : '',
  ];
  return parts.filter(Boolean).join(' · ');
}

/** What was read off a picture, and how sure that is. */
function picturedWords(exam: Exam, byTouch: boolean): string {
  const offer = exam.sources.inHand().offer();
  if (!offer.ok) return offer.message;
  const { unit } = exam.record.motion();
  const error = `± ${formatSize(bandAround(exam.sources.sem()), unit)} measuring error`;
  return [exam.picture.words(), error, byTouch ? '' : 'Enter holds'].filter(Boolean).join(' · ');
}

/** What a connected instrument comes to, or why that is nothing. */
function liveWords(exam: Exam, byTouch: boolean): string {
  const { unit } = exam.record.motion();
  const offer = exam.sources.inHand().offer();
  if (!offer.ok) return offer.message;
  const { reading } = offer as Extract<typeof offer, { reading: unknown }>;
  const value = exam.sources.value()!;
  const parts = [
    reading.lower
      ? `${formatNumber(reading.end)} − ${formatNumber(reading.lower.end)}`
      : value < 0
        ? describeEnd(exam.record.motion(), value)
        : '',
    exam.live.choices().peak ? 'the furthest since zero' : '',
    `± ${formatSize(bandAround(exam.sources.sem()), unit)} measuring error`,
    `${INSTRUMENT_WORDS[exam.sources.instrument()]}${reading.simulated ? ', simulated' : ''}`,
    reading.lower && value < 0 ? 'the lower site moved more: check both sites' : '',
    byTouch ? '' : 'Space holds',
  ];
  return parts.filter(Boolean).join(' · ');
}

/** What to type, in the order of the hands. */
function askWords(exam: Exam): string {
  const { unit } = exam.record.motion();
  if (exam.record.isDual()) return `type ${orderWords(exam)}, as ${twoSiteExample(exam.record.motion().id, exam.record.tool())}`;
  if (isTilted(exam.record.protocol(), exam.record.tool())) return 'type zero/end as the device shows them, as 350/20';
  if (unit === 'yesNo') return 'type y or n';
  if (unit === 'cm' && exam.record.instrument() === 'visual') return 'type fists and fingers, as 1f2, or centimetres';
  const entry = exam.record.tool().unit;
  return `type ${entry && entry !== unit ? entry : UNIT_WORDS[unit]}`;
}

function orderWords(exam: Exam): string {
  return exam.record.isDual() ? sitesInOrder(exam.record.tool()).join(', ') : 'zero, end';
}

/** What a precaution says of the measurement in hand; empty where it is free. */
export function limitWords(exam: Exam): string {
  const allowed = exam.record.allowed();
  if (allowed.kind === 'free') return '';
  const { until, source } = allowed.by;
  const when = until === null ? '' : ` until ${dayWords(until)}`;
  if (allowed.kind === 'forbidden') return `Not to be measured${when}: ${forbiddenWords(allowed)}.`;
  const what =
    allowed.kind === 'stop'
      ? `Stop at ${formatSize(allowed.at, exam.record.motion().unit)}`
      : 'To where it goes by itself, no push at the end';
  return `${what}${when} (${source}).`;
}

/** One reading as it is shown in the strip. */
export function shownReading({ start, end, lower, scale, entered }: HeldReading, about: Motion): string {
  if (lower && start === 0 && lower.zero === 0) return `${formatNumber(end)}/${formatNumber(lower.end)}`;
  if (lower) return scale ? (entered ?? '') : `${formatNumber(end - start)}/${formatNumber(lower.end - lower.zero)}`;
  return start === 0 ? endFigure(end, about) : `${formatNumber(start)}/${formatNumber(end)}`;
}

/** "Hold 104°": what a hold would take; bare where there is nothing. */
export function holdWords(exam: Exam, bare: string): string {
  const value = exam.sources.value();
  const { record } = exam;
  return value === null ? bare : `Hold ${endFigure(Math.round(value * 10) / 10, record.motion())}${record.unit()}`;
}
