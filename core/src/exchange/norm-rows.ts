import { allowedSides, unknownMotion } from '../catalogue/check.js';
import { findMotion, SUMMARIES, type Motion } from '../catalogue/index.js';
import { NORM_KINDS, type AgeBand, type NormEntry, type NormSet, type NormValue } from '../norms/index.js';
import { asShown, runsAsFormula } from './cells.js';
import { CONFIDENCES, DIGITS, MODES, POSITIONS, SIDES, type Digit } from '../terms.js';

/*
 * A norm set as a table of text cells, as a spreadsheet holds it: a block of
 * `name,value` rows about the set, an empty row, the column names, and one row
 * for every value. Reading and writing are exact inverses.
 */

/** One cell that was refused: where, what is wrong, what is allowed. Lines count from 1, as a spreadsheet shows them. */
export interface RefusedCell {
  readonly line: number;
  readonly column: string;
  readonly message: string;
}

export type NormRowsReading =
  { readonly ok: true; readonly set: NormSet } | { readonly ok: false; readonly refused: readonly RefusedCell[] };

const FORMAT = 'dial-gauge norm set';
const VERSION = '1';
const ABOUT = ['id', 'title', 'short', 'year', 'where', 'source', 'from memory'] as const;
const COLUMNS = [
  'motion',
  'digit',
  'side',
  'mode',
  'position',
  'variant',
  'sex',
  'age_from',
  'age_to',
  'age_label',
  'kind',
  'expected',
  'low',
  'high',
  'mean',
  'sd',
  'ci_low',
  'ci_high',
  'confidence',
  'note',
  'counted',
] as const;
type Column = (typeof COLUMNS)[number];
/** A file that was written before these were known is read without them. */
const LATER: readonly Column[] = ['counted'];
type Cells = Readonly<Record<Column, string>>;

const VALUE_COLUMNS = ['expected', 'low', 'high', 'mean', 'sd', 'ci_low', 'ci_high'] as const;
const WANTED: Readonly<Record<NormValue['kind'], readonly (typeof VALUE_COLUMNS)[number][]>> = {
  point: ['expected'],
  cutoff: ['expected'],
  range: ['low', 'high'],
  distribution: ['mean', 'sd'],
  skewed: ['mean', 'sd'],
  mean: ['mean', 'ci_low', 'ci_high'],
};

/** The rows of a set. */
export function normSetToRows(set: NormSet): string[][] {
  return [
    [FORMAT, VERSION],
    ['id', set.id],
    ['title', asShown(set.title)],
    ['short', asShown(set.short)],
    ['year', set.year === null ? '' : String(set.year)],
    ['where', asShown(set.where)],
    ['source', asShown(set.source.cite)],
    ['from memory', set.source.fromMemory ? 'yes' : 'no'],
    [''],
    [...COLUMNS],
    ...set.entries.map((entry) => {
      const cells = { ...textCells(entry), ...valueCells(entry.value) };
      return COLUMNS.map((column) => cells[column] ?? '');
    }),
  ];
}

const text = (value: number | string | undefined): string => (value === undefined ? '' : String(value));

function textCells({ ages, ...entry }: NormEntry): Partial<Record<Column, string>> {
  return {
    motion: entry.motion,
    digit: text(entry.digit),
    side: text(entry.side),
    mode: entry.mode,
    position: entry.position,
    variant: text(entry.variant),
    sex: entry.sex,
    age_from: text(ages?.from),
    age_to: text(ages?.to),
    age_label: asShown(text(ages?.label)),
    kind: entry.value.kind,
    confidence: entry.confidence,
    note: asShown(text(entry.note)),
    counted: text(entry.summary),
  };
}

function valueCells(value: NormValue): Partial<Record<Column, string>> {
  switch (value.kind) {
    case 'point':
      return { expected: text(value.expected) };
    case 'cutoff':
      return { expected: text(value.at) };
    case 'range':
      return { low: text(value.low), high: text(value.high) };
    case 'distribution':
    case 'skewed':
      return { mean: text(value.mean), sd: text(value.sd) };
    case 'mean':
      return { mean: text(value.mean), ci_low: text(value.ciLow), ci_high: text(value.ciHigh) };
  }
}

/**
 * The set of some rows, or every cell that was refused. Nothing is taken
 * where one row is wrong.
 *
 * @param taken ids that a new set may not have
 */
