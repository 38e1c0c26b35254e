import type { MarkerReading, NewRetest, NewRound, RetestsView, RetestView } from '@dial-gauge/contract';
import { operationOf } from '@dial-gauge/contract';
import {
  checkValue,
  judgeRetest,
  protocolOfId,
  rememberDrills,
  type DrillMemory,
  type ErrorContext,
  type JudgedRound,
  type Marker,
} from '@dial-gauge/core';
import { In } from 'typeorm';
import { Episode } from '../episodes/entities.js';
import { grouped } from '../platform/grouped.js';
import { HttpProblem, refused } from '../platform/problems.js';
import { isDuplicate, type UnitOfWork } from '../platform/unit-of-work.js';
import { Visit } from '../visits/entities.js';
import { openVisit } from '../visits/open.js';
import { visitRecord } from '../visits/record.js';
import { RetestReadingRow, RetestRoundRow, RetestRow } from './entities.js';

export async function retestsView(work: UnitOfWork, visitId: string): Promise<RetestsView> {
  const { visit, patient, episode, ownErrors, measurements } = await visitRecord(work, visitId);
  return {
    visit,
    patient,
    episode,
    ownErrors,
    measured: measurements.filter((m) => m.trials.length > 0),
    retests: (await retestsOf(work, [visitId])).map(({ view }) => view),
    memory: await drillMemory(work, visitId, { patient, episode, ownErrors }),
  };
}

/** What drills did to a patient in the retests so far, with those that are finished at this visit. */
export async function drillMemory(
  work: UnitOfWork,
  visitId: string,
  { patient, episode, ownErrors }: Pick<RetestsView, 'patient' | 'episode' | 'ownErrors'>,
): Promise<DrillMemory[]> {
  const context = { own: ownErrors, procedure: operationOf(episode)?.id };
  return rememberDrills(await judgedBefore(work, visitId, patient.id, context));
}

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

async function retestsOf(work: UnitOfWork, visitIds: readonly string[]): Promise<{ visitId: string; view: RetestView }[]> {
  const { clinicId, manager } = work;
  if (visitIds.length === 0) return [];
  const all = await manager.find(RetestRow, { where: { clinicId, visitId: In([...visitIds]) }, order: { startedAt: 'ASC' } });
  // One whose markers this version does not know says nothing here; it stays on record.
  const rows = all.filter((row) => row.markers.every((marker) => protocolOfId(marker.protocol)));
  if (rows.length === 0) return [];
  const where = { clinicId, retestId: In(rows.map((row) => row.id)) };
  const drills = grouped(await manager.find(RetestRoundRow, { where, order: { number: 'ASC' } }), (round) => round.retestId);
  const readings = grouped(await manager.find(RetestReadingRow, { where, order: { heldAt: 'ASC' } }), (reading) => reading.retestId);
  const names = await work.namesOf(rows.map((row) => row.startedBy));
  return rows.map((row) => {
    const latest = new Map((readings.get(row.id) ?? []).map((reading) => [`${reading.round} ${reading.marker}`, reading.value]));
    return {
      visitId: row.visitId,
      view: {
        id: row.id,
        markers: row.markers,
        rounds: ['', ...(drills.get(row.id) ?? []).map((round) => round.drill)].map((drill, round) => ({
          drill,
          values: row.markers.map((_, marker) => latest.get(`${round} ${marker}`) ?? null),
        })),
        by: names.get(row.startedBy) ?? '',
        startedAt: row.startedAt.toISOString(),
        finishedAt: row.finishedAt?.toISOString() ?? null,
      },
    };
  });
}

/** What was tried with this patient before, judged. */
async function judgedBefore(work: UnitOfWork, visitId: string, patientId: string, context: ErrorContext): Promise<JudgedRound[][]> {
  const { clinicId, manager } = work;
  const episodes = await manager.find(Episode, { where: { clinicId, patientId }, select: { id: true } });
  const visits = await manager.find(Visit, { where: { clinicId, episodeId: In(episodes.map((e) => e.id)) }, select: { id: true } });
  const retests = await retestsOf(
    work,
    visits.map((visit) => visit.id),
  );
  // One that is still being done at this visit says nothing yet.
  return retests
    .filter((retest) => retest.visitId !== visitId || retest.view.finishedAt !== null)
    .map(({ view }) => judgeRetest(view.markers.map(markerOf), view.rounds, context));
}

/** A marker as the core reads it. */
function markerOf(marker: RetestView['markers'][number]): Marker {
  return { ...marker, motion: protocolOfId(marker.protocol)!.motion };
}

const taken = (message: string): HttpProblem => new HttpProblem(409, 'Changed meanwhile', `Nothing was saved: ${message}.`);
