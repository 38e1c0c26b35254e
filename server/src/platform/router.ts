import express, { type NextFunction, type Request, type RequestHandler, type Response, type Router } from 'express';
import { NOBODY } from './caller.js';
import type { Database } from './database.js';
import { perform } from './perform.js';
import { HttpProblem, noSession, notFound, notYours } from './problems.js';
import type { Resource, Served } from './resource.js';
import { sentOf } from './sent.js';
import type { Threads } from './threads.js';

/** Who entered what is sent: a tab left open must not send under the name of whoever signed in after. */
const MEANT_FOR = 'x-dial-gauge-user';
const USUAL_SIZE = 100_000;

/**
 * Puts the routes of all resources on one router. For each: is there a session
 * and is it the one meant, then only is the body read; then it is parsed with
 * the contract, done, answered.
 */
export function routerOf(resources: readonly Resource[], database: Database, threads: Threads | null): Router {
  const router = express.Router();
  for (const served of resources.flatMap((resource) => resource.routes)) {
    const { method, path, largest = USUAL_SIZE } = served.route;
    const readBody: RequestHandler[] = method === 'post' || method === 'put' ? [express.json({ limit: largest })] : [];
    router[method](path, mustBeSignedIn(served), ...readBody, answer(served));
  }
  return router;

  function answer(served: Served): RequestHandler {
    const { route, how } = served;
    return async (request, response) => {
      const caller = request.session.caller ?? NOBODY;
      const address = route.params.safeParse(request.params);
      if (!address.success) throw notFound('record');
      const query = route.query.parse(request.query);
      const hasBody = request.method === 'POST' || request.method === 'PUT';
      const body = hasBody ? route.body.parse(request.body ?? {}) : undefined;
      const sent = sentOf((name) => request.get(name), new Date());
      const call = { params: address.data, query, body, sent };
      if (how.thread && threads) {
        const { status, json } = await threads.perform(served, caller, call);
        response.status(status).type('json').send(json);
        return;
      }
      const { status, answer: done } = await perform(database, served, caller, call, { request, response });
      response.status(status).json(done);
    };
  }
}

function mustBeSignedIn({ route }: Served): RequestHandler {
  return (request: Request, _response: Response, next: NextFunction) => {
    const caller = request.session.caller;
    if (!caller && !route.open) throw noSession();
    const meant = request.get(MEANT_FOR);
    if (caller && meant !== undefined && meant !== caller.userId) throw notYours(caller.name);
    next();
  };
}

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** What changes something comes as JSON and from our own page: a form on another site can send neither. */
export const fromOurselves: RequestHandler = (request, _response, next) => {
  if (SAFE.has(request.method)) return next();
  const site = request.get('sec-fetch-site');
  const origin = request.get('origin');
  const own = `${request.protocol}://${request.host}`;
  if ((site !== undefined && site !== 'same-origin' && site !== 'none') || (origin !== undefined && origin !== own))
    throw new HttpProblem(403, 'From another site', 'This was sent from another site. Nothing was changed; use the page of this server.');
  const hasBody = request.get('transfer-encoding') !== undefined || Number(request.get('content-length') ?? 0) > 0;
  if (request.method !== 'DELETE' && (hasBody || request.get('content-type')) && !request.is('application/json'))
    throw new HttpProblem(415, 'Not JSON', 'The request is not JSON; allowed: Content-Type: application/json.');
  next();
};
