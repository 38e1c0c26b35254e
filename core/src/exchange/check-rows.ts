import { figuresWords, VALUE_TABLES, valuesOf, correctionProblems, type PrintedValue } from '../checked/index.js';
import { motion } from '../catalogue/index.js';
import { sameFigures, type Figures, type ValueCheck } from '../looked-up.js';
import { asMeant, asShown } from './cells.js';

/*
 * Values that a clinic looked up, as a table that another clinic can bring in.
 * `held` and `corrected` name each figure: "mean=121.3; sd=6.4". A row is taken
 * only where the program holds the same figures. `motion`, `about` and
 * `printed` are for whoever reads the table.
 */

const COLUMNS = ['kind', 'of', 'key', 'motion', 'about', 'held', 'corrected', 'printed', 'source', 'edition', 'page', 'by', 'on'] as const;
type Column = (typeof COLUMNS)[number];

/** What one row of such a table says. */
export type CheckRow = Omit<ValueCheck, 'programHad'>;

/** A cell that cannot be taken. */
export interface RefusedCheck {
  readonly line: number;
  readonly column: string;
  readonly message: string;
}

const written = (figures: Figures): string =>
  Object.entries(figures)
    .map(([name, figure]) => `${name}=${figure}`)
    .join('; ');

function figuresRead(cell: string): Figures | null {
  const parts = cell
    .split(';')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => /^(\w+)\s*=\s*(-?\d+(?:\.\d+)?)$/.exec(part));
  if (parts.some((part) => part === null)) return null;
  return Object.fromEntries(parts.map((part) => [part![1]!, Number(part![2])]));
}

let known: ReadonlyMap<string, PrintedValue> | undefined;
const keyOf = (kind: string, of: string, key: string): string => `${kind} ${of} ${key}`;
function valueOf(kind: string, of: string, key: string): PrintedValue | undefined {
  known ??= new Map(
    VALUE_TABLES.flatMap((table) => valuesOf(table.kind, table.of) ?? []).map((value) => [keyOf(value.kind, value.of, value.key), value]),
  );
  return known.get(keyOf(kind, of, key));
}

/** Everything that a clinic looked up, as rows with a header. */
export function checksToRows(checks: readonly ValueCheck[]): string[][] {
  return [
    [...COLUMNS],
    ...checks.map((check) => {
      const value = valueOf(check.kind, check.of, check.key);
      const cells: Record<Column, string> = {
        kind: check.kind,
        of: check.of,
        key: check.key,
        motion: value ? motion(value.motion).name : '',
        about: value?.about ?? '',
        held: written(check.held),
        corrected: check.corrected ? written(check.corrected) : '',
        printed: value ? figuresWords(check.corrected ?? check.held, value.allowed) : '',
        source: check.source,
        edition: check.edition,
        page: check.page,
        by: check.by,
        on: check.on,
      };
      return COLUMNS.map((column) => asShown(cells[column]));
    }),
  ];
}

const LONGEST: Readonly<Partial<Record<Column, number>>> = { source: 300, edition: 120, page: 60, by: 120 };

/** Reads such a table: all of it, or every cell that is wrong. */
export function checksFromRows(
  rows: readonly (readonly string[])[],
): { readonly ok: true; readonly checks: readonly CheckRow[] } | { readonly ok: false; readonly refused: readonly RefusedCheck[] } {
  const [header = [], ...lines] = rows;
  const at = new Map(header.map((name, index) => [name.trim(), index]));
  const wanted = COLUMNS.filter((column) => !['motion', 'about', 'printed'].includes(column));
  const missing = wanted.filter((column) => !at.has(column));
  if (missing.length > 0)
    return {
      ok: false,
      refused: missing.map((column) => ({ line: 1, column, message: `is missing; allowed: a header with ${wanted.join(', ')}` })),
    };
  const refused: RefusedCheck[] = [];
  const checks: CheckRow[] = [];
  const seen = new Map<string, number>();
  lines.forEach((cells, index) => {
    if (cells.every((cell) => cell.trim() === '')) return;
    const line = index + 2;
    const cell: Cell = (column) => asMeant((cells[at.get(column)!] ?? '').trim());
    const wrong: Wrong = (column, message) => void refused.push({ line, column, message });
    const before = refused.length;
    const value = valueOf(cell('kind'), cell('of'), cell('key'));
    if (!value) return wrong('key', 'is no value of this program; allowed: the keys that a table written here has');
    const name = keyOf(value.kind, value.of, value.key);
    const twice = seen.get(name);
    if (twice !== undefined) return wrong('key', `stands in line ${twice} too; allowed: each value once`);
    seen.set(name, line);
    const corrected = correctedOf(value, cell, wrong);
    whereAndWho(cell, wrong);
    if (refused.length > before) return;
    const { kind, of, key, figures: held } = value;
    checks.push({
      ...{ kind, of, key, held, corrected },
      ...{ source: cell('source'), edition: cell('edition'), page: cell('page'), by: cell('by'), on: cell('on') },
    });
  });
  if (refused.length === 0 && checks.length === 0)
    return { ok: false, refused: [{ line: 2, column: 'key', message: 'there is no row; allowed: one or more' }] };
  return refused.length > 0 ? { ok: false, refused } : { ok: true, checks };
}

type Cell = (column: Column) => string;
type Wrong = (column: Column, message: string) => void;

/** What the source prints, where the program holds what the row says it held. */
function correctedOf(value: PrintedValue, cell: Cell, wrong: Wrong): Figures | null {
  const held = figuresRead(cell('held'));
  if (!held || !sameFigures(held, value.figures))
    wrong('held', `is not what this program holds; allowed: "${written(value.figures)}". Look it up anew.`);
  if (cell('corrected') === '') return null;
  const corrected = figuresRead(cell('corrected'));
  if (!corrected) wrong('corrected', `"${cell('corrected')}" is not understood; allowed: as "mean=121; sd=6.4", or nothing`);
  else for (const { figure, message } of correctionProblems(value, corrected)) wrong('corrected', `${figure} ${message}`);
  return corrected;
}

function whereAndWho(cell: Cell, wrong: Wrong): void {
  for (const column of ['source', 'page', 'by'] as const)
    if (cell(column) === '') wrong(column, 'is empty; allowed: where it was looked up, and by whom');
  for (const [column, most] of Object.entries(LONGEST) as [Column, number][])
    if (cell(column).length > most) wrong(column, `is ${cell(column).length} characters long; allowed: up to ${most}`);
  const on = cell('on');
  if (!/^\d{4}-\d{2}-\d{2}$/.test(on) || Number.isNaN(Date.parse(on))) wrong('on', `"${on}" is no day; allowed: as 2026-11-20`);
}
