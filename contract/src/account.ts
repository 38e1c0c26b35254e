import * as z from 'zod';
import { Id } from './ids.js';
import { ASK_SESSION } from './ask-session.js';
import { none, nothing, route } from './route.js';

export const SignIn = z.strictObject({ email: z.email().max(200), password: z.string().min(1).max(200) });
export type SignIn = z.infer<typeof SignIn>;

export const SessionView = z.object({
  user: z.object({ id: Id, name: z.string(), email: z.string() }),
  clinic: z.object({ id: Id, name: z.string() }),
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
} as const;
