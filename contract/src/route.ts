import * as z from 'zod';
import { Id } from './ids.js';

/** One operation over HTTP: what goes in, what comes out. Router, client and OpenAPI document all read it. */
export interface Route<
  Params extends z.ZodType = z.ZodType,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
  Query extends z.ZodType = z.ZodType,
> {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Express path below `/api`, e.g. `/visits/:id`. */
  readonly path: string;
  readonly summary: string;
  /** True for the few routes that work without a session. */
  readonly open?: boolean;
  /** The answer may be kept on the device of whoever asked, until they sign out, and is shown from there without a network. */
  readonly keep?: boolean;
  /** What the answer is, where it is no JSON: it goes out piece by piece. */
  readonly mediaType?: string;
  /** Largest body taken, in bytes; 100 kB where it is left out. */
  readonly largest?: number;
  readonly params: Params;
  /** What stands behind the question mark. */
  readonly query: Query;
  readonly body: Body;
  readonly answer: Answer;
}

export const nothing = z.undefined();
export const none = z.object({});
export const ById = z.object({ id: Id });

/** A route as it is written down: a query is the exception. */
type Written<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType, Q extends z.ZodType> = Omit<Route<P, B, A, Q>, 'query'> & {
  readonly query?: Q;
};

export function route<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType, Q extends z.ZodType = typeof none>(
  written: Written<P, B, A, Q>,
): Route<P, B, A, Q> {
  return { ...written, query: written.query ?? (none as unknown as Q) };
}
