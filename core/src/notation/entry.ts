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

/** What was typed for a reading at two sites: zero and end of each. */
export type DualEntry =
  | {
      readonly ok: true;
      readonly upper: { readonly zero: Degrees; readonly end: Degrees };
      readonly lower: { readonly zero: Degrees; readonly end: Degrees };
    }
  | { readonly ok: false; readonly message: string };

const DUAL_ALLOWED = 'allowed: upper/lower, as 104/49, or with their zeros as 5/104 3/49';

/**
 * Reads a pair of sites in the order of the hands: `104/49` is the upper end
 * and the lower end, both set to zero before; `5/104 3/49` gives zero and end
 * of each.
 *
 * @example parseDualEntry('104/49') // { ok: true, upper: { zero: 0, end: 104 }, lower: { zero: 0, end: 49 } }
 */
export function parseDualEntry(text: string): DualEntry {
  const refuse = (message: string): DualEntry => ({ ok: false, message });
  if (text.trim() === '') return refuse('Type both sites first: upper/lower, as 104/49, then Enter.');
  const groups = text.trim().split(/\s+/);
  const numbers = groups.map((group) => group.split('/'));
  const wrong = numbers.flat().find((part) => !NUMBER.test(part));
  if (groups.length > 2 || numbers.some((pair) => pair.length !== 2))
    return refuse(`"${text}" is not a reading at two sites; ${DUAL_ALLOWED}.`);
  if (wrong !== undefined)
    return refuse(wrong === '' ? `"${text}" is half a reading; ${DUAL_ALLOWED}.` : `"${wrong}" is not an angle; ${DUAL_ALLOWED}.`);
  const [first, second] = numbers.map((pair) => pair.map(toNumber));
  const [a = 0, b = 0] = first ?? [];
  if (!second) return { ok: true, upper: { zero: 0, end: a }, lower: { zero: 0, end: b } };
  const [c = 0, d = 0] = second;
  return { ok: true, upper: { zero: a, end: b }, lower: { zero: c, end: d } };
}
