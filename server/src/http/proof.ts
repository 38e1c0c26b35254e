import { verify } from '@node-rs/argon2';
import type { Request } from 'express';
import type { EntityManager } from 'typeorm';
import { networkOf } from '../shared/address.js';
import { HttpProblem, refused } from '../shared/problems.js';
import { budgetsOf, proofBudget, type Trier } from '../records/identity/attempts.js';
import { User } from '../records/identity/entities.js';
import type { DeviceSubject } from './known-devices.js';
import { hashPassword } from '../records/identity/password.js';
import { secondFactorOf, takesCode } from '../records/identity/second-factor.js';
import { STRONG_ENOUGH } from '../records/identity/strength.js';

const wrongSignIn = (): HttpProblem => new HttpProblem(401, 'Sign-in refused', 'E-mail or password is wrong. Check both and try again.');
const wrongProof = (): HttpProblem =>
  new HttpProblem(422, 'Not proven', 'The password, or the code of the authenticator, is wrong. Nothing was changed; try again.', {
    errors: [{ path: 'password', message: 'or the code is wrong; allowed: the password you sign in with, and the code that is shown now' }],
  });
const codeWanted = (): HttpProblem =>
  new HttpProblem(
    401,
    'Second factor',
    'Type the six digits that your authenticator shows now, or one of your codes for when it is lost.',
    { kind: 'second-factor' },
  );

// Checked when no such user exists, so that both answers take as long.
let decoy: Promise<string> | undefined;

interface Given {
  readonly password: string;
  readonly code?: string | undefined;
}

/** Somebody proven: a session begins only while what was verified is still so. */
export interface Proven {
  readonly user: User;
  /** The second factor that was verified, as it is kept; null: there was none. */
  readonly factor: string | null;
}

/** Who tries, told by the request. */
export const trierOf = (request: Request, subject: DeviceSubject | null): Trier => ({
  address: networkOf(request.ip),
  device: subject && request.services.devices.knows(request, subject),
});

/**
 * The user of an address, proven by password and, where there is one, by the
 * second factor. A closed account is told like a wrong password.
 *
 * @throws a problem in the same words whichever of it was wrong; another where a code is still wanted
 */
export async function signedInAs(manager: EntityManager, request: Request, email: string, given: Given): Promise<Proven> {
  const found = await manager.findOneBy(User, { email });
  const budgets = budgetsOf('sign-in', email, trierOf(request, found && `user ${found.id}`));
  const proven = await request.services.limiter.attempt(budgets, () => provenBy(manager, request, found, given));
  if (proven) return proven;
  // By the account's id, never by what was typed: people type passwords into the wrong field.
  request.log.warn({ id: request.id, user: found?.id ?? 'unknown', address: request.ip }, 'sign-in refused');
  throw wrongSignIn();
}

/** That whoever is signed in is there still. @throws a problem where it was not proven */
export async function provenAgain(manager: EntityManager, request: Request, userId: string, given: Given): Promise<Proven> {
  const user = await manager.findOneByOrFail(User, { id: userId });
  const proven = await request.services.limiter.attempt(proofBudget('proof', userId), () => provenBy(manager, request, user, given));
  if (proven) return proven;
  request.log.warn({ id: request.id, user: userId, address: request.ip }, 'proof refused');
  throw wrongProof();
}

/**
 * The second factor alone, where a link was seen by somebody else.
 *
 * @returns the factor as it is kept
 * @throws a problem where it was not proven, or there is none any more
 */
export async function factorProven(manager: EntityManager, request: Request, user: User, code: string | undefined): Promise<string> {
  const factor = await secondFactorOf(manager, user.id);
  if (!factor)
    throw new HttpProblem(
      409,
      'Second factor missing',
      'This link opens only with the second factor of the account, and it was taken off. Ask for another link.',
    );
  if (code === undefined) throw codeWanted();
  const { limiter, key } = request.services;
  const right = await limiter.attempt(proofBudget('factor', user.id), async () =>
    (await takesCode(manager, factor, user, key, code, request.services.clock())) ? true : null,
  );
  if (!right)
    throw refused(
      'code',
      'is not right; allowed: the six digits that the authenticator shows now, or a recovery code',
      'Nothing was changed.',
    );
  return factor.secret;
}

async function provenBy(manager: EntityManager, request: Request, user: User | null, { password, code }: Given): Promise<Proven | null> {
  const matches = await verify(user?.passwordHash ?? (await (decoy ??= hashPassword('no such user'))), password);
  if (!matches || !user || user.endedAt) return null;
  const factor = await secondFactorOf(manager, user.id);
  if (!factor) return { user, factor: null };
  // Thrown, and so neither counted nor forgiven: the tries of a code go on being counted.
  if (code === undefined) throw codeWanted();
  return (await takesCode(manager, factor, user, request.services.key, code, request.services.clock()))
    ? { user, factor: factor.secret }
    : null;
}

/** @param path the field that is refused where the password is too easy to guess */
export async function mustBeStrong(request: Request, path: string, password: string, words: readonly string[]): Promise<void> {
  const { score, says } = await request.services.judgePassword(password, words, networkOf(request.ip));
  if (score < STRONG_ENOUGH)
    throw refused(
      path,
      `is too easy to guess${says ? `: ${says}` : '.'} Allowed: 12 to 64 characters that are hard to guess, as four words that do not belong together`,
      'Nothing was changed.',
    );
}
