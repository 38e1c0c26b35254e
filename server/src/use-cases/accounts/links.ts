import { randomBytes, randomUUID } from 'node:crypto';
import { LINK_DAYS, STAFF, type Founding, type Joining, type LinkView, type NewInvitation, type Role } from '@dial-gauge/contract';
import { IsNull, MoreThan, type EntityManager } from 'typeorm';
import { AccountLinkRow, FoundedRow, FoundingCodeRow, SessionRow, User } from '../../records/identity/entities.js';
import { hashPassword } from '../../records/identity/password.js';
import { secondFactorOf } from '../../records/identity/second-factor.js';
import { writeAudit } from '../../records/audit/write.js';
import { Clinic } from '../../records/clinic/entities.js';
import { hashOf } from '../../shared/hash.js';
import type { Mailer } from '../../shared/mail.js';
import { HttpProblem, idTaken, refused } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';

const DAY = 86_400_000;
/** The norm set that a new clinic asks first; the lead chooses another under Norms. */
const FIRST_NORM_SET = 'boone-azen-1979';

/** 144 bits, in letters that an address may hold. */
const newToken = (): string => randomBytes(18).toString('base64url');

/** What a link is wrong for is told alike: never made, used, taken back, run out. */
const noSuchLink = (): HttpProblem =>
  new HttpProblem(404, 'Link not open', 'This link was used, was taken back, or has run out. Ask your clinic lead for another one.');

const emailTaken = (email: string): HttpProblem =>
  refused('email', `"${email}" has an account already; allowed: an address that has none`, 'Nothing was changed.');

type Made = Pick<AccountLinkRow, 'id' | 'kind' | 'userId' | 'name' | 'email' | 'role' | 'needsFactor'>;

/** Makes a link. Its token is told now and never again. */
async function makeLink(work: UnitOfWork, made: Made): Promise<string> {
  const { manager, clinicId, caller, now } = work;
  const token = newToken();
  try {
    await manager.insert(AccountLinkRow, {
      ...made,
      clinicId,
      tokenHash: hashOf(token),
      madeBy: caller.userId,
      madeAt: now,
      expiresAt: new Date(now.getTime() + LINK_DAYS * DAY),
      usedAt: null,
      withdrawnAt: null,
    });
  } catch (error) {
    if (isDuplicate(error)) throw idTaken('link');
    throw error;
  }
  return token;
}

export async function invite(work: UnitOfWork, { id, name, email, role }: NewInvitation): Promise<string> {
  const address = email.toLowerCase();
  // Of this clinic only: whether another one knows somebody is nobody's business here.
  if (await work.manager.existsBy(User, { email: address, clinicId: work.clinicId })) throw emailTaken(address);
  const token = await makeLink(work, { id, kind: 'joining', userId: null, name, email: address, role, needsFactor: false });
  await work.log.write('clinic', work.clinicId, [['invited', null, { id, email: address, role }]]);
  return token;
}

/** Who gets to see a password link: the person alone, by mail or from whoever runs the server; or a lead, and then it needs the person's second factor. */
export type LinkReaches = 'the person' | 'a lead';

/** A link with which somebody chooses another password. Those made before for them work no more. */
export async function linkToPassword(work: UnitOfWork, userId: string, id: string, reaches: LinkReaches): Promise<MadePasswordLink> {
  const { manager, clinicId, now } = work;
  const user = await work.one(User, userId, 'account');
  if (user.endedAt) throw new HttpProblem(409, 'Account closed', `The account of ${user.name} is closed. Open it again first.`);
  const needsFactor = reaches === 'a lead';
  if (needsFactor && !(await secondFactorOf(manager, userId))) throw nobodyCouldTell(user.name);
  await manager.update(AccountLinkRow, { ...OPEN, clinicId, userId }, { withdrawnAt: now });
  const { name, email, role } = user;
  const token = await makeLink(work, { id, kind: 'password', userId, name, email, role, needsFactor });
  await work.log.write('user', userId, [['passwordLink', null, { id }]]);
  return { token, user };
}

