import type { Discharge } from '@dial-gauge/contract';
import { notInTheFuture } from '../../shared/days.js';
import { HttpProblem, refused } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from '../../records/visits/entities.js';
import { Episode } from '../../records/episodes/entities.js';

/** Ends an episode of care with its outcome. Sent twice it is ended once. @returns whose it is */
export async function discharge(work: UnitOfWork, id: string, { on, outcome, note }: Discharge): Promise<string> {
  const { manager, clinicId, caller, now } = work;
  const episode = await work.one(Episode, id, 'episode of care', 'pessimistic_write');
  const ending = { endedOn: on, outcome, endedNote: note };
  if (episode.endedOn !== null) {
    if (episode.endedOn === on && episode.outcome === outcome && episode.endedNote === note) return episode.patientId;
    throw new HttpProblem(409, 'Ended already', `This episode was ended on ${episode.endedOn} meanwhile. Take it up again to change that.`);
  }
  notInTheFuture('on', on, now);
  const last = await manager.findOne(Visit, { where: { clinicId, episodeId: id }, order: { assessedOn: 'DESC' } });
  const earliest = last?.assessedOn ?? episode.openedOn;
  if (on < earliest)
    throw refused('on', `lies before ${last ? 'the last visit' : 'the beginning'}; allowed: ${earliest} or later`, 'Nothing was changed.');
  await work.log.write('episode', id, [['ended', null, ending]]);
  await manager.update(Episode, { id, clinicId }, { ...ending, endedBy: caller.userId });
  return episode.patientId;
}

/** Takes an episode up again. @returns whose it is */
export async function reopen(work: UnitOfWork, id: string, why: string): Promise<string> {
  const { manager, clinicId } = work;
  const episode = await work.one(Episode, id, 'episode of care', 'pessimistic_write');
  if (episode.endedOn === null) return episode.patientId;
  const { endedOn, outcome, endedNote } = episode;
  work.markStale('episode', id);
  await work.log.write('episode', id, [['ended', { endedOn, outcome, endedNote }, { why }]]);
  await manager.update(Episode, { id, clinicId }, { endedOn: null, outcome: null, endedNote: '', endedBy: null });
  return episode.patientId;
}

/** @throws a problem where care has ended: it is taken up again first */
export function mustBeInCare({ endedOn }: Pick<Episode, 'endedOn'>): void {
  if (endedOn !== null)
    throw new HttpProblem(409, 'Discharged', `This episode of care ended on ${endedOn}. Take it up again first, or begin another one.`);
}

/** What came from the person's own page was looked at: it calls nobody any more. */
export async function messagesSeen(work: UnitOfWork, id: string): Promise<void> {
  const { manager, clinicId, now } = work;
  await work.one(Episode, id, 'episode of care');
  work.markStale('episode', id);
  await manager.update(Episode, { id, clinicId }, { messagesSeenAt: now });
}
