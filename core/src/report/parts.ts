import { findMotion, protocolName, protocolOf } from '../catalogue/index.js';
import { weeksSince } from '../days.js';
import { findProcedure } from '../procedure/index.js';
import { alikePrecautions, alikeWords, holdsOn } from '../precaution/index.js';
import {
  byChange,
  changeWord,
  courseWords,
  inWeeks,
  worseningOf,
  worseThanWords,
  type ProgressSeries,
  type When,
} from '../progress/index.js';
import { modedName } from '../finding/index.js';
import type { Measurement } from '../assessment.js';
import { describeEnd, formatNumber, formatSigned, rounded, suffixOf } from '../words/figures.js';
import { dayWords, say, sayCount } from '../words/say.js';
import type { Block, ReportFacts } from './types.js';

/** "left hip internal rotation, passive" with the finger, as a table names it. */
export const measuredName = ({ motion: id, side, mode, digit }: Pick<Measurement, 'motion' | 'side' | 'mode' | 'digit'>): string =>
  modedName(id, side, mode, digit);

/** "knee replacement, 9 Oct 2026, week 6" */
export function operationLine({ operation, operationWords, assessedOn }: ReportFacts): string {
  if (!operation) return operationWords;
  const name = findProcedure(operation.id)?.name ?? operationWords;
  const week = formatNumber(Math.floor(weeksSince(operation.on, assessedOn)));
  return say('{name}, {day}, week {week}', { name, day: dayWords(operation.on), week });
}

/** How days are spoken of on a page. */
export const whenOf = ({ operation }: ReportFacts): When => (operation ? inWeeks(operation.on) : { unit: 'days', words: dayWords });

/** Limits that hold on the day, as the plan says them. */
export function limitLines({ limits: { precautions }, assessedOn }: ReportFacts): string[] {
  const holding = precautions.filter((by) => holdsOn(by, assessedOn));
  return alikePrecautions(holding).map((alike) => {
    const [first] = alike as [(typeof alike)[number]];
    const until = first.until ? say(', until {day}', { day: dayWords(first.until) }) : '';
    const side = first.side && first.side !== 'midline' ? `${say(first.side)} ` : '';
    return `${side}${alikeWords(alike)}${until} (${first.source})`;
  });
}

/** Series that have something to say on a page: what got worse, goals, what really moved, the rest that was measured again. */
export function telling(series: readonly ProgressSeries[]): ProgressSeries[] {
  const worth = ({ goal, sinceFirst, sinceLast }: ProgressSeries): number =>
    (goal ? 4 : 0) +
    (sinceFirst && sinceFirst.verdict !== 'within-error' ? 2 : 0) +
    (sinceLast && sinceLast.verdict !== 'within-error' ? 1 : 0);
  const again = series.filter(({ isCurrent, sinceFirst }) => isCurrent && sinceFirst !== null);
  return byChange([...again].sort((a, b) => worth(b) - worth(a)));
}

/** One row of change: what, first, last time, now, what it comes to, usual course. */
export function changeRow(series: ProgressSeries, when: When): string[] {
  const { points, motion: id, sinceFirst, sinceLast } = series;
  const about = findMotion(id)!;
  const at = (index: number) => {
    const point = points[index];
    return point ? describeEnd(about, rounded(point.value, about.unit)) : '–';
  };
  const told = (change: ProgressSeries['sinceFirst']) =>
    change ? `${formatSigned(rounded(change.change, about.unit))}${suffixOf(about.unit)}, ${changeWord(change)}` : '–';
  return [
    measuredName({ ...series, digit: series.digit }),
    `${at(0)} (${when.words(points[0]!.on)})`,
    points.length > 2 ? at(points.length - 2) : '–',
    at(points.length - 1),
    told(sinceFirst),
    points.length > 2 ? [told(sinceLast), sinceBest(series, when)].filter(Boolean).join('; ') : '–',
    courseWords(series, when) || '–',
  ];
}

/** What only the best reading shows: "14° worse than in week 6"; empty elsewhere. */
function sinceBest(series: ProgressSeries, when: When): string {
  const worse = worseningOf(series);
  return worse?.since === 'best' ? worseThanWords(worse, series.motion, when) : '';
}

export const CHANGE_HEAD = ['Measurement', 'First', 'Last time', 'Now', 'Since first', 'Since last', 'Usual course'] as const;

/** "and 5 more, in the page with all evidence": what a page has no room for is counted, never dropped. */
export const more = (count: number): Block[] =>
  count <= 0
    ? []
    : [
        {
          kind: 'paragraph',
          tone: 'quiet',
          text: sayCount(count, 'and {count} more, on the page with all evidence', 'and {count} more, on the page with all evidence'),
        },
      ];

/** How it was measured, each way once: "goniometer, inclinometer". */
export const wayLabel = (m: Measurement): string => say(protocolName(protocolOf(m)));