export function normSetFromRows(rows: readonly (readonly string[])[], taken: readonly string[] = []): NormRowsReading {
  const refused: RefusedCell[] = [];
  const refuse = (line: number, column: string, message: string) => void refused.push({ line, column, message });
  const header = rows.findIndex((row) => row[0]?.trim() === 'motion');
  if (rows[0]?.[0]?.trim() !== FORMAT || rows[0]?.[1]?.trim() !== VERSION) {
    refuse(1, 'format', `is not a norm set; allowed: the first row is "${FORMAT},${VERSION}"`);
    return { ok: false, refused };
  }
  if (header < 0) {
    refuse(rows.length, 'motion', `no row of column names was found; allowed: ${COLUMNS.join(', ')}`);
    return { ok: false, refused };
  }
  const about = readAbout(rows.slice(1, header), taken, refuse);
  const order = readHeader(rows[header]!, header + 1, refuse);
  if (refused.some((cell) => cell.line === header + 1)) return { ok: false, refused };
  const seen = new Map<string, number>();
  const entries = rows.slice(header + 1).flatMap((row, offset): NormEntry[] => {
    if (row.every((cell) => cell.trim() === '')) return [];
    const line = header + 2 + offset;
    const before = refused.length;
    if (row.length > order.length) refuse(line, 'columns', `the row has ${row.length} cells; allowed: ${order.length}`);
    const cells = Object.fromEntries(order.map((column, i) => [column, (row[i] ?? '').trim()])) as Cells;
    const entry = readEntry(cells, (column, message) => refuse(line, column, message));
    if (refused.length > before || !entry) return [];
    const question = JSON.stringify({ ...entry, value: 0, confidence: 0, note: 0 });
    const first = seen.get(question);
    if (first !== undefined)
      refuse(line, 'motion', `asks the same as line ${first}; allowed: one value for a motion, mode, position, sex and age band`);
    seen.set(question, line);
    return [entry];
  });
  if (entries.length === 0 && refused.length === 0) refuse(header + 1, 'motion', 'no values follow; allowed: at least one row');
  return refused.length > 0 || !about ? { ok: false, refused } : { ok: true, set: { ...about, entries } };
}

type Refuse = (line: number, column: string, message: string) => void;

function readAbout(rows: readonly (readonly string[])[], taken: readonly string[], refuse: Refuse): Omit<NormSet, 'entries'> | undefined {
  const found = new Map<string, { value: string; line: number }>();
  rows.forEach((row, i) => {
    const name = (row[0] ?? '').trim();
    if (name === '' && row.every((cell) => cell.trim() === '')) return;
    if (!(ABOUT as readonly string[]).includes(name)) refuse(i + 2, name || 'name', `is not known here; allowed: ${ABOUT.join(', ')}`);
    else if (found.has(name)) refuse(i + 2, name, 'is given twice');
    else found.set(name, { value: (row[1] ?? '').trim(), line: i + 2 });
  });
  const say = (name: (typeof ABOUT)[number], most: number): string => {
    const { value = '', line = 2 } = found.get(name) ?? {};
    if (value === '') refuse(line, name, 'is missing; allowed: a text');
    else if (value.length > most) refuse(line, name, `is too long; allowed: at most ${most} characters`);
    else if (runsAsFormula(value)) refuse(line, name, FORMULA);
    return value;
  };
  const wrong = (name: (typeof ABOUT)[number], message: string) => refuse(found.get(name)?.line ?? 2, name, message);
  const id = say('id', 60);
  if (id !== '' && !/^[a-z0-9]+(-[a-z0-9]+)*$/.test(id))
    wrong('id', `"${id}" is not an id; allowed: small letters, digits and hyphens, as my-clinic-2026`);
  if (taken.includes(id)) wrong('id', `"${id}" is installed already; allowed: another id, or remove that set first`);
  const { value: year = '' } = found.get('year') ?? {};
  if (year !== '' && !/^(1[89]|20)\d\d$/.test(year)) wrong('year', `"${year}" is not a year; allowed: 1800 to 2099, or nothing`);
  const { value: memory = '' } = found.get('from memory') ?? {};
  if (!['yes', 'no'].includes(memory)) wrong('from memory', `"${memory}" is not an answer; allowed: yes, no`);
  return {
    id,
    title: say('title', 160),
    short: say('short', 60),
    year: year === '' ? null : Number(year),
    where: say('where', 160),
    source: { cite: say('source', 500), fromMemory: memory === 'yes' },
  };
}

