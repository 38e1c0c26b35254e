import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import { IsNull, LessThan, type EntityManager } from 'typeorm';
import { hashOf } from '../../shared/hash.js';
import { HttpProblem } from '../../shared/problems.js';
import { seal, unseal } from '../../shared/sealing.js';
import { RecoveryCodeRow, SecondFactorRow, type User } from './entities.js';

const ISSUER = 'Dial Gauge';
/** A code of the step before or after is taken too: clocks differ. */
const WINDOW = 1;
const STEP_SECONDS = 30;
const CODES = 10;
/** 50 bits a code; without letters that are taken for figures (RFC 4648 base 32 in lower case). */
const LETTERS = 'abcdefghijklmnopqrstuvwxyz234567';

const authenticator = (label: string, secret: Secret): TOTP =>
  new TOTP({ issuer: ISSUER, label, algorithm: 'SHA1', digits: 6, period: STEP_SECONDS, secret });

/** Begins with a second factor, or begins anew: it does not count yet. */
export async function offerSecondFactor(manager: EntityManager, user: User, key: Buffer | null): Promise<{ secret: string; uri: string }> {
  if (!key)
    throw new HttpProblem(
      409,
      'No key',
      'This server has no key to keep second factors with. Ask whoever runs it to set DIAL_GAUGE_KEY_FILE.',
    );
  const there = await manager.findOneBy(SecondFactorRow, { userId: user.id });
  if (there?.confirmedAt)
    throw new HttpProblem(409, 'There is one already', 'Your account has a second factor. Do without it first, then begin with another.');
  const secret = new Secret({ size: 20 });
  const row = { userId: user.id, secret: seal(key, secret.base32, user.id), confirmedAt: null, lastStep: 0 };
  if (there) await manager.update(SecondFactorRow, { userId: user.id, confirmedAt: IsNull() }, row);
  else await manager.insert(SecondFactorRow, row);
  return { secret: secret.base32, uri: authenticator(user.email, secret).toString() };
}

/** The first code of an authenticator: from now on it counts. @returns the codes for when it is lost; null where the code is wrong */
export async function confirmSecondFactor(
  manager: EntityManager,
  user: User,
  key: Buffer | null,
  code: string,
  now: Date,
): Promise<string[] | null> {
  const row = await manager.findOneBy(SecondFactorRow, { userId: user.id, confirmedAt: IsNull() });
  if (!row) throw new HttpProblem(409, 'Not begun', 'There is no second factor that waits for its first code. Begin with it again.');
  const step = stepOf(row, user, key, code, now);
  if (step === null) return null;
  await manager.update(SecondFactorRow, { userId: user.id, confirmedAt: IsNull() }, { confirmedAt: now, lastStep: step });
  return newRecoveryCodes(manager, user.id);
}

/** Other codes for when the authenticator is lost: those before work no more. */
export async function newRecoveryCodes(manager: EntityManager, userId: string): Promise<string[]> {
  await manager.delete(RecoveryCodeRow, { userId });
  const codes = Array.from({ length: CODES }, () => [...randomBytes(10)].map((byte) => LETTERS[byte % LETTERS.length]).join(''));
  await manager.insert(
    RecoveryCodeRow,
    codes.map((code) => ({ codeHash: hashOf(`${userId} ${code}`), userId, usedAt: null })),
  );
  return codes.map((code) => `${code.slice(0, 5)}-${code.slice(5)}`);
}

export async function removeSecondFactor(manager: EntityManager, userId: string): Promise<void> {
  await manager.delete(RecoveryCodeRow, { userId });
  await manager.delete(SecondFactorRow, { userId });
}

export const secondFactorOf = async (manager: EntityManager, userId: string): Promise<SecondFactorRow | null> => {
  const row = await manager.findOneBy(SecondFactorRow, { userId });
  return row?.confirmedAt ? row : null;
};

/** Whether a code is right, and takes it: none is taken twice, however many try it at once. */
export async function takesCode(
  manager: EntityManager,
  row: SecondFactorRow,
  user: User,
  key: Buffer | null,
  code: string,
  now: Date,
): Promise<boolean> {
  const typed = code.replace(/[\s-]/g, '').toLowerCase();
  const { userId } = row;
  if (/^\d{6}$/.test(typed)) {
    const step = stepOf(row, user, key, typed, now);
    if (step === null) return false;
    const { affected } = await manager.update(SecondFactorRow, { userId, lastStep: LessThan(step) }, { lastStep: step });
    return affected === 1;
  }
  const { affected } = await manager.update(
    RecoveryCodeRow,
    { codeHash: hashOf(`${userId} ${typed}`), userId, usedAt: IsNull() },
    { usedAt: now },
  );
  return affected === 1;
}

/** The step of time that a code belongs to; null: to none near now. */
function stepOf({ secret }: SecondFactorRow, user: User, key: Buffer | null, code: string, now: Date): number | null {
  if (!key)
    throw new HttpProblem(503, 'No key', 'The key that second factors are kept with is missing on this server. Ask whoever runs it.');
  const timestamp = now.getTime();
  const delta = authenticator(user.email, Secret.fromBase32(unseal(key, secret, user.id))).validate({
    token: code,
    window: WINDOW,
    timestamp,
  });
  return delta === null ? null : Math.floor(timestamp / 1000 / STEP_SECONDS) + delta;
}
