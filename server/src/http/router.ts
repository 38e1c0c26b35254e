import { pipeline, Readable } from 'node:stream';
import { pipeline as pipelined } from 'node:stream/promises';
import { actOf, ALLOWED, mayDo, type Act } from '@dial-gauge/contract';
import express, { type NextFunction, type Request, type RequestHandler, type Response, type Router } from 'express';
import type { Auditor } from '../use-cases/auditing/auditor.js';
import { networkOf } from '../shared/address.js';
import { NOBODY, type Caller } from '../shared/caller.js';
import type { Database } from '../database/database.js';
import type { Door } from './door.js';
import { executeEndpoint } from './execute-endpoint.js';
import {
  HttpProblem,
  noSession,
  notFound,
  notYourRole,
  notYours,
  secondFactorMissing,
  wantsProof as proofWanted,
} from '../shared/problems.js';
import type { Call, Endpoint, Http, Resource } from './endpoint.js';
import { clientClockOf } from '../shared/client-clock.js';
import type { Session, SessionStore } from '../records/identity/session-store.js';
import type { Threads } from './threads.js';

/** Who entered what is sent: a tab left open must not send under the name of whoever signed in after. */
const MEANT_FOR = 'x-dial-gauge-user';
const USUAL_SIZE = 100_000;

export interface RouterDependencies {
  readonly database: Database;
  readonly sessions: SessionStore;
  /** Where what takes long is done; without them it is done here. */
  readonly threads?: Threads;
  /** Writes down who looks at and enters into whose record. */
  readonly auditor?: Auditor;
  /** Hears that an episode was entered into, once that is answered. */
  readonly episodeMarked?: () => void;
  /** Where those wait who are not signed in. */
  readonly door?: Door;
  /** Whether answers are held against the contract before they go out: in tests and in development. */
  readonly checksAnswers?: boolean;
}

/**
 * Puts the routes of all resources on one router. For each: is there a session
 * and is it the one meant, then only is the body read; then it is parsed with
 * the contract, done, answered.
 */
export function routerOf(
  resources: readonly Resource[],
  { database, sessions, threads, episodeMarked, auditor, door, checksAnswers = false }: RouterDependencies,
): Router {
  const router = express.Router();
  // By the first word of the path, so that a request is not held against every route there is.
  const under = new Map<string, Router>();
  for (const endpoint of resources.flatMap((resource) => resource.routes)) {
    const { method, path, largest = USUAL_SIZE } = endpoint.route;
    const [, word = '', rest = ''] = /^(\/[^/]+)(.*)$/.exec(path) ?? [];
    if (!under.has(word)) router.use(word, newUnder(word));
    const readBody: RequestHandler[] = method === 'post' || method === 'put' ? [express.json({ limit: largest })] : [];
    under.get(word)?.[method](rest || '/', mustBeSignedIn(endpoint, sessions), ...readBody, answer(endpoint));
  }
  return router;

  function newUnder(word: string): Router {
    const made = express.Router();
    under.set(word, made);
    return made;
  }

  function answer(endpoint: Endpoint): RequestHandler {
    const { route, pieces } = endpoint;
    return async (request, response) => {
      const caller = request.session?.caller ?? NOBODY;
      const call = callOf(endpoint, request);
      const { id } = call.params as { id?: string };
      const audited = async () => auditor?.note({ route, caller, id });
      if (pieces) {
        // What is read is written down before it is seen; what is written, once it was taken.
        await audited();
        return stream(endpoint, response, (into) => database.pooled(caller, (work) => pipelined(Readable.from(pieces(work, call)), into)));
      }
      const { status, json, marksEpisode } = await atItsPlace(endpoint, request, () =>
        execute(endpoint, caller, call, { request, response }),
      );
      await audited();
      send(response, status, json);
      if (marksEpisode) episodeMarked?.();
    };
  }

  /** What is open to everybody waits at the door; what is done in a thread has a queue of its own. */
  function atItsPlace<T>({ route, options }: Endpoint, request: Request, work: () => Promise<T>): Promise<T> {
    return route.open && door && !(options.thread && threads) ? door.run(request, work) : work();
  }

  /** In a thread, where it may take longer than others should wait; here otherwise. */
  async function execute(endpoint: Endpoint, caller: Caller, call: Call, { request, response }: Pick<Http, 'request' | 'response'>) {
    if (endpoint.options.thread && threads) return threads.perform(endpoint, caller, call, networkOf(request.ip));
    const http = { request, response, services: request.services };
    const { status, answer: done, marksEpisode } = await executeEndpoint(database, endpoint, caller, call, http);
    if (checksAnswers && status === 200) mustKeepContract(endpoint, done);
    return { status, json: JSON.stringify(done), marksEpisode };
  }
}

