import type { IsoDate } from '../terms.js';

const DAY = 86_400_000;

/**
 * The day so many weeks later. Calendar days, so no time zone can shift it.
 *
 * @example addWeeks('2026-11-02', 6) // '2026-12-14'
 */
export function addWeeks(day: IsoDate, weeks: number): IsoDate {
  return new Date(Date.parse(`${day}T00:00:00Z`) + weeks * 7 * DAY).toISOString().slice(0, 10);
}

/** Whole weeks from one day to another. */
export function weeksBetween(from: IsoDate, to: IsoDate): number {
  return Math.floor((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / (7 * DAY));
}
