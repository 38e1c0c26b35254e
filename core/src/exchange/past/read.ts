import type { EntryUnit } from '../../angle/units.js';
import type { Measurement, Session } from '../../assessment.js';
import { allowedSides, checkValue, checkWay, finestStep } from '../../catalogue/check.js';
import { findMotion, protocolOf, type Motion } from '../../catalogue/index.js';
import { compareDays } from '../../days.js';
import type { Instrument, IsoDate, Mode, MotionId, Position, Side } from '../../terms.js';
import { datesFit, hasMinus, readDay, readValue, unitOf } from './cells.js';
import type { DateOrder, MinusMeans, PastRole } from './roles.js';
import { instrumentOf, modeOf, sideOf, told, type Told } from './words.js';

export interface PastColumn {
  readonly role: PastRole;
  /** What the values of a column are of, where its heading says so. */
  readonly about?: Told;
  /** Unit of its values, where the heading names one. */
  readonly unit?: EntryUnit;
}

export interface PastOptions {
  readonly columns: readonly PastColumn[];
  readonly dateOrder: DateOrder;
  readonly minus: MinusMeans | null;
  /** Where nothing is said: how it was moved, and with what it was read. */
  readonly mode: Mode | null;
  readonly instrument: Instrument | null;
  /** Lines that are left out by hand. */
  readonly without: readonly number[];
}

export interface PastContext {
  readonly birthDate: IsoDate;
  /** Nothing was measured after it. */
  readonly today: IsoDate;
}

/** A cell that was refused; lines count from 1, as a spreadsheet shows them. */
export interface RefusedPast {
  readonly line: number;
  readonly column: string;
  readonly message: string;
}

export interface PastReading {
  /** Oldest first; every measurement is marked as brought in. */
  readonly sessions: readonly Session[];
  readonly readings: number;
  readonly refused: readonly RefusedPast[];
  /** Some value has a minus, and nobody said what it means. */
  readonly asksMinus: boolean;
}

/** Roles of the columns as their headings and cells tell them; what is not told is to be chosen by hand. */
export function guessColumns(rows: readonly (readonly string[])[]): PastColumn[] {
  const [header = [], ...body] = rows;
  const cells = (at: number) => body.slice(0, 200).map((row) => row[at] ?? '');
  const columns = header.map((heading, at): PastColumn => {
    const words = heading.trim().toLowerCase();
    const about = told(heading);
    const unit = unitIn(heading);
    if (about.motion) return { role: 'reading', about, ...(unit && { unit }) };
    const named = HEADINGS.find(([, pattern]) => pattern.test(words))?.[0];
    if (named) return named === 'value' && unit ? { role: named, unit } : { role: named };
    const filled = cells(at).filter((cell) => cell.trim() !== '');
    if (filled.length > 0 && datesFit(filled).length > 0) return { role: 'day' };
    if (filled.length > 0 && filled.every((cell) => told(cell).motion)) return { role: 'motion' };
    return { role: 'ignore' };
  });
  // Only the first of a kind that there can be one of.
  return columns.map((column, at) =>
    column.role === 'reading' || columns.findIndex(({ role }) => role === column.role) === at ? column : { role: 'ignore' },
  );
}

const HEADINGS: readonly (readonly [PastRole, RegExp])[] = [
  ['day', /\b(date|day|visit|measured on|when)\b/],
  ['motion', /\b(motion|movement|measure|measurement|test|joint)\b/],
  ['side', /\b(side|left\/right|l\/r)\b/],
  ['mode', /\b(mode|active\/passive|a\/p|type)\b/],
  ['position', /\bposition\b/],
  ['instrument', /\b(instrument|tool|device|with)\b/],
  ['unit', /\bunits?\b/],
  ['pain', /\b(pain|vas|nrs|nprs)\b/],
  ['value', /\b(value|reading|result|angle|degrees|deg|rom|range)\b|°/],
];

const unitIn = (heading: string): EntryUnit | undefined => {
  const bracket = /[([]([^)\]]+)[)\]]/.exec(heading)?.[1];
  return bracket ? unitOf(bracket) : undefined;
};

/** Which orders the days can have; more than one: somebody has to say. */
export function dayOrders(rows: readonly (readonly string[])[], columns: readonly PastColumn[]): DateOrder[] {
  const at = columns.findIndex(({ role }) => role === 'day');
  return at < 0 ? [] : datesFit(rows.slice(1).map((row) => row[at] ?? ''));
}

