import * as z from 'zod';
import { Id } from './ids.js';

/** One operation over HTTP: what goes in, what comes out. Router, client and OpenAPI document all read it. */
export interface Route<Params extends z.ZodType = z.ZodType, Body extends z.ZodType = z.ZodType, Answer extends z.ZodType = z.ZodType> {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Express path below `/api`, e.g. `/visits/:id`. */
  readonly path: string;
  readonly summary: string;
  /** True for the few routes that work without a session. */
  readonly open?: boolean;
  readonly params: Params;
  readonly body: Body;
  readonly answer: Answer;
}

export const nothing = z.undefined();
export const none = z.object({});
export const ById = z.object({ id: Id });

export function route<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(definition: Route<P, B, A>): Route<P, B, A> {
  return definition;
}
