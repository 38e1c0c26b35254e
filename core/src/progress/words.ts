import { describeEnd, formatNumber, formatSigned, formatSize, rounded, suffixOf } from '../words/figures.js';
import { motion } from '../catalogue/index.js';
import type { CourseStanding } from '../course/index.js';
import { weeksSince } from '../days.js';
import { isGain, isLoss, type Change } from '../finding/change.js';
import type { IsoDate } from '../terms.js';
import { rateWords } from './goal.js';
import type { ProgressSeries } from './progress.js';

/** How a day is spoken of: "week 6" after an operation, otherwise as the reader writes dates. */
export type WhenWords = (on: IsoDate) => string;

/** Days as weeks since an operation: "week 6". */
export function weekWords(operatedOn: IsoDate): WhenWords {
  return (on) => `week ${formatNumber(Math.round(weeksSince(operatedOn, on)))}`;
}

/** "better", "worse", "more" or "less" where neither is good, "within error". */
export function changeWord(change: Pick<Change, 'verdict' | 'better'>): string {
  if (change.verdict === 'within-error') return 'within error';
  if (isGain(change)) return 'better';
  return isLoss(change) ? 'worse' : change.verdict;
}

/**
 * What a series says, as the rest of a sentence that begins with its name:
 * "is 44° better than in week 1 and has not really moved since week 6".
 */
export function headline(series: ProgressSeries, when: WhenWords): string {
  const { sinceFirst, points, plateau, motion: id } = series;
  if (!sinceFirst) return 'has one reading so far: a second one, measured the same way, shows whether anything changed';
  const { unit } = motion(id);
  const first = when(points[0]!.on);
  const from = /^week/.test(first) ? `in ${first}` : `on ${first}`;
  const word = changeWord(sinceFirst);
  const since = plateau && when(plateau.from);
  const still = !plateau ? '' : plateau.isStill ? ` and stands still since ${since}` : `, with no real change since ${since}`;
  if (word === 'within error')
    return `has not really changed since ${first}: ${formatSigned(rounded(sinceFirst.change, unit))}${suffixOf(unit)}, within measuring error`;
  return `is ${formatSize(Math.abs(sinceFirst.change), unit)} ${word} than ${from}${still}`;
}

/** When the goal may be reached, or why that is not said. Empty without a goal. */
export function projectionWords({ projection, goal, motion: id }: ProgressSeries, when: (on: IsoDate) => string): string {
  if (!goal || !projection) return '';
  switch (projection.kind) {
    case 'reached':
      return 'The goal is reached.';
    case 'within-error':
      return `The goal is within measuring error: ${formatSize(projection.missing, motion(id).unit)} short of it cannot be told from there.`;
    case 'no-trend':
      return 'Three visits measured the same way are needed to say when the goal may be reached.';
    case 'not-in-sight':
      return `At this rate the goal is not in sight: ${rateWords(projection.trend, id)}.`;
    case 'not-told':
      return `It is not yet told from standing still, so no day is told for the goal: ${rateWords(projection.trend, id)}.`;
    case 'standing-still':
      return `It stands still short of the goal, so no day is told for it: ${rateWords(projection.trend, id)}.`;
    case 'on-the-way': {
      const latest = projection.latest
        ? `${when(projection.earliest)} at the earliest, ${when(projection.latest)} at the latest`
        : `${when(projection.earliest)} at the earliest, perhaps never`;
      return `At this rate the goal is met about ${when(projection.on)} (${latest}): ${rateWords(projection.trend, id)}. A straight line promises too much where recovery flattens.`;
    }
  }
}

const STANDING: Readonly<Record<CourseStanding, string>> = {
  ahead: 'ahead of the usual course',
  on: 'on the usual course',
  behind: 'behind the usual course',
};

/** Where the last reading stands in the usual course, and since when. Empty where nobody says what is usual. */
export function courseWords({ course, points }: ProgressSeries, when: WhenWords): string {
  if (!course) return '';
  const { standings } = course;
  const last = standings[standings.length - 1];
  if (!last) return 'The usual course says nothing about this week.';
  let first = standings.length - 1;
  while (first > 0 && standings[first - 1] === last) first--;
  const before = first > 0 ? standings[first - 1] : null;
  const since = before
    ? ` since ${when(points[first]!.on)}, ${before === 'behind' ? 'behind it' : before === 'ahead' ? 'ahead of it' : 'on it'} before`
    : '';
  return `${STANDING[last].charAt(0).toUpperCase()}${STANDING[last].slice(1)}${since}.`;
}

/** The latest value in words: "106°", "lacks 3° of straight". */
export function valueNow({ points, motion: id }: Pick<ProgressSeries, 'points' | 'motion'>): string {
  const about = motion(id);
  return describeEnd(about, rounded(points[points.length - 1]!.value, about.unit));
}
