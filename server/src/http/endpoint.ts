import type { Route } from '@dial-gauge/contract';
import type { Request, Response } from 'express';
import type * as z from 'zod';
import type { ClientClock } from '../shared/client-clock.js';
import type { Services } from './services.js';
import type { UnitOfWork } from '../database/unit-of-work.js';

/** A parsed request. */
export interface Call<R extends Route = Route> {
  readonly params: z.output<R['params']>;
  readonly query: z.output<R['query']>;
  readonly body: z.output<R['body']>;
  /** When it was entered and sent, by the clock of whoever sent it. */
  readonly sent: ClientClock;
}

/** The request itself, for the few routes that deal with cookies and addresses. */
export interface Http {
  readonly request: Request;
  readonly response: Response;
  /** What the server is composed of. */
  readonly services: Services;
}

export interface HandlerOptions<R extends Route> {
  /** One transaction; one connection, every statement by itself; or any free connection for every statement. Reading is a connection, writing a transaction, where it is left out. */
  readonly unit?: 'transaction' | 'connection' | 'pooled';
  /** Done in a thread of its own: it may take longer than others should wait. */
  readonly thread?: boolean;
  /** Its own statement sees to it that the caller's session stands, so that it is not asked for before: see SESSION_STANDS. */
  readonly asksForSession?: boolean;
  /** Kept for review, instead of refused, where it was entered before the visit was signed and arrives after. */
  readonly late?: LateEntryOptions<R>;
}

export interface LateEntryOptions<R extends Route> {
  /** By this name a kept entry finds its endpoint again. */
  readonly name: string;
  /** What the entry says, for whoever reviews it. */
  readonly words: (work: UnitOfWork, call: Call<R>) => Promise<string> | string;
}

/** A route with what is done when it is called. */
export interface Endpoint {
  readonly route: Route;
  readonly options: HandlerOptions<Route>;
  readonly handle: (work: UnitOfWork, call: Call, http?: Http) => Promise<unknown>;
  readonly pieces?: (work: UnitOfWork, call: Call) => AsyncIterable<string>;
}

/**
 * What a handler comes to: the answer, or, where something was written, how to
 * read it once that is committed. Nobody waits at a lock while an answer is made.
 */
type HandlerResult<R extends Route> = z.input<R['answer']> | ((after: UnitOfWork) => Promise<z.input<R['answer']>>);

/** Serves a route whose answer is no JSON: its pieces go out as they are made, and no more of them are made than are taken. */
export function stream<R extends Route>(route: R, pieces: (work: UnitOfWork, call: Call<R>) => AsyncIterable<string>): Endpoint {
  return {
    route,
    handle: (() => Promise.reject(new Error('is streamed'))) as Endpoint['handle'],
    options: {},
    pieces: pieces as Endpoint['pieces'],
  };
}

export function serve<R extends Route>(
  route: R,
  handle: (work: UnitOfWork, call: Call<R>, http: Http) => Promise<HandlerResult<R>>,
  options: HandlerOptions<R> = {},
): Endpoint {
  return { route, handle: handle as Endpoint['handle'], options: options as unknown as HandlerOptions<Route> };
}

/** One resource: its tables and its routes. `endpoints/index.ts` lists all of them. */
export interface Resource {
  readonly entities: readonly (new () => object)[];
  readonly routes: readonly Endpoint[];
}
