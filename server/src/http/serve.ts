import type { Route } from '@dial-gauge/contract';
import type { Request, Response, Router } from 'express';
import type * as z from 'zod';
import type { Caller } from '../caller.js';
import { noSession, notFound } from '../problem.js';

declare module 'express-session' {
  interface SessionData {
    caller?: Caller;
  }
}

/** A parsed request, with who sent it. */
export interface Call<R extends Route> {
  readonly caller: Caller;
  readonly params: z.output<R['params']>;
  readonly body: z.output<R['body']>;
  readonly request: Request;
  readonly response: Response;
}

/** Stands in for the caller on the routes that work without a session. */
const NOBODY: Caller = { userId: '', name: '', clinicId: '' };

/**
 * Puts one route of the contract on a router: checks the session, parses with
 * the contract, calls, answers.
 */
export function serve<R extends Route>(router: Router, route: R, handle: (call: Call<R>) => Promise<z.input<R['answer']>>): void {
  router[route.method](route.path, async (request, response) => {
    const caller = request.session.caller;
    if (!caller && !route.open) throw noSession();
    const address = route.params.safeParse(request.params);
    if (!address.success) throw notFound('record');
    const params = address.data as z.output<R['params']>;
    const hasBody = request.method === 'POST' || request.method === 'PUT';
    const body = (hasBody ? route.body.parse(request.body ?? {}) : undefined) as z.output<R['body']>;
    const answer = await handle({ caller: caller ?? NOBODY, params, body, request, response });
    response.json(answer);
  });
}
