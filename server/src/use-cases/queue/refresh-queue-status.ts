import { ON_THE_WAY, queueStandingOf } from '@dial-gauge/core';
import { IsNull } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import { LateEntryRow } from '../../records/late-entries/entities.js';
import { loggedDays } from '../../read-models/patient-log/logged.js';
import { dayOf } from '../../shared/days.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { progressView } from '../../read-models/progress/progress.js';
import { RANK_NEW, rankKeyOf } from '../../read-models/caseload/rank.js';
import { Visit } from '../../records/visits/entities.js';

/**
 * Tells anew where an episode stands in the queue. Nothing is locked while it
 * is told: where something was entered meanwhile it stays stale and is told
 * once more.
 */
export async function refreshQueueStatus(work: UnitOfWork, episodeId: string): Promise<void> {
  const { manager, clinicId, now } = work;
  const before = await manager
    .createQueryBuilder(Episode, 'e')
    .select(['e.id', 'e.stale', 'e.dueOn', 'e.lastVisitId', 'e.endedOn', 'e.openedOn', 'e.messagesSeenAt'])
    .where('e.clinicId = :clinicId AND e.id = :episodeId', { clinicId, episodeId })
    .getOne();
  if (!before) return;
  const { dueOn, lastVisitId, stale } = before;
  const visit = lastVisitId === null ? null : await manager.findOneBy(Visit, { id: lastVisitId, clinicId });
  const atVisit = visit ? await standingAtVisit(work, visit) : BEFORE_THE_FIRST_VISIT;
  const seenUntil = Math.max(visit?.startedAt.getTime() ?? 0, before.messagesSeenAt?.getTime() ?? 0);
  const messages = (await loggedDays(work, episodeId)).filter(({ receivedAt }) => Date.parse(receivedAt) > seenUntil);
  const standing = queueStandingOf({
    today: dayOf(now),
    dueOn,
    messages,
    ...atVisit,
  });
  const rankKey = standing.urgency === ON_THE_WAY && !visit ? RANK_NEW : rankKeyOf(standing);
  await manager.query(
    `UPDATE episode SET rank_key = ?, queue_standing = ?, whose_id = ?, stale_on = ?, stale = IF(stale = ?, 0, stale)
     WHERE clinic_id = ? AND id = ?`,
    [rankKey, JSON.stringify(standing), visit?.examinerId ?? null, standing.next, stale, clinicId, episodeId],
  );
}

type AtVisit = Pick<Parameters<typeof queueStandingOf>[0], 'lastVisit' | 'late' | 'series' | 'involvedSide'>;
const BEFORE_THE_FIRST_VISIT: AtVisit = { lastVisit: null, late: 0, series: [] };

async function standingAtVisit(work: UnitOfWork, { id, assessedOn, signed }: Visit): Promise<AtVisit> {
  const { manager, clinicId } = work;
  const { visits, series, episode } = await progressView(work, id);
  return {
    lastVisit: { on: assessedOn, isSigned: signed, readings: visits.at(-1)?.readings ?? 0 },
    late: await manager.countBy(LateEntryRow, { clinicId, visitId: id, decision: IsNull() }),
    series,
    involvedSide: episode.involvedSide ?? undefined,
  };
}
