import type { NewProgram, ProgramsView, ProgramView } from '@dial-gauge/contract';
import { findDrill, forbiddenDrill, forbiddenWords } from '@dial-gauge/core';
import { Episode } from '../episodes/entities.js';
import { refused } from '../platform/problems.js';
import type { Names, UnitOfWork } from '../platform/unit-of-work.js';
import { drillMemory } from '../retests/store.js';
import { Visit } from '../visits/entities.js';
import { openVisit } from '../visits/open.js';
import { oneVisitView, settingOf } from '../visits/record.js';
import { ProgramRow } from './entities.js';

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
    memory: await drillMemory(work, visitId, setting),
  };
}

/** The one that holds at a visit: given there, or at one before it. */
export async function standingProgram(work: UnitOfWork, visitId: string): Promise<ProgramView | null> {
  const { given, before } = await programsView(work, visitId);
  return given.at(-1) ?? before;
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

/** Gives a programme. Sent twice it is given once; one that imposes what a precaution forbids is refused. */
export async function giveProgram(work: UnitOfWork, visitId: string, { id, choices, drills, recheckOn, note }: NewProgram): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  const there = await manager.existsBy(ProgramRow, { id, clinicId, visitId });
  // Held, so that two that are given at once are numbered one after the other.
  const visit = there ? await work.one(Visit, visitId, 'visit') : await openVisit(work, visitId, 'pessimistic_write');
  if (!there) {
    if (recheckOn <= visit.assessedOn) throw refused('recheckOn', `lies before the next day; allowed: after ${visit.assessedOn}`);
    mustBeAllowed(await work.one(Episode, visit.episodeId, 'episode of care'), visit, drills);
  }
  const number = 1 + (await manager.countBy(ProgramRow, { clinicId, visitId }));
  const row: ProgramRow = { id, clinicId, visitId, number, choices, drills, recheckOn, note, givenBy: caller.userId, givenAt: now };
  await work.insertFact(ProgramRow, row, 'programme', ['visitId', 'choices', 'drills', 'recheckOn', 'note']);
}

function mustBeAllowed({ precautions }: Episode, { assessedOn }: Visit, drills: NewProgram['drills']): void {
  drills.forEach(({ drill: id, side }, at) => {
    const drill = findDrill(id)!;
    const forbidden = forbiddenDrill(drill, side, precautions ?? [], assessedOn);
    if (!forbidden) return;
    throw refused(
      `drills.${at}.drill`,
      `${drill.name} is forbidden: ${forbiddenWords(forbidden)}; allowed: a drill that keeps to the precautions`,
    );
  });
}