const FORMULA = 'begins with a sign that a spreadsheet would run as a formula; allowed: any text that does not begin with = + - @';

/** Columns in which anything may stand. */
const FREE_TEXT = ['age_label', 'note'] as const;

function readHeader(row: readonly string[], line: number, refuse: Refuse): Column[] {
  const names = row.map((cell) => cell.trim()).filter((name, i, all) => name !== '' || i < all.length - 1);
  for (const name of names.filter((n) => !(COLUMNS as readonly string[]).includes(n)))
    refuse(line, name || 'column', `is not a column; allowed: ${COLUMNS.join(', ')}`);
  for (const name of COLUMNS.filter((c) => names.filter((n) => n === c).length !== 1)) {
    if (LATER.includes(name) && !names.includes(name)) continue;
    refuse(line, name, names.includes(name) ? 'is given twice' : 'is missing; every column has to be there, empty where it says nothing');
  }
  return names as Column[];
}

function readEntry(cells: Cells, refuse: (column: Column, message: string) => void): NormEntry | undefined {
  const motion = findMotion(cells.motion);
  if (!motion) {
    refuse('motion', unknownMotion(cells.motion));
    return undefined;
  }
  const oneOf = <T extends string>(column: Column, allowed: readonly T[]): T => {
    const value = cells[column];
    if (!(allowed as readonly string[]).includes(value)) refuse(column, `"${value}" is not one of the allowed: ${allowed.join(', ')}`);
    return value as T;
  };
  const mode = oneOf('mode', [...MODES, 'any'] as const);
  const position = oneOf('position', [...POSITIONS, 'any'] as const);
  const measured = [...new Set(motion.protocols.map((p) => p.position))];
  if (position !== 'any' && (POSITIONS as readonly string[]).includes(position) && !measured.includes(position)) {
    refuse('position', `${motion.name.toLowerCase()} is not measured in "${position}"; allowed: ${measured.join(', ')}, any`);
  }
  const sex = oneOf('sex', ['female', 'male', 'any'] as const);
  const confidence = oneOf('confidence', CONFIDENCES);
  const kind = oneOf('kind', NORM_KINDS);
  for (const column of FREE_TEXT) {
    if (cells[column].length > 300) refuse(column, 'is too long; allowed: at most 300 characters');
    if (runsAsFormula(cells[column])) refuse(column, FORMULA);
  }
  const extras = readExtras(cells, motion, refuse);
  const ages = readAges(cells, refuse);
  const value = (NORM_KINDS as readonly string[]).includes(kind) ? readValue(cells, kind, motion, refuse) : undefined;
  return (
    value && { motion: motion.id, mode, position, ...extras, sex, ages, value, confidence, ...(cells.note ? { note: cells.note } : {}) }
  );
}

/** Variant, side and finger: left out of the entry where the cell is empty. */
function readExtras(
  cells: Cells,
  motion: Motion,
  refuse: (column: Column, message: string) => void,
): Pick<NormEntry, 'variant' | 'side' | 'digit' | 'summary'> {
  checkExtras(cells, motion, refuse);
  const { variant, side, digit, counted = '' } = cells;
  return {
    ...(variant ? { variant } : {}),
    ...(side ? { side: SIDES.find((s) => s === side) } : {}),
    ...(digit ? { digit: Number(digit) as Digit } : {}),
    ...(counted ? { summary: SUMMARIES.find((s) => s === counted) } : {}),
  };
}

