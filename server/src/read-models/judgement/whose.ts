import { mayDo } from '@dial-gauge/contract';
import { User } from '../../records/identity/entities.js';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import type { Visit } from '../../records/visits/entities.js';

type Whose = Pick<Visit, 'examinerId' | 'amending'>;

/**
 * Why the caller does not sign a visit; null where they do. Everybody signs
 * their own: what they examined, or opened to be amended. One whose examiner
 * does not sign, an assistant or somebody whose account is closed, is signed
 * by whoever answers for it.
 */
export async function notTheirs(work: UnitOfWork, { examinerId, amending }: Whose): Promise<string | null> {
  const { caller, manager, clinicId } = work;
  if (!mayDo(caller.role, 'sign')) return 'Your role does not sign visits.';
  if (amending?.byId) return amending.byId === caller.userId ? null : `${amending.by} opened it to be amended, and signs it.`;
  if (examinerId === caller.userId) return null;
  const examiner = await manager.findOneBy(User, { id: examinerId, clinicId });
  if (!examiner || examiner.endedAt || !mayDo(examiner.role, 'sign')) return null;
  return `This visit is ${examiner.name}’s, who signs it; the lead may countersign.`;
}

/** @throws a problem that says whose it is */
export async function mustBeTheirs(work: UnitOfWork, visit: Whose): Promise<void> {
  const why = await notTheirs(work, visit);
  if (why) throw new HttpProblem(403, 'Somebody else’s visit', `${why} Nothing was signed.`, { kind: 'role' });
}

/** Opened to be amended by whoever may sign it, or by the lead. */
export async function mustAmend(work: UnitOfWork, visit: Whose): Promise<void> {
  if (work.caller.role === 'lead') return;
  const why = await notTheirs(work, { ...visit, amending: null });
  if (why) throw new HttpProblem(403, 'Somebody else’s visit', `${why} The lead may amend it too. Nothing was changed.`, { kind: 'role' });
}
