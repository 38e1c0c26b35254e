import type { IsoDate } from '../terms.js';
import { spokenLocale } from './locale.js';

/** What stands in a phrase: words that were said already, or a count. */
export type Part = string | number;

/**
 * A phrase in the language that is spoken, with its parts in place. The phrase
 * itself is the key: as it stands in the code it is English.
 *
 * @example say('{size} short of {expected}', { size: '25°', expected: '44°' }) // '25° short of 44°'
 */
export function say(phrase: string, parts?: Readonly<Record<string, Part>>): string {
  const said = spokenLocale().phrases[phrase] ?? phrase;
  return parts ? said.replace(/\{(\w+)\}/g, (all, name: string) => String(parts[name] ?? all)) : said;
}

/** A phrase by how many there are: one, or more. */
export function sayCount(count: number, one: string, more: string, parts: Readonly<Record<string, Part>> = {}): string {
  return say(count === 1 ? one : more, { count, ...parts });
}

/** "a, b and c" */
export function listed(words: readonly string[]): string {
  if (words.length < 2) return words.join('');
  return say('{rest} and {last}', { rest: words.slice(0, -1).join(', '), last: words[words.length - 1]! });
}

/** A calendar day as the reader writes it, the month by name: 6 Nov 2026. */
export function dayWords(on: IsoDate): string {
  const { dateOrder } = spokenLocale();
  const year = Number(on.slice(0, 4));
  if (dateOrder === 'year-month-day') return `${year} ${shortDay(on)}`;
  return dateOrder === 'month-day-year' ? `${shortDay(on)}, ${year}` : `${shortDay(on)} ${year}`;
}

/** The same without the year: 6 Nov. */
export function shortDay(on: IsoDate): string {
  const { dateOrder, months } = spokenLocale();
  const [month, day] = [months[Number(on.slice(5, 7)) - 1]!, Number(on.slice(8, 10))];
  return dateOrder === 'day-month-year' ? `${day} ${month}` : `${month} ${day}`;
}

export const lower = (words: string): string => `${words.charAt(0).toLowerCase()}${words.slice(1)}`;
export const upper = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}`;
