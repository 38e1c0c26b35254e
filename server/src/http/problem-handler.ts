import type { Problem } from '@dial-gauge/contract';
import { explain, problemType } from '@dial-gauge/contract';
import type { NextFunction, Request, Response } from 'express';
import type { Logger } from 'pino';
import { ZodError } from 'zod';
import { busy, HttpProblem } from '../shared/problems.js';
import { codeOf, errnoOf } from '../database/unit-of-work.js';

const DATABASE_GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
]);

const isDatabaseGone = (error: unknown): boolean => DATABASE_GONE.has(codeOf(error) ?? '');

/** A statement that the database stopped because it took too long; the driver has no name for it. */
const TOO_LONG = 1969;

/** Whatever was thrown, as a problem. The real error goes to the log only. */
function toProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof ZodError) {
    return new HttpProblem(422, 'Some fields were refused', 'Nothing was saved. Correct the fields named and send again.', {
      errors: explain(error),
    });
  }
  if (isDatabaseGone(error)) {
    return new HttpProblem(
      503,
      'The database does not answer',
      'Nothing was saved. What you typed stays on the screen and is sent again by itself; wait a moment.',
    );
  }
  if (errnoOf(error) === TOO_LONG || codeOf(error) === 'ER_LOCK_WAIT_TIMEOUT') return busy();
  if (codeOf(error) === 'ER_DUP_ENTRY') {
    return new HttpProblem(
      409,
      'Identifier already used',
      'Another record carries this identifier. Nothing was saved; try again, a new one is made.',
    );
  }
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.parse.failed') return new HttpProblem(400, 'Not JSON', 'The request body is not JSON; allowed: one JSON object.');
  if (type === 'entity.too.large')
    return new HttpProblem(413, 'Too large', 'The request is larger than is taken here (100 kB; a norm set 2 MB); send less at a time.');
  if (status === 415 || status === 400) return new HttpProblem(status, 'Refused', 'The request could not be read; send JSON.');
  return new HttpProblem(
    500,
    'Something went wrong here',
    'This is a fault of the program, not of your entry. What you typed stays on the screen; try again.',
  );
}

/** Where it happened. The message before it, which may carry values and identifiers over several lines, is left out. */
const placesOf = (stack: string | undefined): string[] | undefined =>
  stack
    ?.split('\n')
    .map((line) => line.trim())
    .filter((line) => /^at .*\d+:\d+\)?$/.test(line))
    .slice(0, 5);

/** The one place where errors become answers. */
export function problemHandler(logger: Logger) {
  return (error: unknown, request: Request, response: Response, next: NextFunction): void => {
    const problem = toProblem(error);
    if (problem.status >= 500) {
      const cause = error as { name?: string; code?: string; stack?: string };
      // Driver errors carry the SQL and its values: only name, code and stack are written down.
      logger.error(
        {
          requestId: request.id,
          name: cause.name,
          code: codeOf(error),
          stack: isDatabaseGone(error) ? undefined : placesOf(cause.stack),
        },
        problem.title,
      );
    }
    if (response.headersSent) {
      next(error);
      return;
    }
    const retryAfter = problem.retryAfter ?? (problem.status === 503 ? 2 : undefined);
    if (retryAfter !== undefined) response.setHeader('Retry-After', String(retryAfter));
    const body: Problem = {
      type: problemType(problem.kind ?? problem.status),
      title: problem.title,
      status: problem.status,
      detail: problem.detail,
      ...(problem.errors ? { errors: [...problem.errors] } : {}),
    };
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(body));
  };
}
