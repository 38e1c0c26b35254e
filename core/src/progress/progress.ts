import type { Session } from '../assessment.js';
import { bandAt, courseOf, COURSE_CAUTION, standingIn, type CourseStanding, type Operation } from '../course/index.js';
import { weeksSince } from '../days.js';
import type { ErrorContext } from '../error/own.js';
import { normQuery } from '../finding/assess.js';
import { ageOn, judgingNorm, type NormSet } from '../norms/index.js';
import { findProcedure } from '../procedure/index.js';
import type { InvolvedSide, IsoDate, Sex, Side } from '../terms.js';
import { goalOf, projectGoal, type Goal, type Projection } from './goal.js';
import type { GoalChoice } from './goal-choice.js';
import { seriesOf, type Series } from './series.js';
import { isMoving, plateauOf, recentTrend, trendOf, type Plateau, type Trend } from './trend.js';

/** The usual course as a chart draws it, and where the last reading stands in it. */
export interface SeriesCourse {
  readonly points: readonly { readonly on: IsoDate; readonly week: number; readonly low: number; readonly high: number | null }[];
  /** Standing of every reading, in their order; null where nobody says what is usual. */
  readonly standings: readonly (CourseStanding | null)[];
  readonly standing: CourseStanding | null;
  readonly source: string;
}

/** A series with all that is told from it. */
export interface ProgressSeries extends Series {
  /** Over all visits, and over the last ones. */
  readonly trend: Trend | null;
  readonly recent: Trend | null;
  readonly plateau: Plateau | null;
  readonly goal: Goal | null;
  /** Why a goal that was chosen cannot be had. */
  readonly noGoal: string | null;
  readonly projection: Projection | null;
  readonly course: SeriesCourse | null;
}

export interface ProgressContext extends ErrorContext {
  readonly person: { readonly birthDate: IsoDate; readonly sex: Sex };
  /** Norm sets in the order in which they are asked. */
  readonly normOrder?: readonly NormSet[];
  readonly involvedSide?: InvolvedSide;
  /** What was operated on the involved side. */
  readonly operation?: Operation;
  /** Goals that were chosen, by the key of the series. */
  readonly goals?: ReadonlyMap<string, GoalChoice>;
}

/**
 * Everything that several visits say, motion by motion: series, trends,
 * plateaus, goals with the day they may be reached, and the usual course after
 * an operation.
 *
 * @param sessions in any order
 */
export function progressOf(sessions: readonly Session[], context: ProgressContext): ProgressSeries[] {
  const all = seriesOf(sessions, {
    own: context.own,
    procedure: context.operation?.id ?? context.procedure,
    checks: context.checks,
  });
  const byKey = new Map<string, Series>(all.map((series) => [series.key, series]));
  return all.map((series) => {
    const usable = series.points.filter((point) => point.apart === null);
    const last = series.points[series.points.length - 1]!;
    const recent = recentTrend(usable);
    const choice = context.goals?.get(series.key) ?? usualGoal(series, context);
    const found = choice && goalOf(choice, groundOf(series, byKey, context));
    const goal = found && 'value' in found ? found : null;
    const plateau = plateauOf(usable);
    const projected = goal && projectGoal(goal.value, last, recent, series.motion);
    const projection = projected && settled(projected, plateau);
    return {
      ...series,
      trend: trendOf(usable),
      recent,
      // At the goal a value may well stand still.
      plateau: projection && (projection.kind === 'reached' || projection.kind === 'within-error') ? null : plateau,
      goal,
      noGoal: found && 'why' in found && context.goals?.has(series.key) ? found.why : null,
      projection,
      course: courseFor(series, context),
    };
  });
}

/** A day is told only of what is told from standing still. */
function settled(projected: Projection, plateau: Plateau | null): Projection {
  if (projected.kind !== 'on-the-way' || (!plateau && isMoving(projected.trend))) return projected;
  return { kind: plateau?.isStill ? 'standing-still' : 'not-told', trend: projected.trend };
}

const OPPOSITE: Readonly<Partial<Record<Side, Side>>> = { left: 'right', right: 'left' };

function groundOf(series: Series, byKey: ReadonlyMap<string, Series>, { involvedSide, person, normOrder = [] }: ProgressContext) {
  const other = OPPOSITE[series.side];
  const twin = other && byKey.get(series.key.replace(`|${series.side}|`, `|${other}|`));
  const last = series.points[series.points.length - 1]!;
  const norm = judgingNorm(normOrder, normQuery(series, person.sex, ageOn(person.birthDate, last.on)), last.value, last.sem);
  return {
    motion: series.motion,
    otherSide: twin?.points[twin.points.length - 1]?.value,
    otherSideInvolved: involvedSide === 'both' || (involvedSide !== undefined && involvedSide === other),
    norm: norm && { expected: norm.expected, name: norm.setName },
  };
}

/** Without a choice, the sound side is the goal of the involved one, unless a joint was replaced. */
function usualGoal({ side }: Series, { involvedSide, operation }: ProgressContext): GoalChoice | undefined {
  if (involvedSide !== side || findProcedure(operation?.id ?? '')?.isReplacement) return undefined;
  return { source: 'other-side' };
}

const DAY = 86_400_000;

function courseFor(series: Series, { operation, involvedSide }: ProgressContext): SeriesCourse | null {
  const { side } = series;
  if (!operation || (side !== 'midline' && involvedSide !== 'both' && side !== involvedSide)) return null;
  const course = courseOf(operation.id, series);
  if (!course) return null;
  const day = (week: number) => new Date(Date.parse(`${operation.on}T00:00:00Z`) + Math.round(week * 7) * DAY).toISOString().slice(0, 10);
  const standings = series.points.map((point) => {
    const band = bandAt(course, weeksSince(operation.on, point.on));
    return band ? standingIn(band, point.value, point.error) : null;
  });
  return {
    points: course.milestones.map(({ week }) => ({ on: day(week), week, ...bandAt(course, week)! })),
    standings,
    standing: standings[standings.length - 1] ?? null,
    source: `Source: ${course.source.cite} (from memory, confidence ${course.confidence}). ${COURSE_CAUTION}`,
  };
}
