import type {
  Correction,
  MarkerReading,
  NewReading,
  NewRetest,
  NewRound,
  NewScreenTry,
  Remark,
  ScreenCorrection,
} from '@dial-gauge/contract';
import { HttpProblem } from '../../shared/problems.js';
import { UnitOfWork } from '../../database/unit-of-work.js';
import { correct, hold, remark, withdraw } from '../measuring/readings.js';
import { noteDrill, readMarker, startRetest } from '../retesting/retests.js';
import { correctScreenTry, holdScreenTry } from '../screening/tries.js';
import { openVisit } from '../../records/visits/open.js';
import { LateEntryRow } from '../../records/late-entries/entities.js';

/** How each kind of late entry gets into the visit after all: as it would have, had it come in time. */
const REPLAY: Readonly<Record<string, (work: UnitOfWork, target: string, body: unknown) => Promise<unknown>>> = {
  holdReading: (work, target, body) => hold(work, target, body as NewReading, { ahead: null }),
  correctReading: (work, target, body) => correct(work, target, body as Correction),
  withdrawReading: (work, target) => withdraw(work, target),
  remark: (work, target, body) => remark(work, target, body as Remark),
  startRetest: (work, target, body) => startRetest(work, target, body as NewRetest),
  noteDrill: (work, target, body) => noteDrill(work, target, body as NewRound),
  readMarker: (work, target, body) => readMarker(work, target, body as MarkerReading),
  holdScreenTry: (work, target, body) => holdScreenTry(work, target, body as NewScreenTry),
  correctScreenTry: (work, target, body) => correctScreenTry(work, target, body as ScreenCorrection),
};
/** Takes an entry into its visit, under the name of whoever entered it. @returns the visit */
export async function takeLate(work: UnitOfWork, id: string): Promise<string> {
  const row = await undecided(work, id);
  await openVisit(work, row.visitId, 'pessimistic_write');
  const asEntered = new UnitOfWork(
    work.manager,
    { ...work.caller, userId: row.enteredBy, name: await work.nameOf(row.enteredBy) },
    work.now,
  );
  await REPLAY[row.route]!(asEntered, row.target, row.body);
  await decide(work, row, 'taken', '');
  return row.visitId;
}
/** Leaves an entry out; it stays on record with the reason. @returns the visit */
export async function dismissLate(work: UnitOfWork, id: string, why: string): Promise<string> {
  const row = await undecided(work, id);
  await decide(work, row, 'left-out', why);
  work.touch('visit', row.visitId);
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
