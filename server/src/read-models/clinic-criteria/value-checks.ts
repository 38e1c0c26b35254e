import type { ValueCheckView } from '@dial-gauge/contract';
import type { ValueCheck } from '@dial-gauge/core';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { ValueCheckRow } from '../../records/norms/value-check.js';

/** The checks that stand: of each value the one that no other one came after. Those that were taken back are left out. */
export async function standingRows({ manager, clinicId }: UnitOfWork): Promise<ValueCheckRow[]> {
  return manager
    .createQueryBuilder(ValueCheckRow, 'c')
    .where('c.clinicId = :clinicId', { clinicId })
    .andWhere('NOT EXISTS (SELECT 1 FROM value_check n WHERE n.clinic_id = c.clinic_id AND n.follows = c.id)')
    .orderBy('c.kind')
    .addOrderBy('c.of')
    .addOrderBy('c.key')
    .getMany();
}

export async function standingChecks(work: UnitOfWork): Promise<ValueCheckView[]> {
  const rows = (await standingRows(work)).filter(({ withdrawn }) => !withdrawn);
  if (rows.length === 0) return [];
  const names = await work.namesOf(rows.map(({ checkedBy }) => checkedBy));
  return rows.map((row) => viewOfCheck(row, names.get(row.checkedBy) ?? ''));
}

export const viewOfCheck = (
  { id, kind, of, key, held, corrected, source, edition, page, saidBy, checkedOn }: ValueCheckRow,
  name: string,
): ValueCheckView => ({
  id,
  kind,
  of,
  key,
  held: { ...held },
  corrected: corrected && { ...corrected },
  source,
  edition,
  page,
  by: saidBy === null ? name : `${saidBy} (brought in by ${name})`,
  on: checkedOn,
});

/** As the core reads it. */
export const checkOfView = ({ id, ...check }: ValueCheckView): ValueCheck => {
  void id;
  return check;
};
