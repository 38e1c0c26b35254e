import type { LikelyDouble, MergeView } from '@dial-gauge/contract';
import { In, IsNull } from 'typeorm';
import { Episode } from '../../records/episodes/entities.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Patient, PatientMergeRow } from '../../records/patients/entities.js';
import { patientView } from '../../records/patients/views.js';

const MOST_DOUBLES = 5;
/** Others who may be the same person: of the same birth date and family name, or the same file number. */
export async function likelyDoubles(work: UnitOfWork, { id, birthDate, familyName, fileNumber }: Patient): Promise<LikelyDouble[]> {
  const { manager, clinicId } = work;
  const rows = await manager
    .createQueryBuilder(Patient, 'p')
    .where('p.clinicId = :clinicId AND p.id <> :id AND p.mergedInto IS NULL', { clinicId, id })
    .andWhere("((p.birthDate = :birthDate AND p.familyName = :familyName) OR (:fileNumber <> '' AND p.fileNumber = :fileNumber))", {
      birthDate,
      familyName,
      fileNumber,
    })
    .orderBy('p.id')
    .limit(MOST_DOUBLES)
    .getMany();
  if (rows.length === 0) return [];
  const counts = await manager
    .createQueryBuilder(Episode, 'e')
    .select('e.patientId', 'patient')
    .addSelect('COUNT(*)', 'n')
    .where('e.clinicId = :clinicId AND e.patientId IN (:...ids)', { clinicId, ids: rows.map((row) => row.id) })
    .groupBy('e.patientId')
    .getRawMany<{ patient: string; n: string }>();
  return rows.map((row) => ({
    ...patientView(row),
    fileNumber: row.fileNumber,
    episodes: Number(counts.find(({ patient }) => patient === row.id)?.n ?? 0),
  }));
}
/** Records that went into this one and were not taken apart again, the latest first. */
export async function mergesOf(work: UnitOfWork, keptId: string): Promise<MergeView[]> {
  const { manager, clinicId } = work;
  const rows = await manager.find(PatientMergeRow, { where: { clinicId, keptId, undoneAt: IsNull() }, order: { mergedAt: 'DESC' } });
  if (rows.length === 0) return [];
  const gone = await manager.findBy(Patient, { clinicId, id: In(rows.map(({ goneId }) => goneId)) });
  const names = await work.namesOf(rows.map(({ mergedBy }) => mergedBy));
  return rows.map(({ id, goneId, mergedBy, mergedAt, episodes }) => {
    const { givenName, familyName } = gone.find((patient) => patient.id === goneId)!;
    return { id, name: `${givenName} ${familyName}`, by: names.get(mergedBy) ?? '', at: mergedAt.toISOString(), episodes: episodes.length };
  });
}
