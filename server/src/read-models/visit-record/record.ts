import type { EpisodeView, MeasurementView, OddRecord, PatientView, PlanView, VisitRecord, VisitView } from '@dial-gauge/contract';
import {
  ASSUMED_HAND,
  cautionNow,
  findMotion,
  findProcedure,
  findProtocol,
  PROTOCOLS,
  protocolOfId,
  SIDES,
  type NormSet,
  type OwnError,
  type ValueCheck,
} from '@dial-gauge/core';
import { In, type SelectQueryBuilder } from 'typeorm';
import { Clinic } from '../../records/clinic/entities.js';
import { Episode } from '../../records/episodes/entities.js';
import { episodeView } from '../../records/episodes/views.js';
import { orderOf, ownErrorsOf, ownSetsOf } from '../clinic-criteria/criteria.js';
import { checkOfView, standingChecks } from '../clinic-criteria/value-checks.js';
import { Patient } from '../../records/patients/entities.js';
import { patientView } from '../../records/patients/views.js';
import { grouped } from '../../shared/grouped.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { MeasurementRow, TrialRow } from '../../records/readings/entities.js';
import { measurementView, peopleOf, protocolIdOf, trialViews } from '../../records/readings/views.js';
import { Visit } from '../../records/visits/entities.js';
import { answersOf } from './limits.js';

/** A visit with whose it is and what it is judged by. */
interface Setting {
  readonly row: Visit;
  readonly patient: PatientView;
  readonly episode: EpisodeView;
  readonly normSets: string[];
  readonly ownNormSets: NormSet[];
  readonly ownErrors: OwnError[];
  readonly valueChecks: ValueCheck[];
  readonly clinic: Clinic;
}

export async function settingOf(work: UnitOfWork, row: Visit): Promise<Setting> {
  const { manager, clinicId } = work;
  // Asked for at once, one after the other on the one connection: what has come is read while the next is on its way.
  const [episode, patient, clinic, ownErrors, ownNormSets, checks] = await Promise.all([
    manager.findOneByOrFail(Episode, { id: row.episodeId, clinicId }),
    manager
      .createQueryBuilder(Patient, 'p')
      .innerJoin(Episode, 'e', 'e.clinicId = p.clinicId AND e.patientId = p.id')
      .where('e.clinicId = :clinicId AND e.id = :id', { clinicId, id: row.episodeId })
      .getOneOrFail(),
    manager.findOneByOrFail(Clinic, { id: clinicId }),
    ownErrorsOf(work),
    ownSetsOf(work),
    standingChecks(work),
  ]);
  return {
    row,
    patient: patientView(patient),
    episode: episodeView(episode),
    normSets: orderOf(clinic, ownNormSets),
    ownNormSets,
    ownErrors,
    valueChecks: checks.map(checkOfView),
    clinic,
  };
}

/** What a visit is shown by: corrected figures, errors, and the limits after what was operated on. That a norm is as it is printed is not needed there. */
const isNeededIn =
  (procedureId: string | null) =>
  ({ kind, of, corrected }: ValueCheck): boolean =>
    corrected !== null ||
    kind === 'errors' ||
    (kind === 'procedure' && (of === procedureId || findProcedure(procedureId ?? '')?.anyOf?.includes(of) === true));

export async function visitRecord(work: UnitOfWork, id: string): Promise<VisitRecord> {
  const visit = await work.one(Visit, id, 'visit');
  const [{ row, clinic, ...setting }, visitView, before] = await Promise.all([
    settingOf(work, visit),
    oneVisitView(work, visit),
    visitBefore(work, visit),
  ]);
  const { byVisit, odd } = await measurements(work, [id, ...(before ? [before.id] : [])]);
  const plan = readable(row.plan);
  return {
    ...setting,
    valueChecks: setting.valueChecks.filter(isNeededIn(setting.episode.procedureId)),
    visit: visitView,
    sheet: row.sheet && row.sheet.filter((item) => protocolOfId(item.protocol)),
    plan: plan.plan,
    revision: row.revision,
    cautions: row.cautions && { ...row.cautions, asked: row.cautions.asked.map(cautionNow), yes: row.cautions.yes.map(cautionNow) },
    hand: clinic.handWidths ?? ASSUMED_HAND,
    measurements: byVisit.get(id) ?? [],
    previous: before ? { assessedOn: before.assessedOn, measurements: ofPeople(byVisit.get(before.id) ?? []) } : null,
    odd: [...odd, ...plan.odd, ...oddPrecautions(setting.episode)],
  };
}

/** What was measured of a person: nothing of it was read off simulated instruments. */
const ofPeople = (all: readonly MeasurementView[]): MeasurementView[] =>
  all.flatMap((one) => {
    const trials = one.trials.filter(({ simulated }) => !simulated);
    return trials.length > 0 || one.trials.length === 0 ? [{ ...one, trials }] : [];
  });

