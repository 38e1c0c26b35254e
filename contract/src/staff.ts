import * as z from 'zod';
import { nameOf } from './names.js';
import { Email, NewPassword, PersonName, SessionView } from './account.js';
import { Id } from './ids.js';
import { Role } from './roles.js';
import { ById, none, nothing, route } from './route.js';

/** The token of a link, and the code that the server prints. */
const Token = z.string().trim().min(1).max(100);

/** A clinic is begun by whoever holds the code that the server printed. */
export const Founding = z.strictObject({
  code: Token,
  clinicName: nameOf(120),
  name: PersonName,
  email: Email,
  password: NewPassword,
});
export type Founding = z.infer<typeof Founding>;

export const NewInvitation = z.strictObject({ id: Id, name: PersonName, email: Email, role: Role });
export type NewInvitation = z.infer<typeof NewInvitation>;

/** What a link is for: somebody new, or another password for somebody who forgot theirs. */
export const LINK_KINDS = ['joining', 'password'] as const;

const Link = z.object({
  id: Id,
  kind: z.enum(LINK_KINDS),
  name: z.string(),
  email: z.string(),
  role: Role,
  madeBy: z.string(),
  madeAt: z.iso.datetime(),
  expiresAt: z.iso.datetime(),
});

/** Somebody with an account, now or before. */
export const StaffMember = z.object({
  id: Id,
  name: z.string(),
  email: z.string(),
  role: Role,
  secondFactor: z.boolean(),
  /** When they were here last, as far as a session of theirs is still there. */
  seenAt: z.iso.datetime().nullable(),
  /** Set for an account that was closed: what they measured and signed stays under their name. */
  endedAt: z.iso.datetime().nullable(),
  here: z.boolean(),
});
export type StaffMember = z.infer<typeof StaffMember>;

export const StaffView = z.object({
  people: z.array(StaffMember),
  links: z.array(Link),
  /** Since when a second factor is asked of everybody who signs in; null: it is left to each. */
  secondFactorSince: z.iso.datetime().nullable(),
});
export type StaffView = z.infer<typeof StaffView>;

/**
 * A link that was made. Its token is shown once, and the link carries it behind the number sign, so that it reaches no log;
 * null where the link went to the person by mail.
 */
export const MadeLink = z.object({ token: z.string().nullable(), mailedTo: z.string().nullable(), staff: StaffView });
export type MadeLink = z.infer<typeof MadeLink>;

export const LinkView = z.object({
  kind: z.enum(LINK_KINDS),
  clinic: z.string(),
  name: z.string(),
  email: z.string(),
  role: Role,
  expiresAt: z.iso.datetime(),
  /** Somebody else has seen this link: it opens only with the second factor of the person. */
  needsFactor: z.boolean(),
});
export type LinkView = z.infer<typeof LinkView>;

export const Joining = z.strictObject({
  token: Token,
  name: PersonName,
  password: NewPassword,
  code: z.string().trim().min(1).max(40).optional(),
});
export type Joining = z.infer<typeof Joining>;

/** Signed in, or null where a second factor is asked for: then one signs in. */
export const Joined = z.object({ session: SessionView.nullable() });
export type Joined = z.infer<typeof Joined>;

/** How long a link works. */
export const LINK_DAYS = 7;

const staff = { params: ById, body: nothing, answer: StaffView };

/** Who works in a clinic: founding it, inviting, what each may do, closing accounts. */
export const STAFF = {
  found: route({
    method: 'post',
    path: '/founding',
    summary: 'Found the clinic, with the code that the server printed; once',
    open: true,
    params: none,
    body: Founding,
    answer: SessionView,
  }),
  openLink: route({
    method: 'post',
    path: '/joining/opening',
    summary: 'What a link is for',
    open: true,
    params: none,
    body: z.strictObject({ token: Token }),
    answer: LinkView,
  }),
  join: route({
    method: 'post',
    path: '/joining',
    summary: 'Use a link, once: choose name and password, and be signed in',
    open: true,
    params: none,
    body: Joining,
    answer: Joined,
  }),
  staff: route({ method: 'get', path: '/staff', summary: 'Who works in this clinic', params: none, body: nothing, answer: StaffView }),
  invite: route({
    method: 'post',
    path: '/invitations',
    summary: 'Invite somebody by a link that works once, for seven days',
    params: none,
    body: NewInvitation,
    answer: MadeLink,
  }),
  withdrawLink: route({ method: 'delete', path: '/invitations/:id', summary: 'Take a link back that nobody has used', ...staff }),
  setRole: route({
    method: 'put',
    path: '/staff/:id/role',
    summary: 'Change what somebody is; they sign in again',
    params: ById,
    body: z.strictObject({ role: Role }),
    answer: StaffView,
  }),
  endAccount: route({
    method: 'post',
    path: '/staff/:id/ending',
    summary: 'Close an account at once; what they measured and signed stays under their name',
    ...staff,
    body: none,
  }),
  reopenAccount: route({ method: 'post', path: '/staff/:id/return', summary: 'Open a closed account again', ...staff, body: none }),
  resetPassword: route({
    method: 'post',
    path: '/staff/:id/password-link',
    summary: 'A link with which somebody chooses another password, once',
    params: ById,
    body: z.strictObject({ id: Id }),
    answer: MadeLink,
  }),
  askSecondFactor: route({
    method: 'put',
    path: '/second-factor-rule',
    summary: 'Ask a second factor of everybody who signs in from now on, or leave it to each; whoever asks it has one',
    params: none,
    body: z.strictObject({ asked: z.boolean() }),
    answer: StaffView,
  }),
  dropSecondFactor: route({
    method: 'post',
    path: '/staff/:id/second-factor-removal',
    summary: 'Take the second factor off an account whose authenticator and codes are lost; they are signed out everywhere',
    ...staff,
    body: none,
  }),
} as const;
