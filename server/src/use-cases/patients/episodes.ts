import type { EpisodeView, IntakeChange } from '@dial-gauge/contract';
import type { QueryDeepPartialEntity } from 'typeorm';
import { Patient } from '../../records/patients/entities.js';
import { same } from '../../database/change-log.js';
import { notBeforeBirth } from '../../shared/days.js';
import { changedMeanwhile } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { mustTakeChanges } from '../../records/visits/open.js';
import { Episode, EpisodeWord } from '../../records/episodes/entities.js';
import { episodeView } from '../../records/episodes/views.js';
import { wordsOf } from '../../records/episodes/words.js';

const INTAKE = [
  'complaint',
  'involvedSide',
  'complaintAt',
  'procedureId',
  'procedure',
  'procedureOn',
  'dominantSide',
  'wanted',
  'precautions',
  'dueOn',
] as const;

/** Changes what an episode is about; refused where somebody else has changed it since it was read. */
export async function setIntake(work: UnitOfWork, id: string, { revision, ...intake }: IntakeChange): Promise<EpisodeView> {
  const { clinicId, manager } = work;
  const episode = await work.one(Episode, id, 'episode of care', 'pessimistic_write');
  const stood = { ...episode, precautions: episode.precautions ?? [] };
  const changes = INTAKE.map((field) => [field, stood[field], intake[field]] as const);
  if (changes.every(([, before, after]) => same(before, after))) return episodeView(episode);
  await mustTakeChanges(work, id);
  if (episode.revision !== revision) throw changedMeanwhile('The intake', (await work.log.last('episode', id))?.name ?? 'somebody else');
  if (intake.procedureOn)
    notBeforeBirth('procedureOn', intake.procedureOn, (await work.one(Patient, episode.patientId, 'patient')).birthDate);
  const changed = await work.log.write('episode', id, changes);
  await manager.update(Episode, { id, clinicId }, { ...intake, revision: revision + 1 } as QueryDeepPartialEntity<Episode>);
  const now = await work.one(Episode, id, 'episode of care');
  if (changed.includes('complaint')) await indexWords(work, now);
  return episodeView(now);
}

/** Keeps the words an episode is found by. */
export async function indexWords(
  { manager, clinicId }: UnitOfWork,
  { id, patientId, complaint }: Pick<Episode, 'id' | 'patientId' | 'complaint'>,
) {
  const { givenName, familyName, birthDate, fileNumber } = await manager.findOneByOrFail(Patient, { id: patientId, clinicId });
  await manager.delete(EpisodeWord, { clinicId, episodeId: id });
  const words = wordsOf(givenName, familyName, complaint, fileNumber, birthDate);
  if (words.length > 0)
    await manager.insert(
      EpisodeWord,
      words.map((word) => ({ clinicId, word, episodeId: id })),
    );
}
