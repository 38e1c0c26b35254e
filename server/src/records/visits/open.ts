import { Signature } from '../signatures/entities.js';
import { refused } from '../../shared/problems.js';
import { SignedVisit } from './signed-visit.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { Visit } from './entities.js';

/*
 * What a visit still takes: the one place that decides. A visit takes
 * everything until it is signed, and again while it is being amended. Signed,
 * it takes nothing: neither readings and remarks, nor its run sheet, cautions,
 * summary and retests; and while the latest visit of an episode is signed, the
 * episode's intake and goals stand too, since they are part of what was signed.
 */

/** A clock that ticks on while a request travels is not ahead. */
const TRAVEL_MS = 5_000;

/** The visit, held so that nobody signs it until this unit of work is done. @throws {SignedVisit} */
export async function openVisit(
  work: UnitOfWork,
  visitId: string,
  lock: 'pessimistic_read' | 'pessimistic_write' = 'pessimistic_read',
): Promise<Visit> {
  const visit = await work.one(Visit, visitId, 'visit', lock);
  work.markStale('visit', visitId);
  if (visit.signed) throw new SignedVisit(visitId, await signedAt(work, visitId));
  return visit;
}

/** When a visit was signed last. */
export async function signedAt({ manager, clinicId }: UnitOfWork, visitId: string): Promise<Date | null> {
  const last = await manager.findOne(Signature, {
    where: { clinicId, visitId },
    order: { number: 'DESC' },
    select: { id: true, signedAt: true },
  });
  return last?.signedAt ?? null;
}

/** Intake and goals of an episode may change while its latest visit takes changes, or before the first. @throws {SignedVisit} */
export async function mustTakeChanges(work: UnitOfWork, episodeId: string): Promise<void> {
  const { manager, clinicId } = work;
  work.markStale('episode', episodeId);
  const latest = await manager.findOne(Visit, {
    where: { clinicId, episodeId },
    order: { assessedOn: 'DESC', startedAt: 'DESC', id: 'DESC' },
    lock: { mode: 'pessimistic_read' },
  });
  if (latest?.signed)
    throw new SignedVisit(
      latest.id,
      await signedAt(work, latest.id),
      'Nothing was changed: the latest visit is signed, and this is part of what was signed. Start the next visit, or open the signed one with “Amend” on Judge.',
    );
}

/** A reading is held between the visit's start and now. @throws a problem that names the field */
export function mustBeHeldWithin(visit: Pick<Visit, 'startedAt'>, heldAt: Date, now: Date): void {
  const [from, to] = [visit.startedAt.getTime() - TRAVEL_MS, now.getTime() + TRAVEL_MS];
  if (heldAt.getTime() >= from && heldAt.getTime() <= to) return;
  const side = heldAt.getTime() < from ? 'before the visit began' : 'in the future';
  throw refused(
    'heldAt',
    `lies ${side}; allowed: ${visit.startedAt.toISOString()} (the start of the visit) to now, ${now.toISOString()}`,
    'Nothing was saved. Look at the clock of this device, then hold the reading again.',
  );
}

/** The same two rules as a condition of a statement, for a visit `v`: the moment held, then now. */
export const TAKES_READING = `v.signed = 0 AND ? BETWEEN v.started_at - INTERVAL ${TRAVEL_MS * 1000} MICROSECOND AND ? + INTERVAL ${TRAVEL_MS * 1000} MICROSECOND`;
