import { motion, protocolName, protocolOfId } from '../catalogue/index.js';
import type { CourseStanding } from '../course/index.js';
import { weeksSince } from '../days.js';
import { isGain, isLoss, type Change } from '../finding/change.js';
import type { IsoDate, MotionId } from '../terms.js';
import { describeEnd, formatNumber, formatSigned, formatSize, rounded, suffixOf } from '../words/figures.js';
import { instrumentWord } from '../words/instruments.js';
import { say, upper } from '../words/say.js';
import { rateWords } from './goal.js';
import type { ProgressSeries } from './progress.js';
import type { NotJoined, SeriesPoint } from './series.js';
import { worseningOf, type Worsening } from './worsening.js';

/** How a day is spoken of: "week 6" after an operation, otherwise as the reader writes dates. */
export interface When {
  readonly unit: 'weeks' | 'days';
  readonly words: (on: IsoDate) => string;
}

/** Days as weeks since an operation: "week 6". */
export function inWeeks(operatedOn: IsoDate): When {
  return { unit: 'weeks', words: (on) => say('week {week}', { week: formatNumber(Math.round(weeksSince(operatedOn, on))) }) };
}

/** "better", "worse", "more" or "less" where neither is good, "within error". */
export function changeWord(change: Pick<Change, 'verdict' | 'better'>): string {
  if (change.verdict === 'within-error') return say('within error');
  if (isGain(change)) return say('better');
  return say(isLoss(change) ? 'worse' : change.verdict);
}

/**
 * What a series says, as the rest of a sentence that begins with its name:
 * "is 44° better than in week 1 and has not really moved since week 6". What got
 * worse since the last visit, or since the best reading, is said first.
 */
export function headline(series: ProgressSeries, when: When): string {
  const { sinceFirst, points, plateau, motion: id } = series;
  if (!sinceFirst) return say('has one reading so far: a second one, measured the same way, shows whether anything changed');
  const { unit } = motion(id);
  const parts = {
    first: when.words(points[0]!.on),
    change: `${formatSigned(rounded(sinceFirst.change, unit))}${suffixOf(unit)}`,
    size: formatSize(Math.abs(sinceFirst.change), unit),
    word: changeWord(sinceFirst),
    since: plateau ? when.words(plateau.from) : '',
  };
  const worse = worseningOf(series);
  if (worse) {
    const than = worseThanWords(worse, id, when);
    if (worse.on === points[0]!.on) return say('is {than}', { than });
    return say('is {than}; {change} since {first}, {word}', { ...parts, than });
  }
  if (sinceFirst.verdict === 'within-error') return say('has not really changed since {first}: {change}, within measuring error', parts);
  const moved = say(when.unit === 'weeks' ? 'is {size} {word} than in {first}' : 'is {size} {word} than on {first}', parts);
  if (!plateau) return moved;
  return say(plateau.isStill ? '{moved} and stands still since {since}' : '{moved}, with no real change since {since}', {
    moved,
    ...parts,
  });
}

/** "18° worse than in week 6" */
export function worseThanWords({ size, on }: Worsening, id: MotionId, when: When): string {
  const parts = { size: formatSize(size, motion(id).unit), day: when.words(on) };
  return say(when.unit === 'weeks' ? '{size} worse than in {day}' : '{size} worse than on {day}', parts);
}

/** When the goal may be reached, or why that is not said. Empty without a goal. */
export function projectionWords({ projection, goal, motion: id }: ProgressSeries, { words: day }: When): string {
  if (!goal || !projection) return '';
  const rate = 'trend' in projection ? rateWords(projection.trend, id) : '';
  switch (projection.kind) {
    case 'reached':
      return say('The goal is reached.');
    case 'within-error':
      return say('The goal is within measuring error: {size} short of it cannot be told from there.', {
        size: formatSize(projection.missing, motion(id).unit),
      });
    case 'no-trend':
      return say('Three visits measured the same way are needed to say when the goal may be reached.');
    case 'not-in-sight':
      return say('At this rate the goal is not in sight: {rate}.', { rate });
    case 'not-told':
      return say('It is not yet told from standing still, so no day is told for the goal: {rate}.', { rate });
    case 'standing-still':
      return say('It stands still short of the goal, so no day is told for it: {rate}.', { rate });
    case 'on-the-way': {
      const parts = {
        rate,
        day: day(projection.on),
        earliest: day(projection.earliest),
        latest: projection.latest ? day(projection.latest) : '',
      };
      return say(
        projection.latest
          ? 'At this rate the goal is met about {day} ({earliest} at the earliest, {latest} at the latest): {rate}. A straight line promises too much where recovery flattens.'
          : 'At this rate the goal is met about {day} ({earliest} at the earliest, perhaps never): {rate}. A straight line promises too much where recovery flattens.',
        parts,
      );
    }
  }
}

const STANDING: Readonly<Record<CourseStanding, string>> = {
  ahead: 'ahead of the usual course',
  on: 'on the usual course',
  behind: 'behind the usual course',
};
const BEFORE: Readonly<Record<CourseStanding, string>> = {
  ahead: '{now} since {day}, ahead of it before',
  on: '{now} since {day}, on it before',
  behind: '{now} since {day}, behind it before',
};

/** Where the last reading stands in the usual course, and since when. Empty where nobody says what is usual. */
export function courseWords({ course, points }: ProgressSeries, when: When): string {
  if (!course) return '';
  const { standings } = course;
  const last = standings[standings.length - 1];
  if (!last) return say('The usual course says nothing about this week.');
  let first = standings.length - 1;
  while (first > 0 && standings[first - 1] === last) first--;
  const before = first > 0 ? standings[first - 1] : null;
  const now = upper(say(STANDING[last]));
  return `${before ? say(BEFORE[before], { now, day: when.words(points[first]!.on) }) : now}.`;
}

/** Why a reading takes no part in the trend: "another examiner (Rook)". */
export function apartWords({ apart, examiner, instrument }: SeriesPoint): string {
  if (apart === null) return '';
  return apart === 'other-examiner'
    ? say('another examiner ({who})', { who: examiner ?? '' })
    : say('another instrument ({which})', { which: instrumentWord(instrument) });
}

/** The same where space is short. */
export function apartShort({ apart }: SeriesPoint): string {
  return apart === null ? '' : say(apart === 'other-examiner' ? 'another examiner' : 'another instrument');
}

/** "by another protocol (sitting, 90/90): a different thing, not joined and not compared" */
export function notJoinedWords({ protocol }: NotJoined): string {
  const way = protocolOfId(protocol);
  return say('by another protocol ({way}): a different thing, not joined and not compared', {
    way: way ? say(protocolName(way)) : protocol,
  });
}

/** The latest value in words: "106°", "lacks 3° of straight". */
export function valueNow({ points, motion: id }: Pick<ProgressSeries, 'points' | 'motion'>): string {
  const about = motion(id);
  return describeEnd(about, rounded(points[points.length - 1]!.value, about.unit));
}
