import type { RequestHandler } from 'express';
import { tookTooLong } from '../shared/problems.js';

/** Every request is answered by then. Statements and jobs have shorter limits: this is for what hangs where those do not reach, as a full disk. */
const LONGEST_REQUEST_MS = 60_000;

/** Answers in words where nothing else has answered in time. What comes after that is thrown away. */
export function deadline(longestMs: number = LONGEST_REQUEST_MS): RequestHandler {
  return (_request, response, next) => {
    const timer = setTimeout(() => {
      if (!response.headersSent) next(tookTooLong());
    }, longestMs);
    response.once('close', () => clearTimeout(timer));
    next();
  };
}