export interface MadePasswordLink {
  readonly token: string;
  readonly user: User;
}

/** A link that others see, for an account that a password alone opens: whoever sees it could use it unseen. */
const nobodyCouldTell = (name: string): HttpProblem =>
  new HttpProblem(
    409,
    'No safe way for a link',
    `${name} has no two-factor sign-in, and this server sends no mail: whoever sees the link could use it in their name. Ask whoever runs the server for a link (npm run account:link).`,
  );

/** Sends a password link to the person. Where the mail server does not take it, the link is taken back. */
export async function mailPasswordLink(work: UnitOfWork, mailer: Mailer, { token, user }: MadePasswordLink): Promise<string> {
  const { manager, clinicId, now } = work;
  const clinic = await manager.findOneByOrFail(Clinic, { id: clinicId });
  const text = [
    `${work.caller.name} of ${clinic.name} made a link for you to choose a new password for Dial Gauge.`,
    `Open it within ${LINK_DAYS} days. It works once:`,
    `${mailer.settings.publicUrl}/join#${token}`,
    'If you did not ask for a new password, do nothing, and tell your lead.',
  ].join('\n\n');
  try {
    await mailer.send({ to: user.email, subject: `${clinic.name}: choose a new password`, text });
  } catch (error) {
    await manager.update(AccountLinkRow, { ...OPEN, clinicId, tokenHash: hashOf(token) }, { withdrawnAt: now });
    throw new HttpProblem(
      502,
      'Mail not sent',
      'The mail server did not take the mail, so the link was taken back. Try again later, or ask whoever runs the server.',
      { cause: error },
    );
  }
  return user.email;
}

/** Made by a command of the server, a link stands under the name of the person themselves. */
const SERVER_ADMINISTRATOR = 'the server administrator';

const OPEN = { usedAt: IsNull(), withdrawnAt: IsNull() };

export async function withdrawLink(work: UnitOfWork, id: string): Promise<void> {
  const { manager, clinicId, now } = work;
  const link = await work.one(AccountLinkRow, id, 'link');
  const { affected } = await manager.update(AccountLinkRow, { ...OPEN, id, clinicId }, { withdrawnAt: now });
  if (affected) await work.log.write('clinic', clinicId, [['invited', { id, email: link.email, role: link.role }, null]]);
  else if (link.usedAt) throw new HttpProblem(409, 'Already used', `${link.name} has used this link meanwhile. Close the account instead.`);
}

export const openLinks = ({ manager, clinicId, now }: UnitOfWork): Promise<AccountLinkRow[]> =>
  manager.find(AccountLinkRow, { where: { ...OPEN, clinicId, expiresAt: MoreThan(now) }, order: { madeAt: 'DESC' } });

/** What a link is for. @throws a problem where it is not open */
export async function openLink(manager: EntityManager, token: string, now: Date): Promise<LinkView> {
  const { clinicId, kind, name, email, role, expiresAt, needsFactor } = await standingLink(manager, token, now);
  const clinic = await manager.findOneByOrFail(Clinic, { id: clinicId });
  return { kind, clinic: clinic.name, name, email, role, expiresAt: expiresAt.toISOString(), needsFactor: Boolean(needsFactor) };
}

async function standingLink(manager: EntityManager, token: string, now: Date, lock = false): Promise<AccountLinkRow> {
  const where = { ...OPEN, tokenHash: hashOf(token), expiresAt: MoreThan(now) };
  const link = await manager.findOne(AccountLinkRow, { where, ...(lock ? { lock: { mode: 'pessimistic_write' as const } } : {}) });
  if (!link) throw noSuchLink();
  return link;
}

/** Whose password a link is for; null: it is for somebody new. @throws a problem where it is not open */
export async function userOfLink(manager: EntityManager, token: string, now: Date): Promise<User | null> {
  const { userId } = await standingLink(manager, token, now);
  return userId === null ? null : manager.findOneByOrFail(User, { id: userId });
}