/**
 * Old readings from the rows of a list. Each row and each column of readings
 * is one reading; those of one day and one way of measuring are trials of one
 * measurement. A cell that cannot be read is refused with its reason.
 */
export function readPast(rows: readonly (readonly string[])[], options: PastOptions, context: PastContext): PastReading {
  const { columns, without } = options;
  const header = rows[0] ?? [];
  const refused: RefusedPast[] = [];
  const found: { on: IsoDate; measurement: Measurement }[] = [];
  const roleAt = (role: PastRole) => columns.findIndex((column) => column.role === role);
  const nameOf = (at: number) => header[at]?.trim() || `column ${at + 1}`;
  const valued = columns.flatMap(({ role }, at) => (role === 'reading' || role === 'value' ? [at] : []));
  if (roleAt('day') < 0) refused.push({ line: 1, column: 'day', message: 'no column holds the day; allowed: choose one' });
  if (valued.length === 0) refused.push({ line: 1, column: 'value', message: 'no column holds values; allowed: choose one' });
  let asksMinus = false;
  const isHeaderRefused = refused.length > 0;
  rows.slice(1).forEach((row, index) => {
    const line = index + 2;
    if (isHeaderRefused || without.includes(line) || row.every((cell) => cell.trim() === '')) return;
    const cell = (role: PastRole) => row[roleAt(role)]?.trim() ?? '';
    const refuse = (column: string, message: string) => void refused.push({ line, column, message });
    const day = pastDay(cell('day'), options.dateOrder, context);
    if (!day.ok) return refuse(nameOf(roleAt('day')), day.message);
    for (const at of valued) {
      const text = row[at]?.trim() ?? '';
      if (text === '') continue;
      if (hasMinus(text) && options.minus === null) asksMinus = true;
      const read = pastValue(text, columns[at]!, cell, options);
      if ('measurement' in read) found.push({ on: day.value, measurement: read.measurement });
      else refuse(read.field === 'value' ? nameOf(at) : read.field === 'pain' ? nameOf(roleAt('pain')) : read.field, read.message);
    }
  });
  return { sessions: sessionsOf(found), readings: found.length, refused, asksMinus };
}

/** A day that is not in the future and not before the birth. */
function pastDay(text: string, order: PastOptions['dateOrder'], { today, birthDate }: PastContext): ReturnType<typeof readDay> {
  const day = readDay(text, order);
  if (!day.ok) return day;
  if (day.value > today) return { ok: false, message: `${day.value} lies in the future; allowed: up to ${today}` };
  return day.value < birthDate ? { ok: false, message: `${day.value} lies before the birth date; allowed: from ${birthDate}` } : day;
}

/** One reading of a row: what was measured how, its value and its pain. */
function pastValue(
  text: string,
  column: PastColumn,
  cell: (role: PastRole) => string,
  options: PastOptions,
): { readonly measurement: Measurement } | { readonly field: string; readonly message: string } {
  const way = wayOf(column, cell, options);
  if ('field' in way) return way;
  const value = readValue(text, way.known, unitOf(cell('unit')) ?? column.unit ?? null, options.minus);
  if (!value.ok) return { field: 'value', message: value.message };
  const kept = Math.round(value.value * 100) / 100;
  const problem = checkValue(way.motion, way.instrument, asRead(way, kept));
  if (problem) return { field: 'value', message: problem };
  const pain = painOf(cell('pain'));
  if (pain === null) return { field: 'pain', message: `"${cell('pain')}" is not a pain of 0 to 10; allowed: whole numbers, or empty` };
  return { measurement: measurementOf(way, kept, pain) };
}

/** What was converted falls between the steps of an instrument: what it comes to is held to what a body can hold. */
function asRead({ instrument, known }: Way, value: number): number {
  const step = finestStep(instrument, known.unit);
  return Math.round(Math.round(value / step) * step * 10) / 10;
}

interface Way {
  readonly known: Motion;
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
  readonly position: Position;
  readonly instrument: Instrument;
}

/** What was measured how, from heading, row and what was chosen for all; the usual way where a way is not named. */
function wayOf(
  { about = {} }: PastColumn,
  cell: (role: PastRole) => string,
  options: PastOptions,
): Way | { readonly field: string; readonly message: string } {
  const text = cell('motion');
  const named = text === '' ? {} : told(text);
  const heading = { ...named, ...about };
  const known = heading.motion && findMotion(heading.motion);
  if (!known) return { field: 'motion', message: unknownWords(text) };
  const said: Said = {
    side: sideOf(cell('side')) ?? heading.side,
    position: positionOf(cell('position')) ?? heading.position,
    mode: modeOf(cell('mode')) ?? heading.mode ?? options.mode ?? undefined,
    instrument: instrumentOf(cell('instrument')) ?? options.instrument ?? undefined,
  };
  return usualWay(known, said);
}

