import { ROUTES, type SessionView } from '@dial-gauge/contract';
import { verify } from '@node-rs/argon2';
import { Router, type Request } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { DataSource } from 'typeorm';
import { hashPassword } from '../store/password.js';
import { Clinic, User } from '../store/entities/index.js';
import { HttpProblem, noSession } from '../problem.js';
import { serve } from './serve.js';

export const COOKIE_NAME = 'dial-gauge';

const wrongSignIn = (): HttpProblem => new HttpProblem(401, 'Sign-in refused', 'E-mail or password is wrong. Check both and try again.');

/** Ten refused tries in a quarter of an hour, by address. Successful ones do not count. */
const limiter = () =>
  rateLimit({
    windowMs: 15 * 60_000,
    limit: 10,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, _response, next) =>
      next(
        new HttpProblem(
          429,
          'Too many tries',
          'Too many refused sign-ins. Wait a quarter of an hour, or ask the clinic lead to check the account.',
        ),
      ),
  });

/** Sign-in, who is signed in, sign-out. */
export function sessionRouter(dataSource: DataSource): Router {
  const router = Router();
  // Checked when no such user exists, so that both answers take as long.
  const decoy = hashPassword('no such user');
  router.post(ROUTES.signIn.path, limiter());

  serve(router, ROUTES.signIn, async ({ body, request }) => {
    const user = await dataSource.getRepository(User).findOneBy({ email: body.email.toLowerCase() });
    const matches = await verify(user?.passwordHash ?? (await decoy), body.password);
    if (!user || !matches) throw wrongSignIn();
    await regenerate(request);
    request.session.caller = { userId: user.id, name: user.name, clinicId: user.clinicId };
    return view(dataSource, user);
  });

  serve(router, ROUTES.session, async ({ caller }) => {
    const user = await dataSource.getRepository(User).findOneBy({ id: caller.userId, clinicId: caller.clinicId });
    if (!user) throw noSession();
    return view(dataSource, user);
  });

  serve(router, ROUTES.signOut, async ({ request, response }) => {
    await new Promise<void>((resolve, reject) => request.session.destroy((error) => (error ? reject(error) : resolve())));
    response.clearCookie(COOKIE_NAME);
    return {};
  });
  return router;
}

/** A fresh session id at sign-in: a cookie planted before it is worth nothing. */
function regenerate(request: Request): Promise<void> {
  return new Promise((resolve, reject) => request.session.regenerate((error) => (error ? reject(error) : resolve())));
}

async function view(dataSource: DataSource, user: User): Promise<SessionView> {
  const clinic = await dataSource.getRepository(Clinic).findOneByOrFail({ id: user.clinicId });
  return {
    user: { id: user.id, name: user.name, email: user.email },
    clinic: { id: clinic.id, name: clinic.name, normSet: clinic.normSet },
  };
}
