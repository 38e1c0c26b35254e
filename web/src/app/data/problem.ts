import { HttpErrorResponse } from '@angular/common/http';
import type { Problem } from '@dial-gauge/contract';

/** Whatever went wrong with a request, in words a person can act on. */
export interface Failure {
  readonly status: number;
  readonly message: string;
  /** Refused fields, each with what is allowed. */
  readonly fields: readonly { readonly path: string; readonly message: string }[];
  /** True when the same request may go through later: no connection, a restart, a missing database, somebody else signed in. */
  readonly passing: boolean;
}

export function toFailure(error: unknown): Failure {
  if (!(error instanceof HttpErrorResponse)) {
    return {
      status: 0,
      message: 'The answer of the server could not be read. Reload the page; nothing that was saved is lost.',
      fields: [],
      passing: false,
    };
  }
  if (error.status === 0) {
    return {
      status: 0,
      message: 'The server cannot be reached. What you entered is kept here and sent when it answers.',
      fields: [],
      passing: true,
    };
  }
  const problem = error.error as Partial<Problem> | null;
  const message = typeof problem?.detail === 'string' ? problem.detail : `The server answered ${error.status}. Try again.`;
  return {
    status: error.status,
    message,
    fields: problem?.errors ?? [],
    passing: error.status >= 500 || [401, 403, 429].includes(error.status),
  };
}

/** A failure as one line, with the first refused field. */
export function describeFailure(failure: Failure): string {
  const [field] = failure.fields;
  return field ? `${field.path}: ${field.message}` : failure.message;
}