/** Narrows to the visits of the same episode that come before one, by day and then by when they were begun. */
function earlier(query: SelectQueryBuilder<Visit>, { clinicId, episodeId, assessedOn, startedAt, id }: Visit): SelectQueryBuilder<Visit> {
  return query
    .where('v.clinicId = :clinicId AND v.episodeId = :episodeId AND v.assessedOn <= :assessedOn', { clinicId, episodeId, assessedOn })
    .andWhere('(v.assessedOn < :assessedOn OR v.startedAt < :startedAt OR (v.startedAt = :startedAt AND v.id < :id))', { startedAt, id });
}

export async function oneVisitView(work: UnitOfWork, visit: Visit): Promise<VisitView> {
  const [before, readings, examiner] = await Promise.all([
    earlier(work.manager.createQueryBuilder(Visit, 'v'), visit).getCount(),
    readingCounts(work, [visit.id]),
    work.nameOf(visit.examinerId),
  ]);
  return viewOf(visit, before + 1, readings.get(visit.id) ?? NO_READINGS, examiner);
}

/** How many readings of a visit stand, and how many of those are made-up numbers. */
export interface Counted {
  readonly readings: number;
  readonly simulated: number;
}
const NO_READINGS: Counted = { readings: 0, simulated: 0 };

export const viewOf = (
  { id, assessedOn, signed, cautions }: Pick<Visit, 'id' | 'assessedOn' | 'signed'> & Partial<Pick<Visit, 'cautions'>>,
  number: number,
  { readings, simulated }: Counted,
  examiner: string,
): VisitView => ({
  id,
  assessedOn,
  examiner,
  readings,
  simulated,
  number,
  signed,
  answers: cautions && answersOf(cautions),
});

/** The last visit before one at which something was measured. */
function visitBefore({ manager }: UnitOfWork, visit: Visit): Promise<Visit | null> {
  return earlier(manager.createQueryBuilder(Visit, 'v'), visit)
    .andWhere(
      // A scalar, so that it is looked up visit by visit from the last one back, and never gathered for all visits there are.
      '(SELECT 1 FROM measurement m FORCE INDEX (measurement_visit_id) JOIN trial t FORCE INDEX (trial_measurement_id) ON t.measurement_id = m.id AND t.clinic_id = m.clinic_id WHERE m.clinic_id = v.clinic_id AND m.visit_id = v.id AND t.withdrawn_at IS NULL AND t.simulated = 0 LIMIT 1) = 1',
    )
    .orderBy('v.assessedOn', 'DESC')
    .addOrderBy('v.startedAt', 'DESC')
    .addOrderBy('v.id', 'DESC')
    .limit(1)
    .getOne();
}

/** How many readings stand, by visit. */
async function readingCounts({ manager, clinicId }: UnitOfWork, visitIds: readonly string[]): Promise<ReadonlyMap<string, Counted>> {
  if (visitIds.length === 0) return new Map();
  const counts = await manager
    .createQueryBuilder(MeasurementRow, 'm')
    .innerJoin(TrialRow, 't', 't.measurementId = m.id AND t.clinicId = m.clinicId')
    .select('m.visitId', 'visitId')
    .addSelect('COUNT(*)', 'readings')
    .addSelect('SUM(t.simulated)', 'simulated')
    .where('m.clinicId = :clinicId AND m.visitId IN (:...visitIds) AND t.withdrawnAt IS NULL', { clinicId, visitIds })
    .groupBy('m.visitId')
    .getRawMany<{ visitId: string; readings: string; simulated: string }>();
  return new Map(counts.map(({ visitId, readings, simulated }) => [visitId, { readings: Number(readings), simulated: Number(simulated) }]));
}

/** All visits of some episodes, oldest first and numbered. */
export async function visitViews(work: UnitOfWork, episodeIds: readonly string[]): Promise<ReadonlyMap<string, VisitView[]>> {
  const { manager, clinicId } = work;
  if (episodeIds.length === 0) return new Map();
  const visits = await manager.find(Visit, {
    where: { clinicId, episodeId: In([...episodeIds]) },
    order: { assessedOn: 'ASC', startedAt: 'ASC', id: 'ASC' },
    select: { id: true, clinicId: true, episodeId: true, examinerId: true, assessedOn: true, startedAt: true, signed: true },
  });
  return numbered(work, visits);
}

/** Single visits, as the last of their episodes: their number is how many there are. */
export async function lastVisitViews(work: UnitOfWork, numbers: ReadonlyMap<string, number>): Promise<ReadonlyMap<string, VisitView>> {
  const { manager, clinicId } = work;
  if (numbers.size === 0) return new Map();
  // Rows as they are: an entity of each costs more than finding it.
  const visits = await manager
    .createQueryBuilder(Visit, 'v')
    .select(['v.id AS id', 'v.assessedOn AS assessedOn', 'v.signed AS signed', 'v.examinerId AS examinerId'])
    .where('v.clinicId = :clinicId AND v.id IN (:...ids)', { clinicId, ids: [...numbers.keys()] })
    .getRawMany<Pick<Visit, 'id' | 'assessedOn' | 'examinerId'> & { signed: boolean | number }>();
  const readings = await readingCounts(work, [...numbers.keys()]);
  const names = await work.namesOf(visits.map((visit) => visit.examinerId));
  return new Map(
    visits.map((visit) => [
      visit.id,
      viewOf(
        { ...visit, signed: Boolean(visit.signed) },
        numbers.get(visit.id)!,
        readings.get(visit.id) ?? NO_READINGS,
        names.get(visit.examinerId) ?? '',
      ),
    ]),
  );
}

