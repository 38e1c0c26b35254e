import { randomUUID } from 'node:crypto';
import type { KeptForReview } from '@dial-gauge/contract';
import { same } from '../../database/change-log.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { LateEntryRow } from '../../records/late-entries/entities.js';

/** Something that was entered before the visit was signed and arrives after. */
export interface LateArrival {
  readonly visitId: string;
  /** By what name its endpoint is found again. */
  readonly route: string;
  /** What the address of the request named. */
  readonly target: string;
  readonly body: unknown;
  readonly enteredAt: Date;
  /** What it says, for whoever reviews it. */
  readonly what: string;
}

const LONGEST_WORDS = 300;

/** Keeps a late arrival as it came, in words too; it is mixed in with nothing until somebody has reviewed it. Sent twice it is kept once. */
export async function keepLate(work: UnitOfWork, { visitId, route, target, body, enteredAt, what }: LateArrival): Promise<KeptForReview> {
  const { clinicId, caller, manager, now } = work;
  const { id } = body as { id?: string };
  const shown = what.slice(0, LONGEST_WORDS);
  const row: LateEntryRow = {
    ...{ id: id ?? randomUUID(), clinicId, visitId, route, target, body, what: shown },
    ...{ enteredAt, enteredBy: caller.userId, receivedAt: now, decision: null, decidedBy: null, decidedAt: null, decidedWhy: '' },
  };
  const before = id
    ? undefined
    : (await manager.findBy(LateEntryRow, { clinicId, visitId, route, target, enteredBy: caller.userId })).find((other) =>
        same(other.body, body),
      );
  if (!before) await work.insertFact(LateEntryRow, row, 'entry', ['visitId', 'route', 'target', 'body']);
  work.markStale('visit', visitId);
  return {
    keptForReview: before?.id ?? row.id,
    detail: `The visit was signed before this arrived (${shown}). It is kept for review on Judge, and is not part of what was signed.`,
  };
}
