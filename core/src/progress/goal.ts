import { describeEnd, formatNumber, formatSize, suffixOf } from '../words/figures.js';
import { say } from '../words/say.js';
import { motion } from '../catalogue/index.js';
import { bandAround } from '../error/sem.js';
import { shortfall, TASK_NEEDS } from '../norms/index.js';
import type { IsoDate, MotionId } from '../terms.js';
import type { GoalChoice, GoalSource } from './goal-choice.js';
import type { DatedValue, Trend } from './trend.js';

export interface Goal {
  readonly source: GoalSource;
  readonly value: number;
  /** What it is asked for or expected by: a task, a norm set. */
  readonly of?: string;
  /** How much less than the other side was agreed on. */
  readonly less?: number;
  /** In the words of whoever set it. */
  readonly note?: string;
}

/** What goals can be taken from. */
export interface GoalGround {
  readonly motion: MotionId;
  /** Latest value of the other side. */
  readonly otherSide?: number;
  /** True where the other side was operated on or is a patient itself: it is no goal. */
  readonly otherSideInvolved: boolean;
  readonly norm?: { readonly expected: number; readonly name: string };
}

/**
 * The goal of a motion, in its unit.
 *
 * @returns the goal, or why there is none
 */
export function goalOf(choice: GoalChoice, ground: GoalGround): Goal | { readonly why: string } {
  const { source } = choice;
  const note = choice.note ? { note: choice.note } : {};
  switch (source) {
    case 'hand':
      return choice.value === undefined ? { why: 'no figure was set' } : { source, value: choice.value, ...note };
    case 'task': {
      const need = TASK_NEEDS.find((n) => n.motion === ground.motion && n.task === choice.task);
      return need ? { source, value: need.atLeast, of: need.task, ...note } : { why: 'this task asks nothing of this motion' };
    }
    case 'norm':
      return ground.norm
        ? { source, value: ground.norm.expected, of: ground.norm.name, ...note }
        : { why: 'no norm set of the clinic’s order has a value that may be compared' };
    case 'other-side': {
      if (ground.otherSideInvolved) return { why: 'the other side is a patient itself: it is no goal' };
      if (ground.otherSide === undefined) return { why: 'the other side is not measured yet' };
      const { less = 0 } = choice;
      // Less of what is good: of a distance that should be small, more of it.
      const value = ground.otherSide - (motion(ground.motion).better === 'less' ? -less : less);
      return { source, value, ...(less > 0 ? { less } : {}), ...note };
    }
  }
}

/** "118° from the other side less 14° (agreed with the surgeon)" */
export function goalWords({ source, value, of = '', less = 0, note }: Goal, id: MotionId): string {
  const about = motion(id);
  const parts = { value: describeEnd(about, value), of: say(of), less: formatSize(less, about.unit) };
  const words = {
    hand: '{value} set by hand',
    task: '{value} for {of}',
    norm: '{value} expected by {of}',
    'other-side': less > 0 ? '{value} from the other side less {less}' : '{value} from the other side',
  }[source];
  return `${say(words, parts)}${note ? ` (${note})` : ''}`;
}

/** Whether and when a goal is reached at the rate of the last visits. */
export type Projection =
  | { readonly kind: 'reached' }
  | { readonly kind: 'within-error'; readonly missing: number }
  | { readonly kind: 'no-trend' }
  | { readonly kind: 'not-in-sight'; readonly trend: Trend }
  /** Neither told from standing still nor from moving: no day follows from it. */
  | { readonly kind: 'not-told'; readonly trend: Trend }
  /** It has stopped moving: no day is told from a line that is not told from level. */
  | { readonly kind: 'standing-still'; readonly trend: Trend }
  | {
      readonly kind: 'on-the-way';
      readonly trend: Trend;
      readonly on: IsoDate;
      readonly earliest: IsoDate;
      /** null: at the slow end of the interval, never. */
      readonly latest: IsoDate | null;
    };

/** Further ahead no straight line says anything: recovery flattens. Weeks after the last visit. */
const FURTHEST = 26;
const DAY = 86_400_000;
const Z = 1.96;

const dayAfter = (from: IsoDate, weeks: number): IsoDate =>
  new Date(Date.parse(`${from}T00:00:00Z`) + Math.round(weeks * 7) * DAY).toISOString().slice(0, 10);

/**
 * The day on which the line of the last visits meets the goal, with the
 * interval that the error of the line leaves (Fieller). A straight line
 * through a recovery that flattens promises too much: said wherever shown.
 *
 * @param last the latest reading
 */
export function projectGoal(goal: number, last: DatedValue, trend: Trend | null, id: MotionId): Projection {
  const { better } = motion(id);
  const missing = shortfall(goal, last.value, better);
  if (missing <= 0) return { kind: 'reached' };
  if (missing < bandAround(last.sem)) return { kind: 'within-error', missing };
  if (!trend) return { kind: 'no-trend' };
  // Counted in the direction of the goal, so that less can be better.
  const way = better === 'less' ? -1 : 1;
  const slope = way * trend.perWeek;
  const slopeError = Math.max(trend.high - trend.perWeek, trend.perWeek - trend.low) / Z;
  const lastWeek = (Date.parse(`${last.on}T00:00:00Z`) - Date.parse(`${trend.from}T00:00:00Z`)) / (7 * DAY);
  const distance = way * (goal - trend.middle.value);
  const weeks = distance / slope + trend.middle.week;
  if (slope <= 0 || weeks > lastWeek + FURTHEST) return { kind: 'not-in-sight', trend };
  // (distance − slope·u)² = z²(SEM² + SE²·u²), u in weeks from the middle of the line.
  const a = slope ** 2 - (Z * slopeError) ** 2;
  const b = slope * distance;
  const c = distance ** 2 - (Z * trend.middle.sem) ** 2;
  const root = Math.sqrt(Math.max(0, b * b - a * c));
  const fast = c / (b + root);
  const slow = a > 0 ? (b + root) / a : Infinity;
  const day = (week: number) => dayAfter(trend.from, Math.max(lastWeek, week));
  const latestWeek = slow + trend.middle.week;
  return {
    kind: 'on-the-way',
    trend,
    on: day(weeks),
    earliest: day(fast + trend.middle.week),
    latest: latestWeek <= lastWeek + FURTHEST ? day(latestWeek) : null,
  };
}

/** A rate in words: "+1.2° a week, between −0.4° and 2.8°". */
export function rateWords({ perWeek, low, high }: Pick<Trend, 'perWeek' | 'low' | 'high'>, id: MotionId): string {
  const { unit } = motion(id);
  const signed = (value: number) => `${value > 0 ? '+' : ''}${formatNumber(value)}${suffixOf(unit)}`;
  return say('{rate} a week, between {low} and {high}', { rate: signed(perWeek), low: signed(low), high: signed(high) });
}
