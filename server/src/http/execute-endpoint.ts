import type { Database } from '../database/database.js';
import type { UnitOfWork } from '../database/unit-of-work.js';
import { SignedVisit } from '../records/visits/signed-visit.js';
import type { Caller } from '../shared/caller.js';
import { keepLate } from '../use-cases/late-entries/keep.js';
import type { Call, Endpoint, Http } from './endpoint.js';

export interface Executed {
  readonly status: 200 | 202;
  readonly answer: unknown;
  /** An episode was entered into: where it stands in the queue is updated at once. */
  readonly marksEpisode: boolean;
}

/** Runs the handler of an endpoint in one unit of work. */
export async function executeEndpoint(
  database: Database,
  { route, options, handle }: Endpoint,
  caller: Caller,
  call: Call,
  http?: Http,
): Promise<Executed> {
  const unit = options.unit ?? (route.method === 'get' ? 'connection' : 'transaction');
  let marksEpisode = false;
  try {
    const done = await database[unit](caller, async (work) => {
      const handled = await handle(work, call, http);
      // Tried again after a deadlock it is another unit of work: the last one counts.
      marksEpisode = work.marksEpisode;
      return handled;
    });
    const isToBeRead = (answer: unknown): answer is (after: UnitOfWork) => Promise<unknown> => typeof answer === 'function';
    return { status: 200, answer: isToBeRead(done) ? await database.connection(caller, done) : done, marksEpisode };
  } catch (error) {
    const { late } = options;
    const { enteredAt } = call.sent;
    if (!(error instanceof SignedVisit) || !late || !enteredAt || !error.signedAt || enteredAt >= error.signedAt) throw error;
    const { visitId } = error;
    const { params, body } = call as { params: { id: string }; body: unknown };
    const answer = await database.transaction(caller, async (work) =>
      keepLate(work, { visitId, route: late.name, target: params.id, body, enteredAt, what: await late.words(work, call) }),
    );
    return { status: 202, answer, marksEpisode: false };
  }
}
