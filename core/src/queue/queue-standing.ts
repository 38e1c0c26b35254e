import { motion } from '../catalogue/index.js';
import { modedName } from '../finding/make.js';
import { compareDays, weeksSince } from '../days.js';
import { worseningOf, type ProgressSeries } from '../progress/index.js';
import type { InvolvedSide, IsoDate, MotionId } from '../terms.js';

/** A day that a person logged on their own page and nobody of the clinic has looked at yet. */
export interface Message {
  readonly on: IsoDate;
  readonly pain: number | null;
  readonly swelling: boolean | null;
  readonly worse: boolean | null;
  readonly note: string;
}

/** What it is told from whether somebody in care needs anything. */
export interface QueueFacts {
  readonly today: IsoDate;
  readonly dueOn: IsoDate | null;
  readonly lastVisit: { readonly on: IsoDate; readonly isSigned: boolean; readonly readings: number } | null;
  /** Entries that came too late for a signed visit and wait to be looked at. */
  readonly late: number;
  /** Since the last visit. */
  readonly messages: readonly Message[];
  readonly series: readonly ProgressSeries[];
  readonly involvedSide?: InvolvedSide | undefined;
}

/** Why somebody needs something, each with the day since when. */
export type QueueReason =
  | {
      readonly kind: 'worse';
      readonly since: IsoDate;
      readonly says: readonly ('worse' | 'swelling' | 'pain')[];
      readonly pain: number | null;
    }
  | {
      readonly kind: 'lost';
      readonly since: IsoDate;
      readonly name: string;
      readonly size: number;
      readonly before: IsoDate;
      readonly motion: MotionId;
    }
  | { readonly kind: 'unfinished'; readonly since: IsoDate; readonly readings: number }
  | { readonly kind: 'review'; readonly since: IsoDate; readonly entries: number }
  | { readonly kind: 'behind'; readonly since: IsoDate; readonly name: string }
  | {
      readonly kind: 'stuck';
      readonly since: IsoDate;
      readonly name: string;
      readonly weeks: number;
      readonly missing: number | null;
      readonly motion: MotionId;
    }
  | { readonly kind: 'wrote'; readonly since: IsoDate; readonly note: string }
  | { readonly kind: 'due'; readonly since: IsoDate }
  | {
      readonly kind: 'goal-met';
      readonly since: IsoDate;
      readonly name: string;
      readonly value: number;
      readonly goal: number;
      readonly motion: MotionId;
    };
export type QueueKind = QueueReason['kind'];

/** How the queue is told in four: who needs somebody today, who is due, who has arrived, who is on their way. */
export const QUEUE_GROUPS = ['today', 'due', 'met', 'way'] as const;
export type QueueGroup = (typeof QUEUE_GROUPS)[number];

/**
 * Every kind of reason: how urgent, 0 first, and where it is counted. An
 * urgency is one digit: it begins a key that is sorted as text.
 *
 * @see common practice, no source
 */
export const QUEUE_KINDS: Readonly<Record<QueueKind, { readonly urgency: number; readonly group: QueueGroup }>> = {
  worse: { urgency: 0, group: 'today' },
  lost: { urgency: 1, group: 'today' },
  unfinished: { urgency: 2, group: 'today' },
  review: { urgency: 3, group: 'today' },
  behind: { urgency: 4, group: 'today' },
  stuck: { urgency: 5, group: 'today' },
  due: { urgency: 6, group: 'due' },
  wrote: { urgency: 7, group: 'due' },
  'goal-met': { urgency: 8, group: 'met' },
};

/** Nothing is wanted now. */
export const ON_THE_WAY = 9;

/** One motion as the queue draws it: its last readings, and where they are to go. */
export interface QueueLine {
  readonly name: string;
  readonly motion: MotionId;
  readonly points: readonly { readonly on: IsoDate; readonly value: number }[];
  readonly goal: number | null;
}

export interface QueueStanding {
  /** Most urgent first. */
  readonly reasons: readonly QueueReason[];
  readonly urgency: number;
  readonly since: IsoDate | null;
  /** The day from which on it has to be told anew, without anything that is entered. */
  readonly next: IsoDate;
  readonly line: QueueLine | null;
}

/** From so much pain on what was written is not left for the next visit. @see common practice, no source */
const MUCH_PAIN = 6;
/** What is told from the days alone is told anew at least so often. */
const LASTS_DAYS = 7;
const MOST_POINTS = 8;
const DAY = 86_400_000;

const dayAfter = (day: IsoDate, days: number): IsoDate => new Date(Date.parse(day) + days * DAY).toISOString().slice(0, 10);

/** Whether somebody in care needs anything, why, and since when. What was not measured again is not told from. */
export function queueStandingOf(facts: QueueFacts): QueueStanding {
  const found = [...fromMessages(facts), ...fromVisit(facts), ...fromSeries(facts), ...fromDay(facts)];
  const reasons = found.sort((a, b) => QUEUE_KINDS[a.kind].urgency - QUEUE_KINDS[b.kind].urgency || compareDays(a.since, b.since));
  const [first] = reasons;
  return {
    reasons,
    urgency: first ? QUEUE_KINDS[first.kind].urgency : ON_THE_WAY,
    since: first?.since ?? facts.dueOn,
    next: nextOf(facts),
    line: lineOf(facts.series, first),
  };
}

