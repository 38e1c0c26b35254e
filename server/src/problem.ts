import type { InputProblem } from '@dial-gauge/contract';

/** An answer other than success, in words a person can act on. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors?: readonly InputProblem[],
  ) {
    super(detail);
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

/** One field that was refused, what is wrong with it and what is allowed. */
export const refused = (path: string, message: string, detail = 'Nothing was saved.'): HttpProblem =>
  new HttpProblem(422, 'Some fields were refused', detail, [{ path, message }]);