/** Uses a link, once: two who use it at once are told apart by the lock. */
export function useLink(manager: EntityManager, { token, name, password }: Joining, now: Date): Promise<User> {
  return manager.transaction(async (whole) => {
    const link = await standingLink(whole, token, now, true);
    const passwordHash = await hashPassword(password);
    await whole.update(AccountLinkRow, { id: link.id }, { usedAt: now });
    if (link.userId === null) return newUser(whole, { ...link, name, passwordHash }, now);
    const user = await whole.findOneOrFail(User, { where: { id: link.userId }, lock: { mode: 'pessimistic_write' } });
    if (user.endedAt) throw noSuchLink();
    const maker = await whole.findOneByOrFail(User, { id: link.madeBy });
    const used = { linkUsedAt: now, linkMadeBy: maker.id === user.id ? SERVER_ADMINISTRATOR : maker.name };
    await whole.update(User, { id: user.id }, { passwordHash, passwordSince: now, ...used });
    await whole.delete(SessionRow, { userId: user.id });
    const { id: userId, clinicId } = user;
    await writeAudit(whole, {
      clinicId,
      userId,
      at: now,
      did: 'new-password',
      about: STAFF.join.path,
      subject: 'none',
      subjectId: link.id,
    });
    return { ...user, passwordHash, ...used };
  });
}

interface NewUser {
  readonly clinicId: string;
  readonly name: string;
  readonly email: string;
  readonly role: Role;
  readonly passwordHash: string;
}

async function newUser(manager: EntityManager, { clinicId, name, email, role, passwordHash }: NewUser, now: Date): Promise<User> {
  const user: User = {
    id: randomUUID(),
    clinicId,
    name,
    email,
    role,
    passwordHash,
    passwordSince: now,
    endedAt: null,
    linkUsedAt: null,
    linkMadeBy: null,
  };
  try {
    await manager.insert(User, user);
  } catch (error) {
    if (isDuplicate(error)) throw emailTaken(email);
    throw error;
  }
  return user;
}

/** A code for whoever starts the first clinic, printed by the server that made it; null where there is a clinic. */
export async function newFoundingCode(manager: EntityManager, now: Date): Promise<string | null> {
  if (await clinicIsThere(manager)) return null;
  const code = newToken();
  await manager.insert(FoundingCodeRow, { codeHash: hashOf(code), madeAt: now });
  return code;
}

export const clinicIsThere = (manager: EntityManager): Promise<boolean> => manager.exists(Clinic);

/** @returns null where it is none, as whoever counts tries wants it */
export const isFoundingCode = async (manager: EntityManager, code: string): Promise<true | null> => {
  if (await clinicIsThere(manager)) throw alreadyFounded();
  return (await manager.existsBy(FoundingCodeRow, { codeHash: hashOf(code) })) ? true : null;
};

/** Founds the clinic with its lead: once, however many codes were printed and however many try at once. */
export async function found(manager: EntityManager, { clinicName, name, email, password }: Founding, now: Date): Promise<User> {
  const passwordHash = await hashPassword(password);
  try {
    return await manager.transaction(async (whole) => {
      const clinicId = randomUUID();
      await whole.insert(FoundedRow, { one: 1, clinicId, foundedAt: now });
      if (await clinicIsThere(whole)) throw alreadyFounded();
      await whole.insert(Clinic, { id: clinicId, name: clinicName, normSet: FIRST_NORM_SET });
      const lead = await newUser(whole, { clinicId, name, email: email.toLowerCase(), role: 'lead', passwordHash }, now);
      await whole.createQueryBuilder().delete().from(FoundingCodeRow).execute();
      return lead;
    });
  } catch (error) {
    if (isDuplicate(error)) throw alreadyFounded();
    throw error;
  }
}

const alreadyFounded = (): HttpProblem =>
  new HttpProblem(409, 'Already founded', 'This server has its clinic. Sign in, or ask its lead for an invitation.');
