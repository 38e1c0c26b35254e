import type { LateEntry } from '@dial-gauge/contract';
import { IsNull } from 'typeorm';
import { type UnitOfWork } from '../../database/unit-of-work.js';
import { LateEntryRow } from '../../records/late-entries/entities.js';

/** What of a visit waits to be looked at, oldest first. */
export async function lateEntries(work: UnitOfWork, visitId: string): Promise<LateEntry[]> {
  const { clinicId, manager } = work;
  const rows = await manager.find(LateEntryRow, { where: { clinicId, visitId, decision: IsNull() }, order: { receivedAt: 'ASC' } });
  const names = await work.namesOf(rows.map((row) => row.enteredBy));
  return rows.map(({ id, what, enteredBy, enteredAt, receivedAt }) => ({
    id,
    what,
    by: names.get(enteredBy) ?? '',
    enteredAt: enteredAt.toISOString(),
    receivedAt: receivedAt.toISOString(),
  }));
}
