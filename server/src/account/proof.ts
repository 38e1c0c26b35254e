import { verify } from '@node-rs/argon2';
import type { Request } from 'express';
import type { EntityManager } from 'typeorm';
import { HttpProblem, refused } from '../platform/problems.js';
import { User } from './entities.js';
import type { SignInGuard } from './guard.js';
import { hashPassword } from './password.js';
import { secondFactorOf, takesCode } from './second-factor.js';
import { STRONG_ENOUGH, type Strength } from './strength.js';

/** What the routes of accounts get from the app they run in. */
export interface AccountMeans {
  readonly guard: SignInGuard;
  /** What second factors are kept with; null: there are none here. */
  readonly key: Buffer | null;
  readonly judgePassword: (password: string, words: readonly string[]) => Promise<Strength> | Strength;
}

export const meansAt = (request: Request): AccountMeans => request.app.locals['accounts'] as AccountMeans;

const wrongSignIn = (): HttpProblem => new HttpProblem(401, 'Sign-in refused', 'E-mail or password is wrong. Check both and try again.');
const wrongProof = (): HttpProblem =>
  new HttpProblem(422, 'Not proven', 'The password, or the code of the authenticator, is wrong. Nothing was changed; try again.', [
    { path: 'password', message: 'or the code is wrong; allowed: the password you sign in with, and the code that is shown now' },
  ]);
const codeWanted = (): HttpProblem =>
  new HttpProblem(
    401,
    'Second factor',
    'Type the six digits that your authenticator shows now, or one of your codes for when it is lost.',
    undefined,
    undefined,
    'second-factor',
  );

// Checked when no such user exists, so that both answers take as long.
let decoy: Promise<string> | undefined;

interface Given {
  readonly password: string;
  readonly code?: string | undefined;
}

/**
 * The user of an address, proven by password and, where there is one, by the
 * second factor. A closed account is told like a wrong password.
 *
 * @throws a problem in the same words whichever of it was wrong; another where a code is still wanted
 */
export async function signedInAs(manager: EntityManager, request: Request, email: string, given: Given): Promise<User> {
  const user = await proven(manager, request, email, given);
  if (user) return user;
  // By the account's id, never by what was typed: people type passwords into the wrong field.
  const found = await manager.findOneBy(User, { email });
  request.log.warn({ id: request.id, user: found?.id ?? 'unknown', address: request.ip }, 'sign-in refused');
  throw wrongSignIn();
}

/** That whoever is signed in is there still. @throws a problem where it was not proven */
export async function provenAgain(manager: EntityManager, request: Request, userId: string, given: Given): Promise<User> {
  const user = await manager.findOneByOrFail(User, { id: userId });
  const again = await proven(manager, request, user.email, given);
  if (again?.id === userId) return again;
  request.log.warn({ id: request.id, user: userId, address: request.ip }, 'proof refused');
  throw wrongProof();
}

async function proven(manager: EntityManager, request: Request, email: string, { password, code }: Given): Promise<User | null> {
  const { guard, key } = meansAt(request);
  const found = await manager.findOneBy(User, { email });
  return guard.attempt(email, request.ip ?? '', async () => {
    const matches = await verify(found?.passwordHash ?? (await (decoy ??= hashPassword('no such user'))), password);
    if (!matches || !found || found.endedAt) return null;
    const factor = await secondFactorOf(manager, found.id);
    if (!factor) return found;
    // Thrown, and so neither counted nor forgiven: the tries of a code go on being counted.
    if (code === undefined) throw codeWanted();
    return (await takesCode(manager, factor, found, key, code, new Date())) ? found : null;
  });
}

/** @param path the field that is refused where the password is too easy to guess */
export async function mustBeStrong(request: Request, path: string, password: string, words: readonly string[]): Promise<void> {
  const { score, says } = await meansAt(request).judgePassword(password, words);
  if (score < STRONG_ENOUGH)
    throw refused(
      path,
      `is too easy to guess${says ? `: ${says}` : '.'} Allowed: 12 to 64 characters that are hard to guess, as four words that do not belong together`,
      'Nothing was changed.',
    );
}
