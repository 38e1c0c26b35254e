import type { PastView } from '@dial-gauge/contract';
import { type Session } from '@dial-gauge/core';
import { IsNull } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { PastBatchRow } from '../../records/past/entities.js';

/** Without the rows that were sent: they are large, and nobody reads them here. */
const SHOWN = {
  id: true,
  fileName: true,
  readings: true,
  sessions: true,
  broughtBy: true,
  broughtAt: true,
  undoneAt: true,
  undoneBy: true,
} as const;
export async function pastView(work: UnitOfWork, episodeId: string): Promise<PastView> {
  const { manager, clinicId } = work;
  await work.one(Episode, episodeId, 'episode of care');
  const rows = await manager.find(PastBatchRow, { select: SHOWN, where: { clinicId, episodeId }, order: { broughtAt: 'ASC' } });
  const names = await work.namesOf(rows.flatMap(({ broughtBy, undoneBy }) => [broughtBy, undoneBy]));
  return {
    batches: rows.map(({ id, fileName, readings, sessions, broughtBy, broughtAt, undoneAt, undoneBy }) => ({
      ...{ id, fileName, readings },
      from: sessions[0]?.assessedOn ?? '',
      until: sessions.at(-1)?.assessedOn ?? '',
      by: names.get(broughtBy) ?? '',
      at: broughtAt.toISOString(),
      undone: undoneAt && { by: names.get(undoneBy ?? '') ?? '', at: undoneAt.toISOString() },
    })),
  };
}
/** What was brought in and stands, up to a day. */
export async function pastSessions({ manager, clinicId }: UnitOfWork, episodeId: string, until: string): Promise<Session[]> {
  const rows = await manager.find(PastBatchRow, {
    where: { clinicId, episodeId, undoneAt: IsNull() },
    select: { id: true, sessions: true },
  });
  return rows.flatMap(({ sessions }) => sessions.filter(({ assessedOn }) => assessedOn <= until));
}
