import { protocolOf } from '../catalogue/index.js';
import { findProcedure, type UsualLimit } from '../procedure/index.js';
import type { Digit, IsoDate, Mode, MotionId, Position } from '../terms.js';
import { COURSES, type Course } from './milestones.js';

/** What was done to the joint, and when. */
export interface Operation {
  /** Id of a procedure that the program knows. */
  readonly id: string;
  readonly on: IsoDate;
}

/** Where most are on one day. The high end is missing where nobody states one. */
export interface CourseBand {
  readonly low: number;
  readonly high: number | null;
}

/** The usual course of a way of measuring after a procedure, where one is known. */
export function courseOf(
  procedure: string,
  way: { readonly motion: MotionId; readonly mode: Mode; readonly position: Position; readonly protocol?: string; readonly digit?: Digit },
): Course | undefined {
  const { variant } = protocolOf(way);
  return COURSES.find(
    (course) =>
      course.procedure === procedure &&
      course.motion === way.motion &&
      (course.mode === undefined || course.mode === way.mode) &&
      (course.variants === undefined || course.variants.includes(variant)),
  );
}

/**
 * The band of a course at a week: a straight line between the milestones. An
 * open high end is taken between the milestones that have one. Nothing is
 * usual past a limit that is usual after the same procedure in that week.
 *
 * @returns undefined before the first and after the last milestone: nobody says what is usual there; and where it may not be done
 * @example bandAt(kneeFlexionAfterReplacement, 4) // { low: 97.5, high: 105… }
 */
export function bandAt(course: Course, week: number): CourseBand | undefined {
  const band = bandBetween(course, week);
  if (!band) return undefined;
  const limits = limitsIn(course, week);
  return limits.some(({ limit }) => limit === null) ? undefined : limits.reduce((within, { limit }) => upTo(within, limit!), band);
}

/** Up to a limit and no further. */
export const upTo = ({ low, high }: CourseBand, limit: number): CourseBand => ({
  low: Math.min(low, limit),
  high: high === null ? null : Math.min(high, limit),
});

/** What keeps the motion of a course from going further, or from being done at all, in a week. */
const limitsIn = ({ procedure, motion, mode }: Course, week: number): readonly UsualLimit[] =>
  (findProcedure(procedure)?.limits ?? []).filter(
    (by) =>
      by.motion === motion &&
      by.with === undefined &&
      (by.kind === 'range' || (by.kind === 'against-gravity' && mode === 'active')) &&
      (by.mode === undefined || mode === undefined || by.mode === mode) &&
      (by.untilWeek === null || week < by.untilWeek),
  );

function bandBetween({ milestones }: Course, week: number): CourseBand | undefined {
  const low = between(
    milestones.map((m) => [m.week, m.low]),
    week,
  );
  if (low === undefined) return undefined;
  const high = between(
    milestones.flatMap((m) => (m.high === null ? [] : [[m.week, m.high] as const])),
    week,
  );
  return { low, high: high === undefined ? null : Math.max(low, high) };
}

function between(points: readonly (readonly [week: number, value: number])[], week: number): number | undefined {
  const after = points.findIndex(([at]) => at >= week);
  if (after < 0) return undefined;
  const [nextWeek, next] = points[after]!;
  if (nextWeek === week) return next;
  const before = points[after - 1];
  return before && before[1] + ((next - before[1]) * (week - before[0])) / (nextWeek - before[0]);
}

/** Against the usual course, with the error of the reading: only what lies clear of the band counts. */
export type CourseStanding = 'ahead' | 'on' | 'behind';

/** @param error half-width of the 95 % band round the reading, in its unit */
export function standingIn(band: CourseBand, value: number, error: number): CourseStanding {
  if (value + error < band.low) return 'behind';
  return band.high !== null && value - error > band.high ? 'ahead' : 'on';
}
