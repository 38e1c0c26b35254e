import type { RetestsView, RetestView } from '@dial-gauge/contract';
import { errorContextOf } from '@dial-gauge/contract';
import {
  judgeRetest,
  protocolOfId,
  rememberDrills,
  type DrillMemory,
  type ErrorContext,
  type JudgedRound,
  type Marker,
} from '@dial-gauge/core';
import { In } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import { grouped } from '../../shared/grouped.js';
import { type UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from '../../records/visits/entities.js';
import { visitRecord } from '../visit-record/record.js';
import { RetestReadingRow, RetestRoundRow, RetestRow } from '../../records/retests/entities.js';

export async function retestsView(work: UnitOfWork, visitId: string): Promise<RetestsView> {
  const { visit, patient, episode, ownErrors, valueChecks, measurements } = await visitRecord(work, visitId);
  return {
    visit,
    patient,
    episode,
    ownErrors,
    valueChecks: valueChecks.filter(({ kind }) => kind === 'errors'),
    measured: measurements.filter((m) => m.trials.length > 0),
    retests: (await retestsOf(work, [visitId])).map(({ view }) => view),
    memory: await drillMemory(work, visitId, { patient, episode, ownErrors, valueChecks }),
  };
}
/** What drills did to a patient in the retests so far, with those that are finished at this visit. */
export async function drillMemory(
  work: UnitOfWork,
  visitId: string,
  { patient, episode, ownErrors, valueChecks }: Pick<RetestsView, 'patient' | 'episode' | 'ownErrors' | 'valueChecks'>,
): Promise<DrillMemory[]> {
  const context = errorContextOf({ ownErrors, valueChecks, episode });
  return rememberDrills(await judgedBefore(work, visitId, patient.id, context));
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
