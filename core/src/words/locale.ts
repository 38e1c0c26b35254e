import type { Unit } from '../terms.js';

/**
 * How figures and phrases are written for one reader. A second language is one
 * more of these, with its phrases; nothing else changes.
 */
export interface Locale {
  /** BCP 47, as `en-GB`. */
  readonly tag: string;
  readonly decimal: '.' | ',';
  readonly dateOrder: 'day-month-year' | 'month-day-year' | 'year-month-day';
  readonly months: readonly string[];
  /** What is written after a figure. */
  readonly units: Readonly<Record<Unit, string>>;
  /** The phrases of the program, as they are written in its code, in this language; what is missing stays as it is. */
  readonly phrases: Readonly<Record<string, string>>;
}

export const ENGLISH: Locale = {
  tag: 'en',
  decimal: '.',
  dateOrder: 'day-month-year',
  months: ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'],
  units: { deg: '°', cm: ' cm', N: ' N', s: ' s', yesNo: '' },
  phrases: {},
};

/** Languages that the phrases have been put into. */
const LANGUAGES: readonly Locale[] = [ENGLISH];

/**
 * The locale of a reader: the language where there is one, otherwise English;
 * the decimal sign and the order of a date as the reader's region writes them.
 *
 * @param tag BCP 47, as a browser names it; one that is none is taken as English
 * @example localeOf('de-AT').decimal // ','
 */
export function localeOf(tag: string): Locale {
  try {
    const language = LANGUAGES.find((l) => l.tag === new Intl.Locale(tag).language) ?? ENGLISH;
    const decimal = new Intl.NumberFormat(tag).formatToParts(1.5).find((p) => p.type === 'decimal')?.value === ',' ? ',' : '.';
    const order = new Intl.DateTimeFormat(tag, { year: 'numeric', month: 'numeric', day: 'numeric', calendar: 'gregory' })
      .formatToParts(0)
      .map((p) => p.type)
      .filter((type) => type === 'day' || type === 'month' || type === 'year');
    const dateOrder = order[0] === 'year' ? 'year-month-day' : order[0] === 'month' ? 'month-day-year' : 'day-month-year';
    return { ...language, tag, decimal, dateOrder };
  } catch {
    return ENGLISH;
  }
}

let spoken = ENGLISH;

/** One locale is spoken at a time: a program sets it once, when it starts. Nothing that is stored or computed depends on it. */
export function speak(locale: Locale): void {
  spoken = locale;
}

/** The locale that is spoken. */
export function spokenLocale(): Locale {
  return spoken;
}

/** Says something in another locale, and goes on in the one before. Nothing that waits may be done inside. */
export function speaking<T>(locale: Locale, say: () => T): T {
  const before = spoken;
  spoken = locale;
  try {
    return say();
  } finally {
    spoken = before;
  }
}
