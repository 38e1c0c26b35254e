import * as z from 'zod';
import { Id } from './ids.js';
import { ASK_SESSION } from './ask-session.js';
import { nameOf } from './names.js';
import { Role } from './roles.js';
import { none, nothing, route } from './route.js';

export const Email = z.email().trim().max(200);
export const PersonName = nameOf(120);

/** A password that somebody has. */
const Password = z.string().min(1).max(200);

/** A password that somebody chooses. How hard it is to guess is looked at where it is kept. */
export const NewPassword = z.string().min(12).max(64);

/** Six digits of an authenticator, or one of the codes for when it is lost. */
const SecondFactorCode = z.string().trim().min(6).max(40);

export const SignIn = z.strictObject({ email: Email, password: Password, code: SecondFactorCode.optional() });
export type SignIn = z.infer<typeof SignIn>;

export const SessionView = z.object({
  user: z.object({ id: Id, name: z.string(), email: z.string(), role: Role }),
  clinic: z.object({ id: Id, name: z.string() }),
  /** The clinic asks for a second factor and there is none: until there is, the account alone is open. */
  secondFactorMissing: z.boolean(),
  /** The password was set with a link since the caller last confirmed it: when, and who made the link. */
  passwordLink: z.object({ usedAt: z.iso.datetime(), madeBy: z.string() }).nullable().default(null),
});
export type SessionView = z.infer<typeof SessionView>;

/** One place where the caller is signed in. */
export const OpenSession = z.object({
  id: z.string(),
  /** The browser as it names itself, cut short. */
  device: z.string(),
  startedAt: z.iso.datetime(),
  seenAt: z.iso.datetime(),
  /** True for the one that asks. */
  here: z.boolean(),
});
export type OpenSession = z.infer<typeof OpenSession>;

/** That it is still the same person. */
export const Proof = z.strictObject({ password: Password, code: SecondFactorCode.optional() });
export type Proof = z.infer<typeof Proof>;

export const PasswordChange = z.strictObject({ ...Proof.shape, next: NewPassword });
export type PasswordChange = z.infer<typeof PasswordChange>;

/** The caller's own account. */
export const AccountView = z.object({
  name: z.string(),
  email: z.string(),
  role: Role,
  /** null: not known, it was chosen before this was kept. */
  passwordSince: z.iso.datetime().nullable(),
  /** null: there is none. */
  secondFactor: z.object({ since: z.iso.datetime(), recoveryCodesLeft: z.int() }).nullable(),
});
export type AccountView = z.infer<typeof AccountView>;

/** What an authenticator is told, once: it counts when its first code was typed. */
export const SecondFactorOffer = z.object({ secret: z.string(), uri: z.string() });
export type SecondFactorOffer = z.infer<typeof SecondFactorOffer>;

/** Codes for when the authenticator is lost, told once. Each works once. */
export const RecoveryCodes = z.object({ codes: z.array(z.string()), account: AccountView });
export type RecoveryCodes = z.infer<typeof RecoveryCodes>;

const BySession = z.object({ id: z.string().regex(/^[0-9a-f]{64}$/) });

/** Sign-in, who is signed in, where, and sign-out. */
export const ACCOUNT = {
  signIn: route({ method: 'post', path: '/session', summary: 'Sign in', open: true, params: none, body: SignIn, answer: SessionView }),
  session: route({ ...ASK_SESSION, summary: 'Who is signed in', params: none, body: nothing, answer: SessionView }),
  signOut: route({ method: 'delete', path: '/session', summary: 'Sign out', params: none, body: nothing, answer: none }),
  sessions: route({
    method: 'get',
    path: '/sessions',
    summary: 'Where the caller is signed in',
    params: none,
    body: nothing,
    answer: z.array(OpenSession),
  }),
  endOtherSessions: route({
    method: 'delete',
    path: '/sessions',
    summary: 'Sign out everywhere else',
    params: none,
    body: nothing,
    answer: z.array(OpenSession),
  }),
  endSession: route({
    method: 'delete',
    path: '/sessions/:id',
    summary: 'Sign out at one other place',
    params: BySession,
    body: nothing,
    answer: z.array(OpenSession),
  }),
  prove: route({
    method: 'post',
    path: '/session/proof',
    summary: 'Enter the password again, after a rest, before something that wants it',
    params: none,
    body: Proof,
    answer: SessionView,
  }),
  account: route({
    method: 'get',
    path: '/account',
    summary: 'The caller’s own account',
    params: none,
    body: nothing,
    answer: AccountView,
  }),
  passwordLinkSeen: route({
    method: 'post',
    path: '/account/password-link-seen',
    summary: 'Confirm that the caller has seen that their password was set with a link',
    params: none,
    body: none,
    answer: SessionView,
  }),
  changePassword: route({
    method: 'put',
    path: '/account/password',
    summary: 'Change one’s own password; every other place is signed out',
    params: none,
    body: PasswordChange,
    answer: AccountView,
  }),
  offerSecondFactor: route({
    method: 'post',
    path: '/account/second-factor',
    summary: 'Begin with a second factor: what an authenticator is told',
    params: none,
    body: Proof,
    answer: SecondFactorOffer,
  }),
  confirmSecondFactor: route({
    method: 'post',
    path: '/account/second-factor/confirmation',
    summary: 'The first code of the authenticator: from now on it is asked for; the codes for when it is lost are told once',
    params: none,
    body: z.strictObject({ code: SecondFactorCode }),
    answer: RecoveryCodes,
  }),
  newRecoveryCodes: route({
    method: 'post',
    path: '/account/recovery-codes',
    summary: 'Other codes for when the authenticator is lost; those before work no more',
    params: none,
    body: Proof,
    answer: RecoveryCodes,
  }),
  removeSecondFactor: route({
    method: 'post',
    path: '/account/second-factor/removal',
    summary: 'Do without a second factor again',
    params: none,
    body: Proof,
    answer: AccountView,
  }),
} as const;
