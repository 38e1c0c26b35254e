import type { GoalView } from '@dial-gauge/contract';
import { measurementKey, protocolOfId, type Digit, type GoalChoice } from '@dial-gauge/core';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { GoalRow } from '../../records/goals/entities.js';

export type Way = Pick<GoalView, 'protocol' | 'digit' | 'side' | 'mode'>;
/** The key of a measurement by its protocol. */
export function keyOfWay({ protocol, digit, side, mode }: Way): string {
  return measurementKey({ ...protocolOfId(protocol)!, protocol, digit, side, mode });
}
/** Goals of an episode that stand. Each one set is a row of its own; the latest counts. */
export async function goalsOf({ manager, clinicId }: UnitOfWork, episodeId: string): Promise<GoalView[]> {
  const rows = await manager.find(GoalRow, { where: { clinicId, episodeId }, order: { setAt: 'ASC' } });
  const latest = new Map<string, GoalView | null>();
  for (const { protocol, digit, side, mode, choice } of rows) {
    // A way that this version does not know has no series to aim at.
    if (!protocolOfId(protocol)) continue;
    const way: Way = { protocol, side, mode, ...(digit ? { digit: digit as Digit } : {}) };
    latest.set(keyOfWay(way), choice && { ...way, goal: choice });
  }
  return [...latest.values()].filter((view) => view !== null);
}
/** Goals by the key of their series, as the core takes them. */
export function goalsByKey(goals: readonly GoalView[]): Map<string, GoalChoice> {
  return new Map(goals.map((view) => [keyOfWay(view), view.goal]));
}
