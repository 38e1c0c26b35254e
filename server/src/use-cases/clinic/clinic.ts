import type { ClinicView, OwnExamSet } from '@dial-gauge/contract';
import { ASSUMED_HAND, protocolOfId, recordedTimes, type HandWidths, type HeldAt, type MotionId } from '@dial-gauge/core';
import { IsNull } from 'typeorm';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { notFound, refused } from '../../shared/problems.js';
import { MeasurementRow, TrialRow } from '../../records/readings/entities.js';
import { protocolIdOf } from '../../records/readings/views.js';
import { Clinic, ExamSetRow } from '../../records/clinic/entities.js';

/** How far back readings say how long things take. */
const TIMED = 4000;

export async function clinicView(work: UnitOfWork): Promise<ClinicView> {
  const { clinicId, manager } = work;
  const clinic = await manager.findOneByOrFail(Clinic, { id: clinicId });
  const rows = await manager.find(ExamSetRow, { where: { clinicId, removedAt: IsNull() }, order: { addedAt: 'ASC' } });
  return {
    examSets: rows.map(({ id, name, items }) => ({ id, name, items: items.filter((item) => protocolOfId(item.protocol)) })),
    times: recordedTimes(await heldLately(work)),
    hand: clinic.handWidths ?? ASSUMED_HAND,
  };
}

export async function setHand({ clinicId, manager, log }: UnitOfWork, hand: HandWidths): Promise<void> {
  const clinic = await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
  const changed = await log.write('clinic', clinicId, [['handWidths', clinic.handWidths, hand]]);
  if (changed.length > 0) await manager.update(Clinic, { id: clinicId }, { handWidths: hand });
}

export async function addExamSet(work: UnitOfWork, { id, name, items }: OwnExamSet): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  const there = await manager.findOneBy(ExamSetRow, { clinicId, name, removedAt: IsNull() });
  if (there && there.id !== id)
    throw refused('name', `"${name}" is the name of another set of this clinic; allowed: a name that is not in use`);
  const row: ExamSetRow = { id, clinicId, name, items, addedBy: caller.userId, addedAt: now, removedAt: null };
  try {
    await work.insertFact(ExamSetRow, row, 'exam set', ['name', 'items']);
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw refused('name', `"${name}" is the name of another set of this clinic; allowed: a name that is not in use`);
  }
}

export async function removeExamSet({ clinicId, manager, now }: UnitOfWork, id: string): Promise<void> {
  const { affected } = await manager.update(ExamSetRow, { id, clinicId, removedAt: IsNull() }, { removedAt: now });
  if (!affected) throw notFound('exam set');
}

/** The clinic's latest readings, with the moments they were held. */
async function heldLately({ manager, clinicId }: UnitOfWork): Promise<HeldAt[]> {
  const rows = await manager
    .createQueryBuilder(TrialRow, 't')
    .innerJoin(MeasurementRow, 'm', 'm.id = t.measurementId')
    .select('m.visitId', 'visit')
    .addSelect([
      'm.motion AS motion',
      'm.variant AS variant',
      'm.position AS position',
      'm.side AS side',
      'm.mode AS mode',
      't.heldAt AS heldAt',
    ])
    .where('t.clinicId = :clinicId AND t.corrects IS NULL AND t.simulated = 0', { clinicId })
    .orderBy('t.heldAt', 'DESC')
    .limit(TIMED)
    .getRawMany<Omit<HeldAt, 'at' | 'protocol'> & { motion: MotionId; variant: string; heldAt: Date }>();
  return rows.flatMap(({ motion, variant, heldAt, ...row }) => {
    const protocol = protocolIdOf({ motion, position: row.position, variant });
    return protocol ? [{ ...row, protocol, at: heldAt.getTime() }] : [];
  });
}
