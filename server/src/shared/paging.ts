import type * as z from 'zod';
import { refused } from './problems.js';

/** Keys of the last row of a page, as the next one is asked for: opaque to whoever asks, and checked when it comes back. */
export function cursorOf(keys: readonly (string | number)[]): string {
  return Buffer.from(JSON.stringify(keys)).toString('base64url');
}

/** @throws a problem where the cursor is not one of ours */
export function readCursor<T extends z.ZodType>(cursor: string, keys: T): z.output<T> {
  try {
    return keys.parse(JSON.parse(Buffer.from(cursor, 'base64url').toString('utf8')));
  } catch {
    throw refused('after', 'is not the end of a page; allowed: `next` of the page before', 'Ask for the first page again.');
  }
}
