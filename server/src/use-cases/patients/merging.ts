import { In, IsNull } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import { indexWords } from './episodes.js';
import { HttpProblem, idTaken, refused } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Patient, PatientMergeRow } from '../../records/patients/entities.js';
import { sortNameOf } from '../../records/patients/views.js';

/** Both records, held; always in the same order, so that two who merge at once do not wait for each other. */
async function both(work: UnitOfWork, one: string, other: string): Promise<[Patient, Patient]> {
  const held = new Map<string, Patient>();
  for (const id of [one, other].sort()) held.set(id, await work.one(Patient, id, 'patient', 'pessimistic_write'));
  return [held.get(one)!, held.get(other)!];
}
/** The episodes of the other record go to this one. Sent twice it is done once. */
export async function merge(work: UnitOfWork, keptId: string, { id, other }: { id: string; other: string }): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  if (keptId === other) throw refused('other', 'is this record itself; allowed: another record of the same person', 'Nothing was changed.');
  const [kept, gone] = await both(work, keptId, other);
  const before = await manager.findOneBy(PatientMergeRow, { id });
  if (before) {
    if (before.clinicId === clinicId && before.keptId === keptId && before.goneId === other) return;
    throw idTaken('merge');
  }
  mustStandAlone(kept);
  mustStandAlone(gone);
  const episodes = await manager.findBy(Episode, { clinicId, patientId: other });
  const row = { id, clinicId, keptId, goneId: other, mergedBy: caller.userId, mergedAt: now, undoneBy: null, undoneAt: null };
  await manager.insert(PatientMergeRow, { ...row, episodes: episodes.map((episode) => episode.id) });
  await move(work, episodes, kept);
  await manager.update(Patient, { id: other, clinicId }, { mergedInto: keptId });
  await work.log.write('patient', keptId, [['merged', null, { with: other, merge: id }]]);
}
/** Takes them apart again: what came over goes back, and what was begun since stays. @returns the record that was kept */
export async function undoMerge(work: UnitOfWork, id: string): Promise<string> {
  const { manager, clinicId, caller, now } = work;
  const row = await work.one(PatientMergeRow, id, 'merge', 'pessimistic_write');
  if (row.undoneAt) return row.keptId;
  const [kept, gone] = await both(work, row.keptId, row.goneId);
  if (kept.mergedInto)
    throw new HttpProblem(
      409,
      'Went into another record',
      'The record that they are in went into another one since. Take that apart first.',
    );
  const episodes = row.episodes.length > 0 ? await manager.findBy(Episode, { clinicId, id: In(row.episodes), patientId: row.keptId }) : [];
  await move(work, episodes, gone);
  await manager.update(Patient, { id: gone.id, clinicId }, { mergedInto: null });
  await manager.update(PatientMergeRow, { id, clinicId, undoneAt: IsNull() }, { undoneAt: now, undoneBy: caller.userId });
  await work.log.write('patient', row.keptId, [['merged', { with: gone.id, merge: id }, null]]);
  return row.keptId;
}
async function move(work: UnitOfWork, episodes: readonly Episode[], to: Patient): Promise<void> {
  const { manager, clinicId } = work;
  for (const episode of episodes) {
    await manager.update(Episode, { id: episode.id, clinicId }, { patientId: to.id, sortName: sortNameOf(to) });
    await indexWords(work, { ...episode, patientId: to.id });
  }
}
/** @throws a problem where a record went into another one: that is the one to change */
export function mustStandAlone({ mergedInto }: Pick<Patient, 'mergedInto'>): void {
  if (mergedInto)
    throw new HttpProblem(
      409,
      'Went into another record',
      'This record went into another one of the same person. Open that one, or take them apart again.',
    );
}
