import type { Role, StaffView } from '@dial-gauge/contract';
import { IsNull } from 'typeorm';
import { AccountLinkRow, SessionRow, User } from '../../records/identity/entities.js';
import { removeSecondFactor, secondFactorOf } from '../../records/identity/second-factor.js';
import { Clinic } from '../../records/clinic/entities.js';
import { HttpProblem } from '../../shared/problems.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { openLinks } from './links.js';

export async function staffView(work: UnitOfWork): Promise<StaffView> {
  const { manager, clinicId, caller } = work;
  const people = await manager.query<
    { id: string; name: string; email: string; role: Role; ended_at: Date | null; confirmed_at: Date | null; seen_at: Date | null }[]
  >(
    `SELECT u.id, u.name, u.email, u.role, u.ended_at, f.confirmed_at, (SELECT MAX(s.seen_at) FROM session s WHERE s.user_id = u.id) AS seen_at
     FROM user u LEFT JOIN second_factor f ON f.user_id = u.id WHERE u.clinic_id = ? ORDER BY u.ended_at IS NOT NULL, u.name, u.id`,
    [clinicId],
  );
  const links = await openLinks(work);
  const names = await work.namesOf(links.map(({ madeBy }) => madeBy));
  const clinic = await manager.findOneByOrFail(Clinic, { id: clinicId });
  return {
    secondFactorSince: clinic.secondFactorSince?.toISOString() ?? null,
    people: people.map(({ id, name, email, role, ended_at, confirmed_at, seen_at }) => ({
      ...{ id, name, email, role },
      secondFactor: confirmed_at !== null,
      seenAt: seen_at?.toISOString() ?? null,
      endedAt: ended_at?.toISOString() ?? null,
      here: id === caller.userId,
    })),
    links: links.map(({ id, kind, name, email, role, madeBy, madeAt, expiresAt }) => ({
      ...{ id, kind, name, email, role },
      madeBy: names.get(madeBy) ?? '',
      madeAt: madeAt.toISOString(),
      expiresAt: expiresAt.toISOString(),
    })),
  };
}

/** Somebody else of the clinic, who waits for whoever changes them at the same moment. Nobody changes what they are themselves, so that a lead is left. */
async function other(work: UnitOfWork, id: string): Promise<User> {
  const { manager, clinicId, caller } = work;
  // One at a time in a clinic: two leads who close each other's accounts at once would leave none.
  await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
  const user = await work.one(User, id, 'account', 'pessimistic_write');
  if (id === caller.userId)
    throw new HttpProblem(409, 'Your own account', 'Nobody changes their own role or closes their own account: another lead does.');
  const me = await work.one(User, caller.userId, 'account');
  if (me.endedAt || me.role !== 'lead') throw new HttpProblem(409, 'Changed meanwhile', 'You are not a lead any more. Sign in again.');
  return user;
}

export async function setRole(work: UnitOfWork, id: string, role: Role): Promise<void> {
  const { manager, clinicId } = work;
  const user = await other(work, id);
  const changed = await work.log.write('user', id, [['role', user.role, role]]);
  if (changed.length === 0) return;
  await manager.query('CALL set_role(?, ?, ?, ?)', [clinicId, id, work.caller.userId, role]);
  await manager.delete(SessionRow, { userId: id });
}

/** Closes an account at once: its sessions end, and links that it made or that were made for it work no more. */
export async function endAccount(work: UnitOfWork, id: string): Promise<void> {
  const { manager, clinicId, now } = work;
  const user = await other(work, id);
  if (user.endedAt) return;
  await work.log.write('user', id, [['endedAt', null, now.toISOString()]]);
  await manager.update(User, { id, clinicId }, { endedAt: now });
  await manager.delete(SessionRow, { userId: id });
  for (const whose of [{ madeBy: id }, { userId: id }])
    await manager.update(AccountLinkRow, { ...whose, clinicId, usedAt: IsNull(), withdrawnAt: IsNull() }, { withdrawnAt: now });
}

export async function reopenAccount(work: UnitOfWork, id: string): Promise<void> {
  const { manager, clinicId } = work;
  const user = await other(work, id);
  if (!user.endedAt) return;
  await work.log.write('user', id, [['endedAt', user.endedAt.toISOString(), null]]);
  await manager.update(User, { id, clinicId }, { endedAt: null });
}

/** A second factor is asked of everybody who signs in from now on, or left to each. Who is signed in goes on: nobody is stopped in the middle of an exam. */
export async function askSecondFactor(work: UnitOfWork, asked: boolean): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  const clinic = await manager.findOneOrFail(Clinic, { where: { id: clinicId }, lock: { mode: 'pessimistic_write' } });
  if (asked && !(await secondFactorOf(manager, caller.userId)))
    throw new HttpProblem(
      409,
      'Yours first',
      'You have no second factor yourself. Set up yours under Your account first, then ask it of everybody.',
    );
  const changed = await work.log.write('clinic', clinicId, [['secondFactorAsked', clinic.secondFactorSince !== null, asked]]);
  if (changed.length > 0) await manager.update(Clinic, { id: clinicId }, { secondFactorSince: asked ? now : null });
}

export async function dropSecondFactor(work: UnitOfWork, id: string): Promise<void> {
  const { manager } = work;
  await other(work, id);
  await work.log.write('user', id, [['secondFactor', true, false]]);
  await removeSecondFactor(manager, id);
  await manager.delete(SessionRow, { userId: id });
}