/** A request, read by the contract. */
function callOf({ route }: Endpoint, request: Request): Call {
  const address = route.params.safeParse(request.params);
  if (!address.success) throw notFound('record');
  const query = route.query.parse(request.query);
  const hasBody = request.method === 'POST' || request.method === 'PUT';
  const body = hasBody ? route.body.parse(request.body ?? {}) : undefined;
  const sent = clientClockOf((name) => request.get(name), request.services.clock());
  return { params: address.data, query, body, sent };
}

/** An answer that goes out in pieces, as they are made. Whoever asked may be gone before the end: then no more is read. */
async function stream({ route }: Endpoint, response: Response, write: (into: Response) => Promise<unknown>): Promise<void> {
  response.setHeader('Content-Type', `${route.mediaType}; charset=utf-8`);
  response.setHeader('Content-Disposition', `attachment; filename="${route.path.slice(1)}"`);
  await write(response).catch((error: unknown) => {
    if (!response.headersSent) throw error;
    response.destroy();
  });
}

/** @throws where an answer is not what the contract says: a fault of the program */
function mustKeepContract({ route }: Endpoint, answer: unknown): void {
  const { error } = route.answer.safeParse(JSON.parse(JSON.stringify(answer ?? null)));
  if (error)
    throw new Error(`the answer of ${route.method} ${route.path} does not keep the contract: ${JSON.stringify(error.issues.slice(0, 3))}`);
}

/** A long answer goes out piece by piece: handed over at once it would keep others waiting. */
const PIECE = 128_000;

function send(response: Response, status: number, json: string | Uint8Array): void {
  // It came after the deadline: something else was answered.
  if (response.headersSent) return;
  response.statusCode = status;
  response.setHeader('Content-Type', 'application/json; charset=utf-8');
  if (typeof json === 'string' || json.length <= PIECE) {
    response.end(json);
    return;
  }
  response.setHeader('Content-Length', json.length);
  const pieces = Array.from({ length: Math.ceil(json.length / PIECE) }, (_, n) => json.subarray(n * PIECE, (n + 1) * PIECE));
  // Whoever asked may be gone before the end.
  pipeline(Readable.from(pieces), response, () => {});
}

/** Who may come in, and do this: the one place where it is decided. */
function mustBeSignedIn({ route, options }: Endpoint, sessions: SessionStore): RequestHandler {
  const act = actOf(route);
  return async (request: Request, response: Response, next: NextFunction) => {
    response.locals['route'] = route.path;
    const { session } = request;
    if (!route.open) request.session = await standingSession(session, options.asksForSession === true);
    const meant = request.get(MEANT_FOR);
    if (session && meant !== undefined && meant !== session.caller.userId) throw notYours(session.caller.name);
    if (request.session && act !== 'door') mustBeAllowed(request.session, act);
    next();
  };

  /** Asked for in the database, unless the statement does that itself: what is remembered may have ended. */
  async function standingSession(session: Session | null, asksItself: boolean): Promise<Session> {
    const isToBeAsked = session?.remembered && (!asksItself || session.factorMissing);
    const standing = isToBeAsked ? await sessions.find(session.sid) : session;
    if (!standing) throw noSession();
    return standing;
  }
}

function mustBeAllowed({ caller, wantsProof, factorMissing }: Session, act: Exclude<Act, 'door'>): void {
  if (!mayDo(caller.role, act)) throw notYourRole(caller.role, act);
  if (factorMissing && act !== 'self') throw secondFactorMissing();
  if (ALLOWED[act].proof && wantsProof) throw proofWanted();
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
