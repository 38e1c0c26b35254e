import { addDays, formatISO, parseISO } from 'date-fns';
import { refused } from './problems.js';

/** Day of the server's clock. A client east of it may already be in tomorrow. */
export const dayOf = (date: Date): string => formatISO(date, { representation: 'date' });

/** The day so many before one. */
export const dayBefore = (day: string, days: number): string => dayOf(addDays(parseISO(day), -days));

/** @throws a problem that names the field */
export function notInTheFuture(path: string, day: string, now: Date): void {
  const latest = dayOf(addDays(now, 1));
  if (day > latest)
    throw refused(path, `lies in the future; allowed: ${latest} or earlier`, 'Nothing was saved. Correct the fields named and send again.');
}

/** @throws a problem that names the field */
export function notBeforeBirth(path: string, day: string, birthDate: string): void {
  if (day < birthDate)
    throw refused(
      path,
      `lies before the birth; allowed: ${birthDate} or later`,
      'Nothing was saved. Correct the fields named and send again.',
    );
}
