import { notAllowed, type Act, type InputProblem, type ProblemKind, type Role } from '@dial-gauge/contract';

/** What a problem says beyond its words, where there is something to say. */
interface ProblemExtras {
  /** The fields that were refused. */
  readonly errors?: readonly InputProblem[];
  /** Seconds after which it is worth trying again. */
  readonly retryAfter?: number;
  /** Set where the client can act on it by itself. */
  readonly kind?: ProblemKind;
  readonly cause?: unknown;
}

/** An answer other than success, in words a person can act on. */
export class HttpProblem extends Error {
  readonly errors?: readonly InputProblem[];
  readonly retryAfter?: number;
  readonly kind?: ProblemKind;

  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    { errors, retryAfter, kind, cause }: ProblemExtras = {},
  ) {
    super(detail, { cause });
    this.errors = errors;
    this.retryAfter = retryAfter;
    this.kind = kind;
  }
}

export const notFound = (what: string): HttpProblem =>
  new HttpProblem(404, 'Not found', `There is no such ${what} in this clinic. Go back to the caseload and open it from there.`);

export const notYours = (name: string): HttpProblem =>
  new HttpProblem(
    403,
    'Somebody else is signed in',
    `${name} is signed in now. What you entered is kept here under your name and is sent when you sign in again.`,
  );

export const noSession = (): HttpProblem =>
  new HttpProblem(401, 'Not signed in', 'Your session has ended. Sign in again; what you typed stays on the screen.');

/** The role of whoever asks does not go so far. */
export const notYourRole = (role: Role, act: Act): HttpProblem =>
  new HttpProblem(403, 'Not for your role', `${notAllowed(role, act)} Nothing was changed.`, { kind: 'role' });

/** After a rest somebody else may sit there. */
export const wantsProof = (): HttpProblem =>
  new HttpProblem(
    403,
    'Enter your password again',
    'You have rested for a while: enter your password again, so that it is you. Nothing was done yet; what you typed stays on the screen.',
    { kind: 'proof' },
  );

/** The clinic asks for a second factor, and whoever signed in has none. */
export const secondFactorMissing = (): HttpProblem =>
  new HttpProblem(
    403,
    'A second factor is asked for',
    'Your clinic asks a second factor of everybody. Set yours up under Your account; until then nothing else is open to you. What you entered is kept.',
    { kind: 'second-factor-missing' },
  );

/** One field that was refused, what is wrong with it and what is allowed. */
export const refused = (path: string, message: string, detail = 'Nothing was saved.'): HttpProblem =>
  new HttpProblem(422, 'Some fields were refused', detail, { errors: [{ path, message }] });

/** Everybody waits for the same thing: nothing was saved, and it is worth trying again. */
export const busy = (): HttpProblem =>
  new HttpProblem(503, 'Busy', 'Too much is going on at once. Nothing was saved; it is sent again by itself.', { retryAfter: 2 });

/** What was asked for was ended before it was done. Whether it was done all the same is found out by sending it again: it is done once. */
export const tookTooLong = (): HttpProblem =>
  new HttpProblem(
    503,
    'Took too long',
    'This took too long and was ended. What you typed stays on the screen and is sent again by itself.',
    { retryAfter: 5 },
  );

/** A record, or a fact, whose identifier is another one's. */
export const idTaken = (what: string): HttpProblem =>
  new HttpProblem(
    409,
    'Identifier already used',
    `Another ${what} carries this identifier. Nothing was saved; try again, a new one is made.`,
    { errors: [{ path: 'id', message: `belongs to another ${what}; allowed: an identifier that was not used before` }] },
  );

/** Somebody else changed it since it was read: both are told, and neither is overwritten. */
export const changedMeanwhile = (what: string, by: string): HttpProblem =>
  new HttpProblem(
    409,
    'Changed by somebody else',
    `${what} was changed by ${by} meanwhile. Yours was not saved: look at what stands there now, then change it again.`,
  );
