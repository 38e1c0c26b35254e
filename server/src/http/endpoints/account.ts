import { ACCOUNT, type AccountView, type OpenSession, type SessionView } from '@dial-gauge/contract';
import type { Request } from 'express';
import { IsNull, MoreThan, Not } from 'typeorm';
import { Clinic } from '../../records/clinic/entities.js';
import { hashOf } from '../../shared/hash.js';
import { HttpProblem, noSession, notFound, refused } from '../../shared/problems.js';
import { serve, type Http, type Resource } from '../endpoint.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import {
  AccountLinkRow,
  FoundedRow,
  FoundingCodeRow,
  RecoveryCodeRow,
  SecondFactorRow,
  SessionRow,
  User,
} from '../../records/identity/entities.js';
import { hashPassword } from '../../records/identity/password.js';
import { proofBudget } from '../../records/identity/attempts.js';
import { mustBeStrong, provenAgain, signedInAs, type Proven } from '../proof.js';
import {
  confirmSecondFactor,
  newRecoveryCodes,
  offerSecondFactor,
  removeSecondFactor,
  secondFactorOf,
} from '../../records/identity/second-factor.js';

// They wait for the password to be checked, and for others who try the same account.
const proving = { unit: 'pooled' } as const;

/** Sign-in, who is signed in, where, and sign-out. */
export const account: Resource = {
  entities: [User, SessionRow, SecondFactorRow, RecoveryCodeRow, AccountLinkRow, FoundingCodeRow, FoundedRow],
  routes: [
    serve(
      ACCOUNT.signIn,
      async (work, { body }, { request, response }) => {
        request.services.sessions.mustBeOverTls(request);
        const proven = await signedInAs(work.manager, request, body.email.toLowerCase(), body);
        return signedIn(work, proven, { request, response });
      },
      proving,
    ),

    serve(ACCOUNT.session, async (work, _call, { request }) => {
      const user = await work.manager.findOneBy(User, { id: work.caller.userId, clinicId: work.clinicId });
      if (!user) throw noSession();
      return sessionView(work, user, request.session!.factorMissing);
    }),

    serve(ACCOUNT.signOut, async (_work, _call, { request, response }) => {
      await request.services.sessions.end(request, response);
      // What the browser kept of the answers goes; what waits to be sent, under whoever's name, stays.
      response.setHeader('Clear-Site-Data', '"cache"');
      return {};
    }),

    serve(ACCOUNT.sessions, (work, _call, { request }) => sessionsOf(work, request)),

    serve(ACCOUNT.endOtherSessions, async (work, _call, { request }) => {
      await work.manager.delete(SessionRow, { userId: work.caller.userId, id: Not(work.caller.session) });
      return sessionsOf(work, request);
    }),

    serve(ACCOUNT.endSession, async (work, { params }, { request }) => {
      if (params.id === work.caller.session) throw new HttpProblem(409, 'This is where you are', 'You are using it now; sign out instead.');
      const { affected } = await work.manager.delete(SessionRow, { userId: work.caller.userId, id: params.id });
      if (!affected) throw notFound('session');
      return sessionsOf(work, request);
    }),

    serve(
      ACCOUNT.prove,
      async (work, { body }, { request }) => {
        const { user } = await provenAgain(work.manager, request, work.caller.userId, body);
        await request.services.sessions.store.proved(request.session!, user);
        return sessionView(work, user, request.session!.factorMissing);
      },
      proving,
    ),

    serve(ACCOUNT.account, (work) => accountView(work)),

    serve(ACCOUNT.passwordLinkSeen, async (work, _call, { request }) => {
      const { manager, caller } = work;
      await manager.update(User, { id: caller.userId }, { linkUsedAt: null, linkMadeBy: null });
      const user = await manager.findOneByOrFail(User, { id: caller.userId });
      return sessionView(work, user, request.session!.factorMissing);
    }),

    serve(
      ACCOUNT.changePassword,
      async (work, { body }, { request }) => {
        const { manager, caller } = work;
        const { user } = await provenAgain(manager, request, caller.userId, body);
        const clinic = await manager.findOneByOrFail(Clinic, { id: work.clinicId });
        if (body.next === body.password) throw refused('next', 'is the password you have; allowed: another one', 'Nothing was changed.');
        await mustBeStrong(request, 'next', body.next, [user.name, user.email, clinic.name]);
        const passwordHash = await hashPassword(body.next);
        await manager.transaction(async (whole) => {
          const proven = { id: user.id, passwordHash: user.passwordHash };
          const { affected } = await whole.update(User, proven, { passwordHash, passwordSince: work.now });
          if (!affected)
            throw new HttpProblem(409, 'Changed meanwhile', 'Your password was changed elsewhere at the same moment. Sign in again.');
          // Sessions that began with the one before are worth nothing; this one goes on.
          await whole.delete(SessionRow, { userId: user.id, id: Not(caller.session) });
          await whole.update(SessionRow, { id: caller.session }, { credential: hashOf(passwordHash), wantsProof: false });
        });
        return accountView(work);
      },
      proving,
    ),

    serve(
      ACCOUNT.offerSecondFactor,
      async (work, { body }, { request }) => {
        const { user } = await provenAgain(work.manager, request, work.caller.userId, body);
        return offerSecondFactor(work.manager, user, request.services.key);
      },
      proving,
    ),

    serve(
      ACCOUNT.confirmSecondFactor,
      async (work, { body }, { request }) => {
        const { manager, caller, now } = work;
        const user = await manager.findOneByOrFail(User, { id: caller.userId });
        const { limiter, key } = request.services;
        const codes = await limiter.attempt(proofBudget('factor', user.id), () =>
          manager.transaction((whole) => confirmSecondFactor(whole, user, key, body.code, now)),
        );
        if (!codes)
          throw refused(
            'code',
            'is not what the authenticator shows now; allowed: its six digits, within half a minute',
            'Nothing was changed.',
          );
        return { codes, account: await accountView(work) };
      },
      proving,
    ),

    serve(
      ACCOUNT.newRecoveryCodes,
      async (work, { body }, { request }) => {
        const { manager, caller } = work;
        const { user } = await provenAgain(manager, request, caller.userId, body);
        if (!(await secondFactorOf(manager, user.id)))
          throw new HttpProblem(
            409,
            'No second factor',
            'Codes for when an authenticator is lost come with a second factor. Begin with one first.',
          );
        const codes = await manager.transaction((whole) => newRecoveryCodes(whole, user.id));
        return { codes, account: await accountView(work) };
      },
      proving,
    ),

    serve(
      ACCOUNT.removeSecondFactor,
      async (work, { body }, { request }) => {
        const { user } = await provenAgain(work.manager, request, work.caller.userId, body);
        if (await asksSecondFactor(work))
          throw new HttpProblem(
            409,
            'The clinic asks for it',
            'Your clinic asks a second factor of everybody: yours stays. With another authenticator a lead takes it off, and you begin anew.',
          );
        await work.manager.transaction((whole) => removeSecondFactor(whole, user.id));
        return accountView(work);
      },
      proving,
    ),
  ],
};

