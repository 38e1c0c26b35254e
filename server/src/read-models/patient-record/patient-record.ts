import type { PatientRecord, PersonChanges } from '@dial-gauge/contract';
import { Episode } from '../../records/episodes/entities.js';
import { episodeView } from '../../records/episodes/views.js';
import { ChangeRow } from '../../database/change-log.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { visitViews } from '../visit-record/record.js';
import { Patient } from '../../records/patients/entities.js';
import { likelyDoubles, mergesOf } from './doubles.js';
import { patientView } from '../../records/patients/views.js';

export async function patientRecord(work: UnitOfWork, id: string): Promise<PatientRecord> {
  const { manager, clinicId } = work;
  const patient = await work.one(Patient, id, 'patient');
  const episodes = await manager.find(Episode, { where: { patientId: id, clinicId }, order: { openedOn: 'DESC', id: 'DESC' } });
  const visits = await visitViews(
    work,
    episodes.map((episode) => episode.id),
  );
  const names = await work.namesOf(episodes.map(({ endedBy }) => endedBy));
  const { gender, fileNumber, revision, mergedInto } = patient;
  return {
    patient: { ...patientView(patient), gender, fileNumber, revision },
    mergedInto,
    episodes: episodes.map((e) => ({
      ...episodeView(e),
      ended:
        e.endedOn === null
          ? null
          : { on: e.endedOn, outcome: e.outcome ?? 'other', note: e.endedNote, by: names.get(e.endedBy ?? '') ?? '' },
      visits: visits.get(e.id) ?? [],
    })),
    doubles: mergedInto ? [] : await likelyDoubles(work, patient),
    merges: await mergesOf(work, id),
  };
}
export async function personChanges(work: UnitOfWork, id: string): Promise<PersonChanges> {
  const { manager, clinicId } = work;
  await work.one(Patient, id, 'patient');
  const rows = await manager.find(ChangeRow, {
    where: { clinicId, subject: 'patient', subjectId: id },
    order: { changedAt: 'DESC' },
    take: 200,
  });
  const names = await work.namesOf(rows.map(({ userId }) => userId));
  return rows.map(({ changedAt, userId, field, oldValue, newValue }) => ({
    at: changedAt.toISOString(),
    by: names.get(userId) ?? '',
    field,
    before: oldValue,
    after: newValue,
  }));
}
