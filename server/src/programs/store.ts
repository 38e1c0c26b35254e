import type { NewProgram, ProgramsView, ProgramView } from '@dial-gauge/contract';
import { drillsWith, findDrill, forbiddenDrill, forbiddenWords, isOwnDrill, ownBeside, type Drill, type OwnDrill } from '@dial-gauge/core';
import { versionsBeside } from '../drills/store.js';
import { Episode } from '../episodes/entities.js';
import { refused } from '../platform/problems.js';
import type { Names, UnitOfWork } from '../platform/unit-of-work.js';
import { drillMemory } from '../retests/store.js';
import { Visit } from '../visits/entities.js';
import { openVisit } from '../visits/open.js';
import { mustBeOfAPerson } from '../visits/rehearsal.js';
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

/** Gives a programme. Sent twice it is given once; one that imposes what a precaution forbids is refused. */
export async function giveProgram(work: UnitOfWork, visitId: string, { id, choices, drills, recheckOn, note }: NewProgram): Promise<void> {
  const { clinicId, manager, caller, now } = work;
  const there = await manager.existsBy(ProgramRow, { id, clinicId, visitId });
  // Held, so that two that are given at once are numbered one after the other.
  const visit = there ? await work.one(Visit, visitId, 'visit') : await openVisit(work, visitId, 'pessimistic_write');
  if (!there) {
    if (recheckOn <= visit.assessedOn) throw refused('recheckOn', `lies before the next day; allowed: after ${visit.assessedOn}`);
    mustBeOfAPerson(await oneVisitView(work, visit), 'No programme was given.');
    mustBeAllowed(await work.one(Episode, visit.episodeId, 'episode of care'), visit, drills, await drillsToGive(work, drills));
  }
  const number = 1 + (await manager.countBy(ProgramRow, { clinicId, visitId }));
  const row: ProgramRow = { id, clinicId, visitId, number, choices, drills, recheckOn, note, givenBy: caller.userId, givenAt: now };
  await work.insertFact(ProgramRow, row, 'programme', ['visitId', 'choices', 'drills', 'recheckOn', 'note']);
}

/** Every drill that is to be given, in the version that is meant. One of the clinic's own has to be there and in use. */
async function drillsToGive(work: UnitOfWork, given: NewProgram['drills']): Promise<readonly Drill[]> {
  const versions = await versionsBeside(work, given);
  const known = drillsWith(ownBeside(versions, given));
  given.forEach(({ drill: id, side, version }, at) => {
    if (!isOwnDrill(id)) return;
    const refuse = (field: string, message: string) => refused(`drills.${at}.${field}`, message);
    const ofIt = versions.filter(({ drill }) => drill.id === id);
    if (ofIt.length === 0) throw refuse('drill', `"${id}" is no drill of this clinic; allowed: one of the list of drills`);
    if (!ofIt.some(({ drill }) => drill.version === version))
      throw refuse('version', `${version} is no version of ${id}; allowed: one that was kept`);
    const newest = ofIt.reduce((a, b) => (b.drill.version > a.drill.version ? b : a));
    if (!newest.inUse) throw refuse('drill', `${newest.drill.name} was taken out of use; allowed: a drill that is in use`);
    const allowed = findDrill(id, known)!.sides === 'none' ? ['midline'] : ['left', 'right', 'both'];
    if (!allowed.includes(side)) throw refuse('side', `"${side}" does not fit ${id}; allowed: ${allowed.join(', ')}`);
  });
  return known;
}

function mustBeAllowed({ precautions }: Episode, { assessedOn }: Visit, drills: NewProgram['drills'], known: readonly Drill[]): void {
  drills.forEach(({ drill: id, side }, at) => {
    const drill = findDrill(id, known)!;
    const forbidden = forbiddenDrill(drill, side, precautions ?? [], assessedOn);
    if (!forbidden) return;
    throw refused(
      `drills.${at}.drill`,
      `${drill.name} is forbidden: ${forbiddenWords(forbidden)}; allowed: a drill that keeps to the precautions`,
    );
  });
}
