import type { NewPast } from '@dial-gauge/contract';
import { readPast } from '@dial-gauge/core';
import { IsNull } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import { Patient } from '../../records/patients/entities.js';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { PastBatchRow } from '../../records/past/entities.js';

/** So many refused cells are told; the rest is counted. */
const MOST_TOLD = 200;
/** Brings in all rows or none. What was looked at before is looked at again here, by the same rules. */
export async function bringIn(work: UnitOfWork, episodeId: string, { id, fileName, rows, choices }: NewPast): Promise<void> {
  work.markStale('episode', episodeId);
  const { clinicId, caller, now } = work;
  const episode = await work.one(Episode, episodeId, 'episode of care');
  const patient = await work.one(Patient, episode.patientId, 'patient');
  const today = now.toISOString().slice(0, 10);
  const { sessions, readings, refused } = readPast(rows, choices, { birthDate: patient.birthDate, today });
  if (refused.length > 0) {
    const errors = refused.slice(0, MOST_TOLD).map(({ line, column, message }) => ({ path: `line ${line}, ${column}`, message }));
    throw new HttpProblem(422, 'Not brought in', `${refused.length} cells cannot be read, so nothing was brought in.`, { errors });
  }
  if (readings === 0)
    throw new HttpProblem(422, 'Not brought in', 'No row holds a reading.', {
      errors: [{ path: 'rows', message: 'hold no reading; allowed: at least one' }],
    });
  const row: PastBatchRow = {
    ...{ id, clinicId, episodeId, fileName, readings },
    kept: { rows, choices },
    sessions: [...sessions],
    ...{ broughtBy: caller.userId, broughtAt: now, undoneAt: null, undoneBy: null },
  };
  if (await work.insertFact(PastBatchRow, row, 'list', ['episodeId', 'fileName', 'kept']))
    await work.log.write('episode', episodeId, [['past', null, { id, fileName, readings }]]);
}
/** Undoes all of it. It stays on record, and takes part in nothing. @returns its episode */
export async function undoPast(work: UnitOfWork, id: string): Promise<string> {
  const { manager, clinicId, caller, now } = work;
  const { episodeId, fileName, readings } = await work.one(PastBatchRow, id, 'list');
  const { affected } = await manager.update(PastBatchRow, { id, clinicId, undoneAt: IsNull() }, { undoneAt: now, undoneBy: caller.userId });
  if (affected) await work.log.write('episode', episodeId, [['past', { id, fileName, readings }, null]]);
  return episodeId;
}
