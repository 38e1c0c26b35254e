import type { MarkerReading, NewRetest, NewRound } from '@dial-gauge/contract';
import { checkValue, protocolOfId } from '@dial-gauge/core';
import { HttpProblem, refused } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { openVisit } from '../../records/visits/open.js';
import { RetestReadingRow, RetestRoundRow, RetestRow } from '../../records/retests/entities.js';

export async function startRetest(work: UnitOfWork, visitId: string, { id, markers }: NewRetest): Promise<string> {
  const { clinicId, caller, now, manager } = work;
  if (!(await manager.existsBy(RetestRow, { id, clinicId, visitId }))) await openVisit(work, visitId);
  const retest: RetestRow = { id, clinicId, visitId, markers, startedBy: caller.userId, startedAt: now, finishedAt: null };
  await work.insertFact(RetestRow, retest, 'retest', ['visitId', 'markers']);
  return visitId;
}
/** @returns the visit it belongs to */
export async function noteDrill(work: UnitOfWork, retestId: string, { id, number, drill }: NewRound): Promise<string> {
  const { clinicId, manager, caller, now } = work;
  const retest = await find(work, retestId);
  const row: RetestRoundRow = { id, clinicId, retestId, number, drill, notedBy: caller.userId, notedAt: now };
  if (!(await manager.existsBy(RetestRoundRow, { id }))) {
    await mustTakeMore(work, retest);
    const there = await manager.findOneBy(RetestRoundRow, { clinicId, retestId, number });
    if (there) throw taken(`round ${number} has its drill already: ${there.drill}`);
    if (number !== 1 + (await rounds(work, retestId))) throw refused('number', 'is out of turn; allowed: the next round');
  }
  try {
    await work.insertFact(RetestRoundRow, row, 'round', ['retestId', 'number', 'drill']);
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw taken(`round ${number} has its drill already`);
  }
  return retest.visitId;
}
/** @returns the visit it belongs to */
export async function readMarker(work: UnitOfWork, retestId: string, { id, round, marker, value }: MarkerReading): Promise<string> {
  const { clinicId, manager, caller, now } = work;
  const retest = await find(work, retestId);
  const row: RetestReadingRow = { id, clinicId, retestId, round, marker, value, heldBy: caller.userId, heldAt: now };
  if (!(await manager.existsBy(RetestReadingRow, { id }))) {
    await mustTakeMore(work, retest);
    const of = retest.markers[marker];
    if (!of) throw refused('marker', `is not one of the ${retest.markers.length} markers; allowed: 0 to ${retest.markers.length - 1}`);
    const wrong = checkValue(protocolOfId(of.protocol)!.motion, of.instrument, value);
    if (wrong) throw refused('value', wrong);
    if (round > (await rounds(work, retestId)))
      throw refused('round', 'has no drill yet; allowed: the baseline, or a round whose drill is noted');
  }
  await work.insertFact(RetestReadingRow, row, 'reading', ['retestId', 'round', 'marker', 'value']);
  return retest.visitId;
}
/** @returns the visit it belongs to */
export async function finishRetest(work: UnitOfWork, retestId: string): Promise<string> {
  const retest = await find(work, retestId);
  if (retest.finishedAt) return retest.visitId;
  await openVisit(work, retest.visitId);
  await work.manager.update(RetestRow, { id: retestId, clinicId: work.clinicId }, { finishedAt: work.now });
  return retest.visitId;
}
/** Held, so that two who write to one retest come one after the other. */
const find = (work: UnitOfWork, id: string): Promise<RetestRow> => work.one(RetestRow, id, 'retest', 'pessimistic_write');
const rounds = ({ manager, clinicId }: UnitOfWork, retestId: string): Promise<number> =>
  manager.countBy(RetestRoundRow, { clinicId, retestId });
async function mustTakeMore(work: UnitOfWork, { visitId, finishedAt }: RetestRow): Promise<void> {
  if (finishedAt) throw taken('this retest is finished; begin another one');
  await openVisit(work, visitId);
}
const taken = (message: string): HttpProblem => new HttpProblem(409, 'Changed meanwhile', `Nothing was saved: ${message}.`);
