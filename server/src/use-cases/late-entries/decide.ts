import type { UnitOfWork } from '../../database/unit-of-work.js';
import { LateEntryRow } from '../../records/late-entries/entities.js';
import { openVisit } from '../../records/visits/open.js';
import { HttpProblem } from '../../shared/problems.js';

/** Gets an entry into its visit after all: as it would have, had it come in time. */
export type Replay = (work: UnitOfWork, entry: Pick<LateEntryRow, 'route' | 'target' | 'body'>) => Promise<unknown>;

/** Takes an entry into its visit, under the name of whoever entered it. @returns the visit */
export async function takeLate(work: UnitOfWork, id: string, replay: Replay): Promise<string> {
  const row = await undecided(work, id);
  await openVisit(work, row.visitId, 'pessimistic_write');
  const asEntered = work.as({ ...work.caller, userId: row.enteredBy, name: await work.nameOf(row.enteredBy) });
  await replay(asEntered, row);
  await decide(work, row, 'taken', '');
  return row.visitId;
}
/** Leaves an entry out; it stays on record with the reason. @returns the visit */
export async function dismissLate(work: UnitOfWork, id: string, why: string): Promise<string> {
  const row = await undecided(work, id);
  await decide(work, row, 'left-out', why);
  work.markStale('visit', row.visitId);
  return row.visitId;
}
async function undecided(work: UnitOfWork, id: string): Promise<LateEntryRow> {
  const row = await work.one(LateEntryRow, id, 'late entry', 'pessimistic_write');
  if (row.decision)
    throw new HttpProblem(
      409,
      'Decided already',
      `${await work.nameOf(row.decidedBy!)} has decided on this entry meanwhile. Look at what stands there now.`,
    );
  return row;
}
async function decide(
  { manager, clinicId, caller, now }: UnitOfWork,
  { id }: LateEntryRow,
  decision: 'taken' | 'left-out',
  decidedWhy: string,
): Promise<void> {
  await manager.update(LateEntryRow, { id, clinicId }, { decision, decidedBy: caller.userId, decidedAt: now, decidedWhy });
}
