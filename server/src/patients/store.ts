import type { NewPatient, PatientRecord } from '@dial-gauge/contract';
import { Episode } from '../episodes/entities.js';
import { indexWords } from '../episodes/store.js';
import { episodeView } from '../episodes/views.js';
import { dayOf, notInTheFuture } from '../platform/days.js';
import type { UnitOfWork } from '../platform/unit-of-work.js';
import { visitViews } from '../visits/record.js';
import { Patient } from './entities.js';
import { patientView } from './views.js';

export async function patientRecord(work: UnitOfWork, id: string): Promise<PatientRecord> {
  const { manager, clinicId } = work;
  const patient = await work.one(Patient, id, 'patient');
  const episodes = await manager.find(Episode, { where: { patientId: id, clinicId }, order: { openedOn: 'DESC' } });
  const visits = await visitViews(
    work,
    episodes.map((episode) => episode.id),
  );
  return { patient: patientView(patient), episodes: episodes.map((e) => ({ ...episodeView(e), visits: visits.get(e.id) ?? [] })) };
}

/** Adds a patient and the first episode of care. Sent twice they are added once. */
export async function addPatient(work: UnitOfWork, { episode: first, ...person }: NewPatient): Promise<void> {
  const { clinicId, now } = work;
  notInTheFuture('birthDate', person.birthDate, now);
  const patient: Patient = { ...person, clinicId };
  if (!(await work.insertFact(Patient, patient, 'patient', ['givenName', 'familyName', 'birthDate', 'sex', 'occupation']))) return;
  const episode: Episode = {
    ...first,
    clinicId,
    patientId: person.id,
    openedOn: dayOf(now),
    procedureId: null,
    procedure: '',
    procedureOn: null,
    dominantSide: null,
    wanted: '',
    complaintAt: null,
    precautions: [],
    revision: 0,
    dueOn: null,
    sortName: sortNameOf(person),
    latestAt: now,
    visitCount: 0,
    lastVisitId: null,
  };
  await work.insertFact(Episode, episode, 'episode', ['patientId']);
  await indexWords(work, episode);
}

/** What a caseload is ordered by: the family name first. */
export const sortNameOf = ({ familyName, givenName }: Pick<Patient, 'familyName' | 'givenName'>): string => `${familyName}, ${givenName}`;
