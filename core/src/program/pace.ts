import type { MeasurementKey } from '../assessment.js';
import { findMotion } from '../catalogue/index.js';
import { compareDays, weeksBetween } from '../days.js';
import { changeAt, isMoving, type ProgressSeries } from '../progress/index.js';
import type { IsoDate } from '../terms.js';
import type { DrillSide } from './choose.js';
import { DRILLS, findDrill } from './list.js';
import type { Unchanged } from './program.js';
import type { Drill } from './drills/types.js';

/** A drill that is being done, and since when without a break. */
export interface Running {
  readonly drill: string;
  readonly side: DrillSide;
  readonly since: IsoDate;
}

/** Change a week of what moves, for better positive. What is not told from standing still has no pace. */
export function slopesOf(series: readonly ProgressSeries[]): ReadonlyMap<MeasurementKey, number> {
  return new Map(
    series.flatMap(({ key, motion: id, recent, trend }) => {
      const told = recent ?? trend;
      if (!told || !isMoving(told)) return [];
      return [[key, findMotion(id)!.better === 'less' ? -told.perWeek : told.perWeek] as const];
    }),
  );
}

/**
 * What drills have been answering while its readings did not really change:
 * from the last reading before they began to the newest one. A goal that is
 * reached, and a motion that was not measured again, say nothing.
 */
export function unchangedSince(
  series: readonly ProgressSeries[],
  running: readonly Running[],
  on: IsoDate,
  drills: readonly Drill[] = DRILLS,
): Unchanged[] {
  const found = new Map<string, Unchanged>();
  for (const { drill: id, side, since } of running) {
    const drill = findDrill(id, drills);
    if (!drill) continue;
    for (const one of series) {
      if (!isServed(one, drill, side) || !standsStill(one, since)) continue;
      const weeks = Math.floor(weeksBetween(since, on));
      const key = `${one.motion} ${one.side}`;
      if (weeks > (found.get(key)?.weeks ?? 0)) found.set(key, { motion: one.motion, side: one.side, weeks });
    }
  }
  return [...found.values()];
}

/** Whether a drill on a side serves what a series is of. */
const isServed = (one: ProgressSeries, drill: Drill, side: Running['side']): boolean =>
  drill.serves.includes(one.motion) && (side === 'both' || side === 'midline' || one.side === side);

/** Short of its goal, and no more than its error away from where it was on a day. */
function standsStill(one: ProgressSeries, since: IsoDate): boolean {
  if (!one.isCurrent || one.projection?.kind === 'reached') return false;
  const before = one.points.filter((point) => compareDays(point.on, since) <= 0).length - 1;
  return changeAt(one, Math.max(0, before))?.verdict === 'within-error';
}
