import { type DrillsView, type OwnDrillView } from '@dial-gauge/contract';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import type { Names } from '../../database/ports.js';
import { DrillVersionRow } from '../../records/drills/entities.js';

export async function drillsView(work: UnitOfWork): Promise<DrillsView> {
  return { own: await viewsOf(work, await newestVersions(work)) };
}
/** The newest version of each drill, those taken out of use among them. */
export async function newestVersions({ manager, clinicId }: UnitOfWork): Promise<DrillVersionRow[]> {
  const rows = await manager
    .createQueryBuilder(DrillVersionRow, 'd')
    .where('d.clinicId = :clinicId', { clinicId })
    .andWhere(
      'NOT EXISTS (SELECT 1 FROM drill_version n WHERE n.clinic_id = d.clinic_id AND n.drill_id = d.drill_id AND n.version > d.version)',
    )
    .getMany();
  return rows.sort((a, b) => a.drill.name.localeCompare(b.drill.name, 'en'));
}
/** Drills as they stand, and those versions of them that were given. */
export async function versionsBeside(
  work: UnitOfWork,
  given: readonly { readonly drill: string; readonly version?: number }[],
): Promise<OwnDrillView[]> {
  const newest = await newestVersions(work);
  const isThere = (drillId: string, version: number) => newest.some((row) => row.drillId === drillId && row.version === version);
  const older = given.flatMap(({ drill: drillId, version }) =>
    version === undefined || isThere(drillId, version) ? [] : [{ drillId, version }],
  );
  const { manager, clinicId } = work;
  const then = older.length > 0 ? await manager.find(DrillVersionRow, { where: older.map((one) => ({ clinicId, ...one })) }) : [];
  return viewsOf(work, [...newest, ...then]);
}
async function viewsOf(work: UnitOfWork, rows: readonly DrillVersionRow[]): Promise<OwnDrillView[]> {
  const names: Names = await work.namesOf(rows.map(({ madeBy }) => madeBy));
  return rows.map(({ drill, inUse, madeBy, madeAt }) => ({ drill, inUse, by: names.get(madeBy) ?? '', at: madeAt.toISOString() }));
}
