import type { CohortView } from '@dial-gauge/contract';
import { cohortNormSet, NORM_SETS, type CohortWay } from '@dial-gauge/core';
import { tableText } from '@dial-gauge/files';
import { IsNull, Not } from 'typeorm';
import { addNormSet } from '../norms/norms.js';
import { ownSetsOf } from '../../read-models/clinic-criteria/criteria.js';
import { dayOf } from '../../shared/days.js';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { askForRun } from './cohorts.js';
import { CohortRun, CohortTold } from '../../records/cohort/entities.js';
import type { Told } from './tell.js';

interface LastTold {
  readonly run: CohortRun | null;
  readonly of: <K extends keyof Told>(kind: K) => Told[K][];
}

/** What the last run that was finished told. */
async function lastTold({ manager, clinicId }: UnitOfWork): Promise<LastTold> {
  const run = await manager.findOne(CohortRun, {
    where: { clinicId, finishedAt: Not(IsNull()) },
    order: { finishedAt: 'DESC', id: 'ASC' },
  });
  const rows = run ? await manager.find(CohortTold, { where: { clinicId, runId: run.id } }) : [];
  const orderOf = ({ way }: { readonly way: CohortWay }) => [way.motion, way.protocol, way.digit ?? 0, way.mode].join(' ');
  return {
    run,
    of: <K extends keyof Told>(kind: K) =>
      rows
        .filter((row) => row.kind === kind)
        .map((row) => JSON.parse(row.told) as Told[K])
        .sort((a, b) => orderOf(a).localeCompare(orderOf(b))),
  };
}

export async function cohortView(work: UnitOfWork): Promise<CohortView> {
  const { manager, clinicId, caller } = work;
  const { run, of } = await lastTold(work);
  const open = await manager.findOne(CohortRun, { where: { clinicId, finishedAt: IsNull() }, order: { askedAt: 'ASC' } });
  const examiners = of('examiner').filter(({ examiner }) => caller.role === 'lead' || examiner === caller.userId);
  const names = await work.namesOf(examiners.map(({ examiner }) => examiner));
  return {
    counted: run?.finishedAt ? { at: run.finishedAt.toISOString(), visits: run.visits, readings: run.readings } : null,
    counting: open && { askedAt: open.askedAt.toISOString(), visits: open.visits },
    norms: of('norm'),
    outcomes: of('outcome'),
    examiners: examiners.map(({ examiner, ...told }) => ({ ...told, name: names.get(examiner) ?? 'somebody who left' })),
  };
}

export function countAnew({ manager, clinicId, caller, now }: UnitOfWork, id: string): Promise<void> {
  return askForRun(manager, { id, clinicId, askedBy: caller.userId }, now);
}

/** A norm set of what was told last. Made again of the same count it is the one that is there. */
export async function makeNormSet(work: UnitOfWork): Promise<void> {
  const { run, of } = await lastTold(work);
  const set = run?.finishedAt && cohortNormSet(dayOf(run.finishedAt), of('norm'));
  if (!set || set.entries.length === 0)
    throw new HttpProblem(409, 'Nothing to make it of', 'No group of twenty people or more was counted yet. Nothing was made.');
  if ([...NORM_SETS, ...(await ownSetsOf(work))].some(({ id }) => id === set.id)) return;
  await addNormSet(work, set);
}

const COLUMNS = [
  'what',
  'procedure',
  'motion',
  'protocol',
  'digit',
  'mode',
  'group',
  'week',
  'people',
  'p10',
  'p25',
  'median',
  'p75',
  'p90',
  'usual from',
  'usual to',
];

/** Groups as rows: nobody by name, neither who was measured nor who measured. */
export async function* cohortFile(work: UnitOfWork): AsyncGenerator<string> {
  const { of } = await lastTold(work);
  yield tableText([COLUMNS]);
  const wayCells = ({ motion, protocol, digit, mode }: CohortWay) => [motion, protocol, digit ?? '', mode];
  for (const { way, groups } of of('norm'))
    for (const { sex, ages, spread: s } of groups)
      yield tableText([
        ['not involved', '', ...wayCells(way), `${sex}, ${ages.label}`, '', s.n, s.p10, s.q1, s.median, s.q3, s.p90, '', ''],
      ]);
  for (const { procedure, way, weeks } of of('outcome'))
    for (const { week, spread: s, usual } of weeks)
      yield tableText([
        ['outcome', procedure, ...wayCells(way), '', week, s.n, s.p10, s.q1, s.median, s.q3, s.p90, usual?.low ?? '', usual?.high ?? ''],
      ]);
}
