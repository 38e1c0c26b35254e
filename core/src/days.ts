import type { IsoDate } from './terms.js';

const DAY = 86_400_000;

/**
 * The day so many weeks later. Calendar days, so no time zone can shift it.
 *
 * @example addWeeks('2026-11-02', 6) // '2026-12-14'
 */
export function addWeeks(day: IsoDate, weeks: number): IsoDate {
  return new Date(Date.parse(day) + weeks * 7 * DAY).toISOString().slice(0, 10);
}

/** Weeks from one day to another, with their fraction. */
export function weeksSince(from: IsoDate, to: IsoDate): number {
  return (midnight(to) - midnight(from)) / (7 * DAY);
}

/** A day without a time is read as midnight in UTC. Over a long record the same days are asked for again and again. */
function midnight(day: IsoDate): number {
  let at = midnights.get(day);
  if (at === undefined) {
    at = Date.parse(day);
    if (midnights.size >= MOST_REMEMBERED) midnights.clear();
    midnights.set(day, at);
  }
  return at;
}

const midnights = new Map<IsoDate, number>();
const MOST_REMEMBERED = 2_000;

/** Whole weeks from one day to another. */
export function weeksBetween(from: IsoDate, to: IsoDate): number {
  return Math.floor(weeksSince(from, to));
}

/** Earlier days first. Days as text stand in their order: no collation is asked, which is slow. */
export function compareDays(a: IsoDate, b: IsoDate): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
