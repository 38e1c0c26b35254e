import { randomUUID } from 'node:crypto';
import type { NormsChange, NormSetSummary } from '@dial-gauge/contract';
import { findNormSet, NORM_SETS, wholeOrder, type NormSet } from '@dial-gauge/core';
import { IsNull } from 'typeorm';
import { Clinic } from '../../records/clinic/entities.js';
import { notFound, refused, type HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { NormSetRow } from '../../records/norms/entities.js';
import { orderOf, ownSetsOf, summaryOf } from '../../read-models/clinic-criteria/criteria.js';

export async function setNorms(work: UnitOfWork, change: NormsChange): Promise<void> {
  const { clinicId, manager, log } = work;
  const clinic = await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
  const { normSets, ...rest } = change;
  const own = await ownSetsOf(work);
  for (const id of normSets ?? []) if (!findNormSet(id, own)) throw refuse('normSets', `"${id}" is not installed; choose of the list`);
  if (new Set(normSets).size !== (normSets?.length ?? 0)) throw refuse('normSets', 'names a set twice; allowed: each once');
  const before = orderOf(clinic, own);
  const after = { ...rest, ...(normSets && { normOrder: wholeOrder(normSets, own) }) };
  const fields = (['normOrder', 'thresholds', 'ranking'] as const).filter((field) => after[field] !== undefined);
  const changed = await log.write(
    'clinic',
    clinicId,
    fields.map((field) => [field, field === 'normOrder' ? before : clinic[field], after[field]]),
  );
  if (changed.length === 0) return;
  const columns = Object.fromEntries(changed.map((field) => [field, after[field as keyof typeof after]]));
  await manager.update(Clinic, { id: clinicId }, { ...columns, ...(after.normOrder && { normSet: after.normOrder[0]! }) });
}
/** Brings in a set that has been read and found right. */
export async function addNormSet(work: UnitOfWork, set: NormSet): Promise<NormSetSummary> {
  const { id: setId, source, entries, title, short, year, where } = set;
  await work.manager.insert(NormSetRow, {
    id: randomUUID(),
    clinicId: work.clinicId,
    setId,
    title,
    short,
    year,
    where,
    cite: source.cite,
    fromMemory: source.fromMemory,
    entries: [...entries],
    addedBy: work.caller.userId,
    addedAt: work.now,
  });
  return summaryOf(set, true);
}
/** Takes one of the clinic's own sets out of use. It stays on record. */
export async function removeNormSet({ clinicId, manager, caller, now }: UnitOfWork, setId: string): Promise<void> {
  if (NORM_SETS.some((set) => set.id === setId)) throw refuse('id', 'comes with the program and cannot be removed');
  const clinic = await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
  if (clinic.normSet === setId) throw refuse('id', 'is the set this clinic asks first; put another one before it');
  const out = { removedAt: now, removedBy: caller.userId };
  const { affected } = await manager.update(NormSetRow, { clinicId, setId, removedAt: IsNull() }, out);
  if (!affected) throw notFound('norm set');
}
const refuse = (path: string, message: string): HttpProblem =>
  refused(path, message, 'Nothing was changed. Correct the fields named and send again.');
