import type { ProgramsView, ProgramView } from '@dial-gauge/contract';
import { ownBeside, type OwnDrill } from '@dial-gauge/core';
import { versionsBeside } from '../drills/drills.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import type { Names } from '../../database/ports.js';
import { drillMemory } from '../retests/retests.js';
import { Visit } from '../../records/visits/entities.js';
import { oneVisitView, settingOf } from '../visit-record/record.js';
import { ProgramRow } from '../../records/programmes/entities.js';

export async function programsView(work: UnitOfWork, visitId: string): Promise<ProgramsView> {
  const row = await work.one(Visit, visitId, 'visit');
  const { manager, clinicId } = work;
  const [setting, visit, own, earlier] = await Promise.all([
    settingOf(work, row),
    oneVisitView(work, row),
    manager.find(ProgramRow, { where: { clinicId, visitId }, order: { number: 'ASC' } }),
    lastOfEachBefore(work, row),
  ]);
  const [before = null] = earlier;
  const { patient, episode } = setting;
  const all = before ? [...own, before] : own;
  const names = await work.namesOf(all.map(({ givenBy }) => givenBy));
  return {
    visit,
    patient,
    episode,
    given: own.map((one) => programView(one, names)),
    before: before ? programView(before, names) : null,
    running: runningOf(earlier),
    own: await versionsBeside(
      work,
      all.flatMap(({ drills }) => drills),
    ),
    memory: await drillMemory(work, visitId, setting),
  };
}
/** A programme with the clinic's drills as they were when it was given. */
export interface StandingProgram extends ProgramView {
  readonly own: readonly OwnDrill[];
}
/** The one that holds at a visit: given there, or at one before it. */
export async function standingProgram(work: UnitOfWork, visitId: string): Promise<StandingProgram | null> {
  const { given, before, own } = await programsView(work, visitId);
  const program = given.at(-1) ?? before;
  return program && { ...program, own: ownBeside(own, program.drills) };
}
const programView = (
  { id, visitId, number, choices, drills, recheckOn, note, givenBy, givenAt }: ProgramRow,
  names: Names,
): ProgramView => ({
  id,
  visitId,
  number,
  choices,
  drills,
  recheckOn,
  note,
  by: names.get(givenBy) ?? '',
  at: givenAt.toISOString(),
});
/** The last that was given at each visit before this one, newest first. */
async function lastOfEachBefore({ manager, clinicId }: UnitOfWork, { id, episodeId, assessedOn, startedAt }: Visit): Promise<ProgramRow[]> {
  const rows = await manager
    .createQueryBuilder(ProgramRow, 'p')
    .innerJoin(Visit, 'v', 'v.clinic_id = p.clinic_id AND v.id = p.visit_id')
    .where('p.clinic_id = :clinicId AND v.episode_id = :episodeId', { clinicId, episodeId })
    .andWhere('(v.assessed_on, v.started_at, v.id) < (:assessedOn, :startedAt, :id)', { assessedOn, startedAt, id })
    .orderBy('v.assessed_on', 'DESC')
    .addOrderBy('v.started_at', 'DESC')
    .addOrderBy('v.id', 'DESC')
    .addOrderBy('p.number', 'DESC')
    .limit(MOST_BEFORE)
    .getMany();
  return rows.filter((row, at) => row.visitId !== rows[at - 1]?.visitId);
}
/** Of a long record the newest tell since when a drill is done. */
const MOST_BEFORE = 60;
/** Drills of the newest programme, each back to the first of those that gave it one after the other. */
function runningOf([newest, ...older]: readonly ProgramRow[]): ProgramsView['running'] {
  return (newest?.drills ?? []).map(({ drill, side }) => {
    let first = newest!;
    for (const program of older) {
      if (!program.drills.some((one) => one.drill === drill && one.side === side)) break;
      first = program;
    }
    return { drill, side, since: first.givenAt.toISOString().slice(0, 10) };
  });
}
