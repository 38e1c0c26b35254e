import type { Caller } from '../shared/caller.js';
import type { Database } from '../database/database.js';
import type { Call, Http, Served } from './endpoint.js';
import { SignedVisit } from '../records/visits/signed-visit.js';
import type { UnitOfWork } from '../database/unit-of-work.js';

export interface Performed {
  readonly status: 200 | 202;
  readonly answer: unknown;
  /** An episode was entered into: where it stands in the queue is told at once. */
  readonly touchedEpisode: boolean;
}

/** Does what a route is there for, in one unit of work. */
export async function perform(
  database: Database,
  { route, how, handle }: Served,
  caller: Caller,
  call: Call,
  http?: Http,
): Promise<Performed> {
  const unit = how.unit ?? (route.method === 'get' ? 'each' : 'whole');
  let touchedEpisode = false;
  try {
    const done = await database[unit](caller, async (work) => {
      const handled = await handle(work, call, http);
      // Tried again after a deadlock it is another unit of work: the last one counts.
      touchedEpisode = work.touchedEpisode;
      return handled;
    });
    const isToBeRead = (answer: unknown): answer is (after: UnitOfWork) => Promise<unknown> => typeof answer === 'function';
    return { status: 200, answer: isToBeRead(done) ? await database.each(caller, done) : done, touchedEpisode };
  } catch (error) {
    const { late } = how;
    const { enteredAt } = call.sent;
    if (!(error instanceof SignedVisit) || !late || !enteredAt || !error.signedAt || enteredAt >= error.signedAt) throw error;
    return {
      status: 202,
      answer: await database.whole(caller, (work) => {
        work.touch('visit', error.visitId);
        return late(work, call, error.visitId);
      }),
      touchedEpisode: false,
    };
  }
}
