import { limitsAt } from '../../read-models/visit-record/limits.js';
import type { NewProgram } from '@dial-gauge/contract';
import { drillsWith, findDrill, forbiddenDrill, forbiddenWords, isOwnDrill, ownBeside, type Drill } from '@dial-gauge/core';
import { versionsBeside } from '../../read-models/drills/drills.js';
import { Episode } from '../../records/episodes/entities.js';
import { refused } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from '../../records/visits/entities.js';
import { openVisit } from '../../records/visits/open.js';
import { mustBeOfAPerson } from '../../records/visits/rehearsal.js';
import { oneVisitView } from '../../read-models/visit-record/record.js';
import { ProgramRow } from '../../records/programmes/entities.js';

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
function mustBeAllowed(episode: Episode, visit: Visit, drills: NewProgram['drills'], known: readonly Drill[]): void {
  const limits = limitsAt(episode, visit);
  drills.forEach(({ drill: id, side }, at) => {
    const drill = findDrill(id, known)!;
    const forbidden = forbiddenDrill(drill, side, limits);
    if (!forbidden) return;
    throw refused(
      `drills.${at}.drill`,
      `${drill.name} is forbidden: ${forbiddenWords(forbidden)}; allowed: a drill that keeps to precautions and cautions`,
    );
  });
}
