import { randomUUID } from 'node:crypto';
import type { GoalChange } from '@dial-gauge/contract';
import { Episode } from '../../records/episodes/entities.js';
import { same } from '../../database/change-log.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { mustTakeChanges } from '../../records/visits/open.js';
import { GoalRow } from '../../records/goals/entities.js';
import { type Way, keyOfWay, goalsOf } from '../../read-models/goals/goals.js';

export async function setGoal(work: UnitOfWork, episodeId: string, { goal, protocol, digit, side, mode }: GoalChange): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  await work.one(Episode, episodeId, 'episode of care', 'pessimistic_write');
  const way: Way = { protocol, side, mode, ...(digit ? { digit } : {}) };
  const stands = (await goalsOf(work, episodeId)).find((view) => keyOfWay(view) === keyOfWay(way));
  if (same(stands?.goal ?? null, goal)) return;
  await mustTakeChanges(work, episodeId);
  await manager.insert(GoalRow, {
    id: randomUUID(),
    clinicId,
    episodeId,
    protocol,
    digit: digit ?? 0,
    side,
    mode,
    choice: goal,
    setBy: caller.userId,
    setAt: now,
  });
}
