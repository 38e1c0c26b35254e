import { randomUUID } from 'node:crypto';
import type { KeptForReview, Route } from '@dial-gauge/contract';
import { same } from '../../database/change-log.js';
import type { Call, How } from '../../http/endpoint.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { LateEntryRow } from '../../records/late-entries/entities.js';

/**
 * What is done with something that was entered before the visit was signed
 * and arrives after: it is kept as it came, in words too, and mixed in with
 * nothing until somebody has looked at it.
 *
 * @param name what the replay knows the route by
 * @param words what it says, for whoever looks
 */
export function keepLate<R extends Route>(
  name: string,
  words: (work: UnitOfWork, call: Call<R>) => Promise<string> | string,
): NonNullable<How<R>['late']> {
  return async (work, call, visitId): Promise<KeptForReview> => {
    const { params, body, sent } = call as Call & { params: { id: string }; body: { id?: string } };
    const { clinicId, caller, manager, now } = work;
    const what = (await words(work, call)).slice(0, 300);
    const row: LateEntryRow = {
      id: body.id ?? randomUUID(),
      clinicId,
      visitId,
      route: name,
      target: params.id,
      body,
      what,
      enteredAt: sent.enteredAt ?? now,
      enteredBy: caller.userId,
      receivedAt: now,
      decision: null,
      decidedBy: null,
      decidedAt: null,
      decidedWhy: '',
    };
    const before = body.id
      ? undefined
      : (await manager.findBy(LateEntryRow, { clinicId, visitId, route: name, target: params.id, enteredBy: caller.userId })).find(
          (other) => same(other.body, body),
        );
    if (!before) await work.insertFact(LateEntryRow, row, 'entry', ['visitId', 'route', 'target', 'body']);
    return {
      keptForReview: before?.id ?? row.id,
      detail: `The visit was signed before this arrived (${what}). It is kept for review on Judge, and is not part of what was signed.`,
    };
  };
}
