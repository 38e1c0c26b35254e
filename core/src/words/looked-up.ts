import type { LookedUp } from '../terms.js';
import { dayWords, say } from './say.js';

/** Where a value was looked up, by whom and when. */
export function lookedUpWords({ source, edition, page, by, on }: LookedUp): string {
  const where = [source, edition, page].filter((part) => part !== '').join(', ');
  return say('looked up in {where} by {by}, {day}', { where, by, day: dayWords(on) });
}