function checkExtras(cells: Cells, motion: Motion, refuse: (column: Column, message: string) => void): void {
  const variants = [...new Set(motion.protocols.flatMap((p) => p.variant ?? []))];
  const { variant, side, digit, counted = '' } = cells;
  if (variant !== '' && variant !== 'any' && !variants.includes(variant)) {
    refuse(
      'variant',
      `"${variant}" is not a way of measuring ${motion.name.toLowerCase()}; allowed: ${[...variants, 'any'].join(', ')}, or nothing`,
    );
  }
  if (counted !== '' && !(SUMMARIES as readonly string[]).includes(counted))
    refuse('counted', `"${counted}" is no way of counting readings; allowed: ${SUMMARIES.join(', ')}, or nothing`);
  const sides = allowedSides(motion);
  if (side !== '' && !(sides as readonly string[]).includes(side))
    refuse('side', `"${side}" does not fit; allowed: ${sides.join(', ')}, or nothing`);
  const digits = motion.perDigit ? DIGITS.map(String) : [];
  if (digit !== '' && !digits.includes(digit)) {
    refuse(
      'digit',
      motion.perDigit
        ? `"${digit}" is not a finger; allowed: ${digits.join(', ')}, or nothing`
        : 'does not belong to this motion; leave it empty',
    );
  }
}

const AGE_LIMITS = { from: 0, to: 130 };

function readAges(cells: Cells, refuse: (column: Column, message: string) => void): AgeBand | null {
  const { age_from: from, age_to: to, age_label: label } = cells;
  if (from === '' && to === '') {
    if (label !== '') refuse('age_label', 'belongs to an age band; give age_from and age_to, or leave it empty');
    return null;
  }
  const number = (column: 'age_from' | 'age_to'): number => {
    const value = toNumber(cells[column]);
    if (value === undefined || value < AGE_LIMITS.from || value > AGE_LIMITS.to) {
      refuse(column, `"${cells[column]}" is not an age; allowed: ${AGE_LIMITS.from} to ${AGE_LIMITS.to} years`);
      return NaN;
    }
    return value;
  };
  const band = { from: number('age_from'), to: number('age_to') };
  if (band.to <= band.from) refuse('age_to', `${to} does not lie after ${from}; allowed: the first age that is no longer in the band`);
  return { ...band, label: label || `${from}–${to} years` };
}

function readValue(
  cells: Cells,
  kind: NormValue['kind'],
  motion: Motion,
  refuse: (column: Column, message: string) => void,
): NormValue | undefined {
  const wanted = WANTED[kind];
  let fine = true;
  const wrong = (column: Column, message: string) => {
    fine = false;
    refuse(column, message);
  };
  for (const column of VALUE_COLUMNS) {
    if (!wanted.includes(column) && cells[column] !== '') wrong(column, `does not belong to a ${kind}; leave it empty`);
  }
  const numbers = wanted.map((column): number => {
    const value = toNumber(cells[column]);
    const message = wrongNumber(column, cells[column], motion);
    if (message) wrong(column, message);
    return value ?? NaN;
  });
  if (!fine) return undefined;
  const value = valueOf(kind, numbers);
  if (value.kind === 'range' && value.low > value.high) {
    wrong('high', `${value.high} is less than low, ${value.low}; allowed: low or more`);
    return undefined;
  }
  if (value.kind === 'mean' && !(value.ciLow <= value.mean && value.mean <= value.ciHigh)) {
    wrong('mean', `${value.mean} does not lie between ci_low ${value.ciLow} and ci_high ${value.ciHigh}`);
    return undefined;
  }
  return value;
}

/** @param numbers in the order of the columns that the kind wants */
function valueOf(kind: NormValue['kind'], numbers: readonly number[]): NormValue {
  const [a, b, c] = numbers as [number, number, number];
  switch (kind) {
    case 'point':
      return { kind, expected: a };
    case 'cutoff':
      return { kind, at: a };
    case 'range':
      return { kind, low: a, high: b };
    case 'distribution':
    case 'skewed':
      return { kind, mean: a, sd: b };
    case 'mean':
      return { kind, mean: a, ciLow: b, ciHigh: c };
  }
}

function wrongNumber(column: Column, cell: string, { name, limits: { min, max } }: Motion): string | null {
  const value = toNumber(cell);
  if (value === undefined) return `"${cell}" is not a number; allowed: a number with a point, as 12.5`;
  if (column === 'sd')
    return value > 0 && value <= max - min ? null : `${value} is not a spread; allowed: more than 0, at most ${max - min}`;
  return value < min || value > max ? `${value} is more than ${name.toLowerCase()} can hold; allowed: ${min} to ${max}` : null;
}

/** A decimal number as a table writes it; nothing else that JavaScript would take for one. */
function toNumber(cell: string): number | undefined {
  return /^-?\d+(\.\d+)?$/.test(cell) ? Number(cell) : undefined;
}
