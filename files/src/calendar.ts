import type { IsoDate } from '@dial-gauge/core';
import ical, { ICalCalendarMethod, ICalEventRepeatingFreq, ICalWeekday } from 'ical-generator';

/** Something of a day, or of several days a week until a day. */
export interface CalendarEntry {
  /** The same for the same thing, so that a second file changes it and does not add it again. */
  readonly uid: string;
  readonly on: IsoDate;
  readonly title: string;
  readonly details: string;
  readonly repeats?: { readonly daysAWeek: number; readonly until: IsoDate };
}

const WEEK = [ICalWeekday.SU, ICalWeekday.MO, ICalWeekday.TU, ICalWeekday.WE, ICalWeekday.TH, ICalWeekday.FR, ICalWeekday.SA] as const;

/** Days of a week, Sunday 0, on which something is done so many times, as far apart as can be; every day where none is named. */
const DAYS: Readonly<Record<number, readonly number[]>> = {
  1: [1],
  2: [1, 4],
  3: [1, 3, 5],
  4: [1, 2, 4, 5],
  5: [1, 2, 3, 4, 5],
  6: [1, 2, 3, 4, 5, 6],
};

/**
 * An iCalendar of whole days: no hour and no zone, so it is the same day
 * wherever it is opened.
 *
 * @param madeAt when it was made; a later file of the same entries replaces them
 * @see RFC 5545
 */
export function calendarText(name: string, entries: readonly CalendarEntry[], madeAt: Date): string {
  const calendar = ical({
    name,
    prodId: { company: 'Dial Gauge', product: 'Dial Gauge', language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const { uid, on, title, details, repeats } of entries) {
    const days = repeats ? daysUntil(on, repeats) : [asDay(on)];
    const [first] = days;
    if (!first) continue;
    calendar.createEvent({
      id: uid,
      start: first,
      allDay: true,
      stamp: madeAt,
      sequence: Math.floor(madeAt.getTime() / 60_000) % 2_000_000_000,
      summary: title,
      description: details,
      ...(repeats && { repeating: repeating(repeats.daysAWeek, days.length) }),
    });
  }
  return calendar.toString();
}

/** A rule that ends after so many times: an end by its hour would not be of the kind that its start is. */
function repeating(daysAWeek: number, count: number) {
  const byDay = DAYS[daysAWeek]?.map((day) => WEEK[day]!);
  return byDay ? { freq: ICalEventRepeatingFreq.WEEKLY, byDay, count } : { freq: ICalEventRepeatingFreq.DAILY, count };
}

const DAY = 86_400_000;

/** The days on which it is done, up to a day on which it is looked at again. */
function daysUntil(from: IsoDate, { daysAWeek, until }: NonNullable<CalendarEntry['repeats']>): Date[] {
  const wanted = DAYS[daysAWeek];
  const all = Array.from(
    { length: Math.max(0, (asDay(until).getTime() - asDay(from).getTime()) / DAY) },
    (_, at) => new Date(asDay(from).getTime() + at * DAY),
  );
  return wanted ? all.filter((day) => wanted.includes(day.getUTCDay())) : all;
}

/** A day as the library takes it: it writes what the date is in UTC where no zone is named. */
const asDay = (on: IsoDate): Date => new Date(`${on}T00:00:00Z`);