function* fromMessages({ messages }: QueueFacts): Generator<QueueReason> {
  const inOrder = [...messages].sort((a, b) => compareDays(a.on, b.on));
  const bad = inOrder.filter(({ worse, swelling, pain }) => worse || swelling || (pain ?? 0) >= MUCH_PAIN);
  if (bad.length > 0) {
    const pain = Math.max(...bad.map((message) => message.pain ?? 0));
    const says = [
      ...(bad.some(({ worse }) => worse) ? (['worse'] as const) : []),
      ...(bad.some(({ swelling }) => swelling) ? (['swelling'] as const) : []),
      ...(pain >= MUCH_PAIN ? (['pain'] as const) : []),
    ];
    yield { kind: 'worse', since: bad[0]!.on, says, pain: pain >= MUCH_PAIN ? pain : null };
  }
  const wrote = inOrder.filter(({ note }) => note.trim() !== '');
  const last = wrote[wrote.length - 1];
  if (last) yield { kind: 'wrote', since: wrote[0]!.on, note: last.note.trim() };
}

function* fromVisit({ lastVisit, late, today }: QueueFacts): Generator<QueueReason> {
  if (!lastVisit) return;
  const { on, isSigned, readings } = lastVisit;
  if (!isSigned && on < today) yield { kind: 'unfinished', since: on, readings };
  if (late > 0) yield { kind: 'review', since: on, entries: late };
}

function* fromDay({ dueOn, today }: QueueFacts): Generator<QueueReason> {
  if (dueOn !== null && dueOn <= today) yield { kind: 'due', since: dueOn };
}

const nameOf = ({ motion: id, side, mode, digit }: ProgressSeries): string => modedName(id, side, mode, digit);
const lastOf = ({ points }: ProgressSeries) => points[points.length - 1]!;

/** A sound side stands still because it is well: only what is aimed at, or the side it is about, is told of. */
const isAimedAt = ({ goal, side }: ProgressSeries, { involvedSide }: QueueFacts): boolean =>
  goal !== null || involvedSide === 'both' || side === involvedSide;

/** Of what got worse the largest in multiples of its measuring error; of each other kind the one that has lasted longest. */
function* fromSeries(facts: QueueFacts): Generator<QueueReason> {
  const current = facts.series.filter(({ isCurrent }) => isCurrent);
  const lost = current.flatMap((one) => {
    const worse = worseningOf(one);
    return worse ? [{ one, worse }] : [];
  });
  const [most] = lost.sort((a, b) => b.worse.timesError - a.worse.timesError);
  if (most) {
    const { one, worse } = most;
    yield { kind: 'lost', since: lastOf(one).on, name: nameOf(one), size: worse.size, before: worse.on, motion: one.motion };
  }
  const behind = current
    .filter(({ course }) => course?.standing === 'behind')
    .map((one): QueueReason => ({ kind: 'behind', since: behindSince(one), name: nameOf(one) }));
  const stuck = current.flatMap((one): QueueReason[] =>
    one.plateau && isAimedAt(one, facts)
      ? [
          {
            kind: 'stuck',
            since: one.plateau.from,
            name: nameOf(one),
            weeks: Math.floor(weeksSince(one.plateau.from, one.plateau.to)),
            missing: missingOf(one),
            motion: one.motion,
          },
        ]
      : [],
  );
  for (const found of [behind, stuck]) {
    const oldest = found.sort((a, b) => compareDays(a.since, b.since))[0];
    if (oldest) yield oldest;
  }
  const aimed = current.filter(({ goal, projection }) => goal && projection);
  const met = aimed.filter(({ projection }) => projection?.kind === 'reached');
  // Arrived is who has arrived everywhere, and lost nothing.
  if (met.length > 0 && met.length === aimed.length && lost.length === 0) {
    const one = met[0]!;
    yield {
      kind: 'goal-met',
      since: lastOf(one).on,
      name: nameOf(one),
      value: lastOf(one).value,
      goal: one.goal!.value,
      motion: one.motion,
    };
  }
}

function behindSince({ course, points }: ProgressSeries): IsoDate {
  const standings = course?.standings ?? [];
  let first = standings.length - 1;
  while (first > 0 && standings[first - 1] === 'behind') first -= 1;
  return points[first]!.on;
}

/** How far short of its goal; null without one. */
function missingOf({ goal, points, motion: id }: ProgressSeries): number | null {
  if (!goal) return null;
  const { value } = points[points.length - 1]!;
  const missing = motion(id).better === 'less' ? value - goal.value : goal.value - value;
  return missing > 0 ? missing : null;
}

/** The motion that the first reason is about, or else the one that was read most often. */
function lineOf(series: readonly ProgressSeries[], first: QueueReason | undefined): QueueLine | null {
  const named = first && 'name' in first ? series.find((one) => nameOf(one) === first.name) : undefined;
  const aimed = series.filter(({ goal }) => goal);
  const most = (among: readonly ProgressSeries[]) => [...among].sort((a, b) => b.points.length - a.points.length)[0];
  const one = named ?? most(aimed) ?? most(series);
  if (!one) return null;
  return {
    name: nameOf(one),
    motion: one.motion,
    points: one.points.slice(-MOST_POINTS).map(({ on, value }) => ({ on, value })),
    goal: one.goal?.value ?? null,
  };
}

function nextOf({ today, dueOn, lastVisit }: QueueFacts): IsoDate {
  const days = [dayAfter(today, LASTS_DAYS)];
  if (dueOn !== null && dueOn > today) days.push(dueOn);
  if (lastVisit && !lastVisit.isSigned && lastVisit.on >= today) days.push(dayAfter(lastVisit.on, 1));
  return days.sort(compareDays)[0]!;
}