/** What a row, its heading and the choice for all say of how something was measured. */
interface Said {
  readonly side: Side | undefined;
  readonly position: Position | undefined;
  readonly mode: Mode | undefined;
  readonly instrument: Instrument | undefined;
}

const unknownWords = (text: string): string =>
  text === ''
    ? 'says not what was measured; allowed: its name in the row or the heading'
    : `"${text.slice(0, 40)}" is no motion that is known here; allowed: its name, as "left knee flexion"`;

function usualWay(known: Motion, { instrument, ...said }: Said): Way | { readonly field: string; readonly message: string } {
  const name = known.name.toLowerCase();
  const sides = allowedSides(known);
  const side = said.side ?? (sides.length === 1 ? sides[0] : undefined);
  if (!side || !sides.includes(side)) return { field: 'side', message: `${name} needs its side; allowed: ${sides.join(', ')}` };
  const { position } = said;
  const ways = known.protocols.filter((one) => one.variant === null && (position === undefined || one.position === position));
  const modes = [...new Set(ways.flatMap((one) => one.modes))];
  const mode = said.mode ?? (modes.length === 1 || known.unit !== 'deg' ? modes[0] : undefined);
  if (!mode) return { field: 'mode', message: `${name} was moved actively or passively; allowed: say which, in a column or for all` };
  const moved = ways.filter((one) => one.modes.includes(mode));
  const usual = moved.find((one) => !instrument || one.instruments.includes(instrument)) ?? moved[0];
  if (!usual)
    return {
      field: 'position',
      message: `${name} is not measured ${mode}${position ? ` in ${position}` : ''} here; allowed: ${modes.join(', ')}`,
    };
  const by = instrument && usual.instruments.includes(instrument) ? instrument : plain(usual.instruments);
  const wrong = checkWay({ motion: known.id, side, mode, position: usual.position, instrument: by });
  return wrong
    ? { field: wrong.field, message: wrong.message }
    : { known, motion: known.id, side, mode, position: usual.position, instrument: by };
}

const POSITION_WORDS = new Map<string, Position>([
  ['side lying', 'sidelying'],
  ['half kneeling', 'halfKneeling'],
]);
function positionOf(text: string): Position | undefined {
  if (text === '') return undefined;
  return POSITION_WORDS.get(text.toLowerCase()) ?? told(text).position;
}

/** One figure says nothing of two sites: the instrument that gives one. */
const plain = (instruments: readonly Instrument[]): Instrument => instruments.find((one) => one !== 'dualInclinometer') ?? instruments[0]!;

/** Undefined: not said; null: not readable. */
function painOf(text: string): number | undefined | null {
  if (text === '') return undefined;
  const pain = Number(/^(\d{1,2})(\s*\/\s*10)?$/.exec(text)?.[1] ?? NaN);
  return pain >= 0 && pain <= 10 ? pain : null;
}

function measurementOf({ known, motion, side, mode, position, instrument }: Way, value: number, pain: number | undefined): Measurement {
  const trials = [known.unit === 'deg' ? { end: value } : { value }];
  return { motion, side, mode, position, instrument, trials, broughtIn: true, ...(pain === undefined ? {} : { pain }) };
}

/** Days oldest first; readings of one way of measuring on one day are its trials, the worst pain its pain. */
function sessionsOf(found: readonly { on: IsoDate; measurement: Measurement }[]): Session[] {
  const days = new Map<IsoDate, Map<string, Measurement>>();
  for (const { on, measurement } of found) {
    const own = days.get(on) ?? new Map<string, Measurement>();
    days.set(on, own);
    const key = `${protocolOf(measurement).id} ${measurement.side} ${measurement.mode}`;
    const before = own.get(key);
    const pain = [before?.pain, measurement.pain].filter((one) => one !== undefined);
    own.set(
      key,
      before
        ? { ...before, trials: [...before.trials, ...measurement.trials], ...(pain.length > 0 && { pain: Math.max(...pain) }) }
        : measurement,
    );
  }
  return [...days].sort(([a], [b]) => compareDays(a, b)).map(([assessedOn, own]) => ({ assessedOn, measurements: [...own.values()] }));
}
