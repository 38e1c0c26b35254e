import type { Caller } from './caller.js';
import type { Database } from './database.js';
import type { Call, Http, Served } from './resource.js';
import { SignedVisit } from './signed-visit.js';

export interface Performed {
  readonly status: 200 | 202;
  readonly answer: unknown;
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
  try {
    return { status: 200, answer: await database[unit](caller, (work) => handle(work, call, http)) };
  } catch (error) {
    const { late } = how;
    const { enteredAt } = call.sent;
    if (!(error instanceof SignedVisit) || !late || !enteredAt || !error.signedAt || enteredAt >= error.signedAt) throw error;
    return { status: 202, answer: await database.whole(caller, (work) => late(work, call, error.visitId)) };
  }
}
