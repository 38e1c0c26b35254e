import { HttpErrorResponse } from '@angular/common/http';
import type { Problem, ProblemKind } from '@dial-gauge/contract';

/** Whatever went wrong with a request, in words a person can act on. */
export interface Failure {
  readonly status: number;
  readonly message: string;
  /** Refused fields, each with what is allowed. */
  readonly fields: readonly { readonly path: string; readonly message: string }[];
  /** True when the same request may go through later: no connection, a restart, a missing database, somebody else signed in. */
  readonly passing: boolean;
  /** What the page can do about it by itself. */
  readonly kind?: ProblemKind;
}

const KIND = /^urn:dial-gauge:problem:([a-z-]+)$/;

export function toFailure(error: unknown): Failure {
  if (!(error instanceof HttpErrorResponse)) {
    return {
      status: 0,
      message: 'The answer of the server could not be read. Reload the page; nothing that was saved is lost.',
      fields: [],
      passing: false,
    };
  }
  const problem = (error.error ?? {}) as Partial<Problem>;
  const detail = typeof problem.detail === 'string' ? problem.detail : null;
  // Nobody there, or whoever stands before the server says so in words of its own.
  if (error.status === 0 || ([502, 503, 504].includes(error.status) && detail === null)) {
    return {
      status: 0,
      message: 'The server cannot be reached. What you entered is kept here and sent when it answers.',
      fields: [],
      passing: true,
    };
  }
  const message = detail ?? `The server answered ${error.status}. Try again.`;
  const kind = KIND.exec(problem.type ?? '')?.[1] as ProblemKind | undefined;
  return {
    status: error.status,
    message,
    fields: problem.errors ?? [],
    // What a role does not go as far as is not sent again and again: somebody has to be told.
    passing: kind !== 'role' && (error.status >= 500 || [401, 403, 429].includes(error.status)),
    ...(kind ? { kind } : {}),
  };
}

/** A failure as one line, with the first refused field. */
export function describeFailure(failure: Failure): string {
  const [field] = failure.fields;
  return field ? `${field.path}: ${field.message}` : failure.message;
}
