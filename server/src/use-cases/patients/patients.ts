import type { NewEpisode, NewPatient, PersonChange } from '@dial-gauge/contract';
import { Episode } from '../../records/episodes/entities.js';
import { indexWords } from './episodes.js';
import { same } from '../../database/change-log.js';
import { dayOf, notInTheFuture } from '../../shared/days.js';
import { changedMeanwhile, refused } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { RANK_NEW } from '../../read-models/caseload/rank.js';
import { Patient } from '../../records/patients/entities.js';
import { mustStandAlone } from './merging.js';
import { sortNameOf } from '../../records/patients/views.js';

/** Adds a patient and the first episode of care. Sent twice they are added once. */
export async function addPatient(work: UnitOfWork, { episode: first, ...person }: NewPatient): Promise<void> {
  const { clinicId, now } = work;
  notInTheFuture('birthDate', person.birthDate, now);
  const patient: Patient = { ...person, clinicId, revision: 0, mergedInto: null };
  const facts = ['givenName', 'familyName', 'birthDate', 'sex', 'occupation', 'gender', 'fileNumber'] as const;
  if (!(await work.insertFact(Patient, patient, 'patient', facts))) return;
  await insertEpisode(work, patient, first);
}
/** Another episode of the same person. Sent twice there is one. */
export async function openEpisode(work: UnitOfWork, patientId: string, episode: NewEpisode): Promise<void> {
  const patient = await work.one(Patient, patientId, 'patient', 'pessimistic_read');
  mustStandAlone(patient);
  await insertEpisode(work, patient, episode);
}
async function insertEpisode(work: UnitOfWork, patient: Patient, first: NewEpisode): Promise<void> {
  const { clinicId, now } = work;
  const episode: Episode = {
    ...first,
    clinicId,
    patientId: patient.id,
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
    sortName: sortNameOf(patient),
    latestAt: now,
    visitCount: 0,
    lastVisitId: null,
    endedOn: null,
    outcome: null,
    endedNote: '',
    endedBy: null,
    rankKey: RANK_NEW,
    queueStanding: null,
    whoseId: work.caller.userId,
    stale: 1,
    staleOn: '1970-01-01',
    messagesSeenAt: null,
  };
  work.markStale('episode', episode.id);
  if (await work.insertFact(Episode, episode, 'episode', ['patientId', 'complaint', 'involvedSide'])) await indexWords(work, episode);
}
const PERSON = ['givenName', 'familyName', 'birthDate', 'sex', 'gender', 'fileNumber', 'occupation'] as const;
/**
 * Puts right who somebody is; refused where somebody else has changed it since
 * it was read. What was signed keeps its own copy. An open visit is judged by
 * what is right, and whoever is about to sign it is told.
 */
export async function changePatient(work: UnitOfWork, id: string, { revision, ...person }: PersonChange): Promise<void> {
  const { manager, clinicId, now } = work;
  const patient = await work.one(Patient, id, 'patient', 'pessimistic_write');
  mustStandAlone(patient);
  notInTheFuture('birthDate', person.birthDate, now);
  const changes = PERSON.map((field) => [field, patient[field], person[field]] as const);
  if (changes.every(([, before, after]) => same(before, after))) return;
  if (patient.revision !== revision) throw changedMeanwhile('Who they are', (await work.log.last('patient', id))?.name ?? 'somebody else');
  const episodes = await manager.findBy(Episode, { clinicId, patientId: id });
  const first = await firstVisitOn(work, id);
  if (first && first < person.birthDate)
    throw refused(
      'birthDate',
      `lies after a visit, on ${first}; allowed: that day or earlier`,
      'Nothing was saved. Correct the fields named and send again.',
    );
  await work.log.write('patient', id, changes);
  await manager.update(Patient, { id, clinicId }, { ...person, revision: revision + 1 });
  await manager.update(Episode, { patientId: id, clinicId }, { sortName: sortNameOf(person) });
  for (const episode of episodes) await indexWords(work, episode);
}
async function firstVisitOn({ manager, clinicId }: UnitOfWork, patientId: string): Promise<string | null> {
  const [row] = await manager.query<{ first: string | null }[]>(
    'SELECT MIN(v.assessed_on) AS first FROM visit v JOIN episode e ON e.clinic_id = v.clinic_id AND e.id = v.episode_id WHERE e.clinic_id = ? AND e.patient_id = ?',
    [clinicId, patientId],
  );
  return row?.first ?? null;
}
