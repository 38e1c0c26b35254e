import type { Route } from '@dial-gauge/contract';
import type { Request, Response, Router } from 'express';
import type * as z from 'zod';
import type { Caller } from '../caller.js';
import { noSession, notFound, notYours } from '../problem.js';

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

/** Who entered what is sent: a tab left open must not send under the name of whoever signed in after. */
const MEANT_FOR = 'x-dial-gauge-user';

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
    const meant = request.get(MEANT_FOR);
    if (caller && meant !== undefined && meant !== caller.userId) throw notYours(caller.name);
    const address = route.params.safeParse(request.params);
    if (!address.success) throw notFound('record');
    const params = address.data as z.output<R['params']>;
    const hasBody = request.method === 'POST' || request.method === 'PUT';
    const body = (hasBody ? route.body.parse(request.body ?? {}) : undefined) as z.output<R['body']>;
    const answer = await handle({ caller: caller ?? NOBODY, params, body, request, response });
    response.json(answer);
  });
}
