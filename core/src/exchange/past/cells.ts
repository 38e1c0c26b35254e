import { ENTRY_UNITS, entryUnitsFor, toKept, type EntryUnit } from '../../angle/units.js';
import type { Motion } from '../../catalogue/index.js';
import type { IsoDate } from '../../terms.js';
import { DATE_ORDERS, type DateOrder, type MinusMeans } from './roles.js';

export type CellReading<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };
const wrong = (message: string) => ({ ok: false, message }) as const;
const right = <T>(value: T) => ({ ok: true, value }) as const;

/**
 * A calendar day as a cell writes it. An ISO day is one whatever the order.
 *
 * @example readDay('03.11.2025', 'day-month-year') // 2025-11-03
 */
export function readDay(cell: string, order: DateOrder): CellReading<IsoDate> {
  const text = cell.trim();
  const iso = /^(\d{4})-(\d{2})-(\d{2})(?:[T ].*)?$/.exec(text);
  const parts = /^(\d{1,4})[./\- ](\d{1,2})[./\- ](\d{1,4})$/.exec(text);
  const [a, b, c] = (iso ?? parts)?.slice(1).map(Number) ?? [];
  if (a === undefined || b === undefined || c === undefined)
    return wrong(`"${text.slice(0, 30)}" is not a day; allowed: as 3.11.2025 or 2025-11-03`);
  const [year, month, day] = iso || order === 'year-month-day' ? [a, b, c] : order === 'day-month-year' ? [c, b, a] : [c, a, b];
  const full = year < 100 ? 2000 + year : year;
  const made = new Date(Date.UTC(full, month - 1, day));
  if (full < 1900 || made.getUTCFullYear() !== full || made.getUTCMonth() !== month - 1 || made.getUTCDate() !== day)
    return wrong(`"${text}" is no day when read as ${order.replaceAll('-', ', ')}; allowed: a day of the calendar, or another order`);
  return right(made.toISOString().slice(0, 10));
}

/** Which orders the days of a column can have: one where they tell, several where they do not. */
export function datesFit(cells: readonly string[]): DateOrder[] {
  const days = cells.filter((cell) => cell.trim() !== '');
  return DATE_ORDERS.filter((order) => days.length > 0 && days.every((cell) => readDay(cell, order).ok));
}

const FIGURE =
  /^(lacks|lack|short of|minus|-|−)?\s*(\d{1,4}(?:[.,]\d{1,2})?)\s*(°|deg|degrees|degree|cm|in|inch|inches|"|n|lb|lbs|kg|s|sec|seconds)?\.?$/i;
const UNIT: Readonly<Record<string, EntryUnit>> = {
  ...{ '°': 'deg', deg: 'deg', degree: 'deg', degrees: 'deg', cm: 'cm', in: 'in', inch: 'in', inches: 'in', '"': 'in' },
  ...{ n: 'N', lb: 'lb', lbs: 'lb', kg: 'kg', s: 's', sec: 's', seconds: 's' },
};

/** Whether a cell has a sign of which one has to be told what it means. */
export const hasMinus = (cell: string): boolean => /^\s*(minus\b|[-−])\s*\d/i.test(cell);

/**
 * A value as a cell writes it, in the unit the motion is kept in. "lacks 10"
 * is short of zero; a bare minus is what the reader says it is.
 *
 * @param unit of the column, where the cell names none; otherwise that of the motion
 */
export function readValue(cell: string, motion: Motion, unit: EntryUnit | null, minus: MinusMeans | null): CellReading<number> {
  const text = cell.trim();
  const found = FIGURE.exec(text);
  if (!found) return wrong(`"${text.slice(0, 30)}" is not a value; allowed: a figure with its unit, as 98, 7.5 cm, lacks 10`);
  const [, sign, figure, named] = found as unknown as [string, string | undefined, string, string | undefined];
  const allowed = entryUnitsFor(motion.unit);
  const entered = named ? UNIT[named.toLowerCase()]! : (unit ?? allowed[0]);
  if (!entered || !allowed.includes(entered))
    return wrong(`"${text}" is not in a unit of ${motion.name.toLowerCase()}; allowed: ${allowed.join(', ') || 'none'}`);
  const size = toKept(Number(figure.replace(',', '.')), entered);
  if (!sign) return right(size);
  if (/^(lacks?|short of)$/i.test(sign)) return right(-size);
  if (minus === null) return wrong(`"${text}" has a minus; say first what a minus means: short of zero, or past it`);
  return right(minus === 'lacks' ? -size : size);
}

/** A unit as a heading or a cell names it. */
export const unitOf = (text: string): EntryUnit | undefined => {
  const word = text
    .trim()
    .toLowerCase()
    .replace(/[()[\]]/g, '');
  return Object.hasOwn(UNIT, word) ? UNIT[word] : ENTRY_UNITS.find((unit) => unit.toLowerCase() === word);
};