const asksSecondFactor = async ({ manager, clinicId }: UnitOfWork): Promise<boolean> =>
  (await manager.findOneByOrFail(Clinic, { id: clinicId })).secondFactorSince !== null;

async function accountView({ manager, caller }: UnitOfWork): Promise<AccountView> {
  const { name, email, role, passwordSince, id } = await manager.findOneByOrFail(User, { id: caller.userId });
  const factor = await secondFactorOf(manager, id);
  const recoveryCodesLeft = factor ? await manager.countBy(RecoveryCodeRow, { userId: id, usedAt: IsNull() }) : 0;
  return {
    ...{ name, email, role },
    passwordSince: passwordSince?.toISOString() ?? null,
    secondFactor: factor?.confirmedAt ? { since: factor.confirmedAt.toISOString(), recoveryCodesLeft } : null,
  };
}

async function sessionsOf({ manager, caller, now }: UnitOfWork, request: Request): Promise<OpenSession[]> {
  const since = new Date(now.getTime() - request.services.sessions.store.settings.longestMs);
  const rows = await manager.find(SessionRow, {
    where: { userId: caller.userId, expiresAt: MoreThan(now), startedAt: MoreThan(since) },
    order: { seenAt: 'DESC' },
  });
  return rows.map(({ id, device, startedAt, seenAt }) => ({
    id,
    device,
    startedAt: startedAt.toISOString(),
    seenAt: seenAt.toISOString(),
    here: id === caller.session,
  }));
}

/** Whoever is who they say is signed in, and that is written down. */
export async function signedIn(
  work: UnitOfWork,
  proven: Proven,
  { request, response }: Pick<Http, 'request' | 'response'>,
): Promise<SessionView> {
  const { user } = proven;
  await request.services.sessions.begin(request, response, proven);
  request.services.devices.remember(request, response, `user ${user.id}`);
  await request.services.auditor.signedIn({ userId: user.id, clinicId: user.clinicId });
  return sessionView(work, user);
}

/** @param factorMissing of the session; of one that begins now where it is left out */
async function sessionView({ manager }: UnitOfWork, user: User, factorMissing?: boolean): Promise<SessionView> {
  const clinic = await manager.findOneByOrFail(Clinic, { id: user.clinicId });
  const missing = factorMissing ?? (clinic.secondFactorSince !== null && !(await secondFactorOf(manager, user.id)));
  return {
    secondFactorMissing: missing,
    passwordLink: user.linkUsedAt && { usedAt: user.linkUsedAt.toISOString(), madeBy: user.linkMadeBy ?? '' },
    user: { id: user.id, name: user.name, email: user.email, role: user.role },
    clinic: { id: clinic.id, name: clinic.name },
  };
}
