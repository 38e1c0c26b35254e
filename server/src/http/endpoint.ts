import type { Route } from '@dial-gauge/contract';
import type { Request, Response } from 'express';
import type * as z from 'zod';
import type { Sent } from '../shared/client-clock.js';
import type { UnitOfWork } from '../database/unit-of-work.js';

/** A parsed request. */
export interface Call<R extends Route = Route> {
  readonly params: z.output<R['params']>;
  readonly query: z.output<R['query']>;
  readonly body: z.output<R['body']>;
  /** When it was entered and sent, by the clock of whoever sent it. */
  readonly sent: Sent;
}

/** The request itself, for the few routes that deal with cookies and addresses. */
export interface Http {
  readonly request: Request;
  readonly response: Response;
}

export interface How<R extends Route> {
  /** `whole`: one transaction; `each`: every statement by itself; `loose`: and on no connection of its own. Reading is `each`, writing `whole`, where it is left out. */
  readonly unit?: 'whole' | 'each' | 'loose';
  /** Done in a thread of its own: it may take longer than others should wait. */
  readonly thread?: boolean;
  /** Its own statement sees to it that the caller's session stands, so that it is not asked for before: see SESSION_STANDS. */
  readonly asksForSession?: boolean;
  /** What is done instead with something that came too late for a signed visit; its answer goes out with status 202. */
  readonly late?: (work: UnitOfWork, call: Call<R>, visitId: string) => Promise<object>;
}

/** A route with what is done when it is called. */
export interface Served {
  readonly route: Route;
  readonly how: How<Route>;
  readonly handle: (work: UnitOfWork, call: Call, http?: Http) => Promise<unknown>;
  readonly pieces?: (work: UnitOfWork, call: Call) => AsyncIterable<string>;
}

/**
 * What a handler comes to: the answer, or, where something was written, how to
 * read it once that is committed. Nobody waits at a lock while an answer is made.
 */
type Done<R extends Route> = z.input<R['answer']> | ((after: UnitOfWork) => Promise<z.input<R['answer']>>);

/** Serves a route whose answer is no JSON: its pieces go out as they are made, and no more of them are made than are taken. */
export function stream<R extends Route>(route: R, pieces: (work: UnitOfWork, call: Call<R>) => AsyncIterable<string>): Served {
  return {
    route,
    handle: (() => Promise.reject(new Error('is streamed'))) as Served['handle'],
    how: {},
    pieces: pieces as Served['pieces'],
  };
}

export function serve<R extends Route>(
  route: R,
  handle: (work: UnitOfWork, call: Call<R>, http: Http) => Promise<Done<R>>,
  how: How<R> = {},
): Served {
  return { route, handle: handle as Served['handle'], how: how as unknown as How<Route> };
}

/** One resource: its tables and its routes. A folder holds it, and one line of `resources.ts` puts it in the house. */
export interface Resource {
  readonly entities: readonly (new () => object)[];
  readonly routes: readonly Served[];
}
