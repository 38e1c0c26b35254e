import type { NormSetSummary, NormsView } from '@dial-gauge/contract';
import { DEFAULT_THRESHOLDS, findNormSet, NORM_SETS, wholeOrder, type AssessContext, type NormSet, type OwnError } from '@dial-gauge/core';
import { IsNull } from 'typeorm';
import { Clinic } from '../../records/clinic/entities.js';
import { notFound } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { OwnErrorRow } from '../../records/reliability/entities.js';
import { NormSetRow } from '../../records/norms/entities.js';
import { checkOfView, standingChecks } from './value-checks.js';

/** What the caller's clinic judges by, ready for `assess()`. */
export async function criteriaOf(work: UnitOfWork): Promise<Required<Omit<AssessContext, 'screens'>>> {
  const clinic = await work.manager.findOneByOrFail(Clinic, { id: work.clinicId });
  const ownSets = await ownSetsOf(work);
  return {
    normSets: orderOf(clinic, ownSets),
    thresholds: clinic.thresholds ?? DEFAULT_THRESHOLDS,
    ownSets,
    ownErrors: await ownErrorsOf(work),
    checks: (await standingChecks(work)).map(checkOfView),
    ranking: clinic.ranking,
  };
}
export async function normsView(work: UnitOfWork): Promise<NormsView> {
  const [{ normSets, thresholds, ownSets, ownErrors, ranking }, valueChecks] = await Promise.all([criteriaOf(work), standingChecks(work)]);
  return {
    normSets: [...normSets],
    thresholds: { ...thresholds, severityPercent: [...thresholds.severityPercent], severityTimes: [...thresholds.severityTimes] },
    sets: [...NORM_SETS.map((set) => summaryOf(set, false)), ...ownSets.map((set) => summaryOf(set, true))],
    ownSets: [...ownSets],
    ownErrors: [...ownErrors],
    valueChecks,
    ranking,
  };
}
/** An installed set: one of the program's or one of the clinic's own. */
export async function normSetOf(work: UnitOfWork, id: string): Promise<NormSet> {
  const set = findNormSet(id, await ownSetsOf(work));
  if (!set) throw notFound('norm set');
  return set;
}
/** Every installed set in the order in which a clinic asks them. */
export const orderOf = ({ normSet, normOrder }: Pick<Clinic, 'normSet' | 'normOrder'>, own: readonly NormSet[]): string[] =>
  wholeOrder(normOrder ?? [normSet], own);
/** Errors the clinic found out for itself and has adopted. */
export async function ownErrorsOf({ manager, clinicId }: UnitOfWork): Promise<OwnError[]> {
  const rows = await manager.find(OwnErrorRow, { where: { clinicId, removedAt: IsNull() }, order: { adoptedAt: 'DESC' } });
  return rows.map(({ motion, instrument, protocol, examiners, sem, subjects, raters, adoptedOn }) => ({
    motion,
    instrument,
    protocol,
    examiners,
    sem,
    subjects,
    raters,
    adoptedOn,
  }));
}
/** The clinic's own norm sets that are in use, oldest first. */
export async function ownSetsOf({ manager, clinicId }: UnitOfWork): Promise<NormSet[]> {
  const rows = await manager.find(NormSetRow, { where: { clinicId, removedAt: IsNull() }, order: { addedAt: 'ASC' } });
  return rows.map(({ setId, title, short, year, where, cite, fromMemory, entries }) => ({
    id: setId,
    title,
    short,
    year,
    where,
    source: { cite, fromMemory },
    entries,
  }));
}
export function summaryOf({ id, title, short, year, where, source, entries }: NormSet, own: boolean): NormSetSummary {
  return {
    id,
    title,
    short,
    year,
    where,
    cite: source.cite,
    fromMemory: source.fromMemory,
    values: entries.length,
    motions: new Set(entries.map((entry) => entry.motion)).size,
    own,
  };
}