async function numbered(work: UnitOfWork, oldestFirst: readonly Visit[]): Promise<ReadonlyMap<string, VisitView[]>> {
  const readings = await readingCounts(
    work,
    oldestFirst.map((visit) => visit.id),
  );
  const names = await work.namesOf(oldestFirst.map((visit) => visit.examinerId));
  const byEpisode = new Map<string, VisitView[]>();
  for (const visit of oldestFirst) {
    const own = byEpisode.get(visit.episodeId) ?? [];
    own.push(viewOf(visit, own.length + 1, readings.get(visit.id) ?? NO_READINGS, names.get(visit.examinerId) ?? ''));
    byEpisode.set(visit.episodeId, own);
  }
  return byEpisode;
}

/** Measurements by visit, with their standing trials in the order held; those of a motion that this version does not know apart. */
async function measurements(work: UnitOfWork, visitIds: readonly string[]) {
  const { clinicId } = work;
  const byVisit = new Map<string, MeasurementView[]>();
  if (visitIds.length === 0) return { byVisit, odd: [] };
  const rows = await work.plain(MeasurementRow, 'WHERE t.clinic_id = ? AND t.visit_id IN (?)', [clinicId, visitIds]);
  const trials = await trialsOf(
    work,
    rows.map((row) => row.id),
  );
  const names = await work.namesOf([...trials.values()].flatMap(peopleOf));
  const places = new Map(rows.map((row) => [row, placeOf(row)] as const));
  const isKnown = (row: MeasurementRow): boolean => places.get(row) !== undefined;
  for (const row of rows.filter(isKnown).sort((a, b) => places.get(a)! - places.get(b)!)) {
    const own = byVisit.get(row.visitId) ?? [];
    own.push(measurementView(row, trialViews(trials.get(row.id) ?? [], names)));
    byVisit.set(row.visitId, own);
  }
  const odd = rows
    .filter((row) => !isKnown(row))
    .map(({ id, motion, side, protocol }): OddRecord => ({
      id,
      what: `${motion}, ${side}, by ${protocol}`,
      why: 'The library of this version does not hold this way of measuring. Its readings are kept and are not judged.',
    }));
  return { byVisit, odd };
}

/** Readings by measurement, in the order held. */
async function trialsOf(work: UnitOfWork, measurementIds: readonly string[]): Promise<ReadonlyMap<string, TrialRow[]>> {
  if (measurementIds.length === 0) return new Map();
  const order = 'WHERE t.clinic_id = ? AND t.measurement_id IN (?) ORDER BY t.held_at, t.saved_at';
  const trials = await work.plain(TrialRow, order, [work.clinicId, measurementIds]);
  return grouped(trials, (trial) => trial.measurementId);
}

/** A stored run sheet without the steps that this version cannot read, and what those were. */
function readable(plan: PlanView | null): { plan: PlanView | null; odd: OddRecord[] } {
  if (!plan) return { plan, odd: [] };
  const strange = plan.steps.filter((step) => !protocolOfId(step.protocol));
  const steps = plan.steps.filter((step) => !strange.includes(step));
  const odd = strange.map(({ protocol, side, mode }): OddRecord => ({
    id: protocol,
    what: `run sheet: ${protocol}, ${side}, ${mode}`,
    why: 'The library of this version does not hold this way of measuring. It is left out of the run sheet.',
  }));
  return { plan: steps.length > 0 ? { ...plan, steps } : null, odd };
}

/** A limit that cannot be read must not be passed over in silence. */
function oddPrecautions({ precautions }: EpisodeView): OddRecord[] {
  return precautions
    .filter(({ motion, with: others = [] }) => ![motion, ...others].every(findMotion))
    .map(({ motion, limit, source }) => ({
      id: motion,
      what: `precaution: ${motion}, ${limit === null ? 'not to be measured' : `to ${limit}`} (${source})`,
      why: 'This version does not know the motion, so nothing is held against this limit. Read it, and enter it again, before you measure.',
    }));
}

const PROTOCOL_PLACE = new Map(PROTOCOLS.map(({ id }, index) => [id, index]));

/**
 * Where a measurement stands in a report: in the order of the library, then by
 * finger, left before right, active before passive.
 *
 * @returns undefined for a way of measuring that this version does not know
 */
export function placeOf(row: Pick<MeasurementRow, 'motion' | 'position' | 'variant' | 'digit' | 'side' | 'mode'>): number | undefined {
  const protocol = row.variant === '' ? findProtocol(row.motion, row.position)?.id : protocolIdOf(row);
  const place = protocol === undefined ? undefined : PROTOCOL_PLACE.get(protocol);
  return place === undefined ? undefined : ((place * 10 + row.digit) * 3 + SIDES.indexOf(row.side)) * 2 + (row.mode === 'passive' ? 1 : 0);
}
