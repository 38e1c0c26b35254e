import { ACCOUNT, type OpenSession, type SessionView } from '@dial-gauge/contract';
import { verify } from '@node-rs/argon2';
import type { Request } from 'express';
import { MoreThan, Not } from 'typeorm';
import { Clinic } from '../clinic/entities.js';
import { HttpProblem, noSession, notFound } from '../platform/problems.js';
import { serve, type Resource } from '../platform/resource.js';
import type { Sessions } from '../platform/session.js';
import type { UnitOfWork } from '../platform/unit-of-work.js';
import { SessionRow, User } from './entities.js';
import type { SignInGuard } from './guard.js';
import { hashPassword } from './password.js';

const wrongSignIn = (): HttpProblem => new HttpProblem(401, 'Sign-in refused', 'E-mail or password is wrong. Check both and try again.');

// Checked when no such user exists, so that both answers take as long.
let decoy: Promise<string> | undefined;

/** Sign-in, who is signed in, where, and sign-out. */
export const account: Resource = {
  entities: [User, SessionRow],
  routes: [
    serve(
      ACCOUNT.signIn,
      async (work, { body }, { request, response }) => {
        const { secure } = sessionsAt(request).settings;
        if (secure && !request.secure)
          throw new HttpProblem(
            400,
            'Not over TLS',
            'This server is set to be reached over TLS only. Use its https address, or ask whoever runs it to name its proxy.',
          );
        const email = body.email.toLowerCase();
        const guard = request.app.locals['guard'] as SignInGuard;
        const found = await work.manager.findOneBy(User, { email });
        const user = await guard.attempt(email, request.ip ?? '', async () => {
          const matches = await verify(found?.passwordHash ?? (await (decoy ??= hashPassword('no such user'))), body.password);
          return matches ? found : null;
        });
        if (!user) {
          // By the account's id, never by what was typed: people type passwords into the wrong field.
          request.log.warn({ id: request.id, user: found?.id ?? 'unknown', address: request.ip }, 'sign-in refused');
          throw wrongSignIn();
        }
        await sessionsAt(request).begin(request, response, user);
        return sessionView(work, user);
      },
      // It waits for the password to be checked, and for others who try the same account.
      { unit: 'loose' },
    ),

    serve(ACCOUNT.session, async (work) => {
      const user = await work.manager.findOneBy(User, { id: work.caller.userId, clinicId: work.clinicId });
      if (!user) throw noSession();
      return sessionView(work, user);
    }),

    serve(ACCOUNT.signOut, async (_work, _call, { request, response }) => {
      await sessionsAt(request).end(request, response);
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
  ],
};

const sessionsAt = (request: Request): Sessions => request.app.locals['sessions'] as Sessions;

async function sessionsOf({ manager, caller, now }: UnitOfWork, request: Request): Promise<OpenSession[]> {
  const since = new Date(now.getTime() - sessionsAt(request).settings.longestMs);
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

async function sessionView({ manager }: UnitOfWork, user: User): Promise<SessionView> {
  const clinic = await manager.findOneByOrFail(Clinic, { id: user.clinicId });
  return {
    user: { id: user.id, name: user.name, email: user.email },
    clinic: { id: clinic.id, name: clinic.name },
  };
}
