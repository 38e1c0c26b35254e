import type { Degrees } from '../terms.js';

/** What was typed at the dial: an end position, and a start where it was not zero. */
export type Entry =
  { readonly ok: true; readonly start: Degrees; readonly end: Degrees } | { readonly ok: false; readonly message: string };

const NUMBER = /^[-−]?\d{1,4}([.,]\d)?$/;
const toNumber = (text: string): number => Number(text.replace('−', '-').replace(',', '.'));

/**
 * Reads `31`, `10/45` (start/end), `-15` (lacks 15), `12,5`.
 *
 * @example parseEntry('10/45') // { ok: true, start: 10, end: 45 }
 */
export function parseEntry(text: string): Entry {
  const parts = text
    .trim()
    .split('/')
    .map((part) => part.trim());
  if (text.trim() === '') return { ok: false, message: 'Type a reading first: digits, then Enter.' };
  if (parts.length > 2) return { ok: false, message: `"${text}" has more than one slash; allowed: start/end, as 10/45.` };
  if (parts.some((part) => part === '')) return { ok: false, message: `"${text}" is half a reading; allowed: start/end, as 10/45.` };
  const wrong = parts.find((part) => !NUMBER.test(part));
  if (wrong !== undefined) return { ok: false, message: `"${wrong}" is not an angle; allowed: degrees, as 31, 12.5 or -15 (lacks 15).` };
  const numbers = parts.map(toNumber);
  return { ok: true, start: parts.length === 2 ? numbers[0]! : 0, end: numbers[numbers.length - 1]! };
}
