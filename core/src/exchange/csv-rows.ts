import { asMeant, asShown } from './cells.js';
import type { AssessmentDocument, MeasurementEntry, ScreenEntry } from './document.js';
import { fromLeaves, leavesOf, OWN_TO_EACH, picked, type Leaf, type Leaves } from './leaves.js';

/*
 * An assessment as a table: one header, and rows of four records. `assessment`
 * (once) says whose and when, `precaution` one limit, `trial` one reading with
 * all that is known of its measurement, `try` one try of a screen's item.
 * Reading and writing are exact inverses.
 */

const RECORDS = ['assessment', 'precaution', 'trial', 'try'] as const;
type RecordKind = (typeof RECORDS)[number];

/** What a cell holds; a list that is there and empty says "none". */
type Kind = 'text' | 'number' | 'truth' | 'list';

/** Every column: what it holds, and in which records. */
const COLUMNS = {
  record: ['text', RECORDS],
  format: ['text', ['assessment']],
  version: ['number', ['assessment']],
  'person.birthDate': ['text', ['assessment']],
  'person.sex': ['text', ['assessment']],
  assessedOn: ['text', ['assessment']],
  'previous.assessedOn': ['text', ['assessment']],
  involvedSide: ['text', ['assessment']],
  complaintAt: ['text', ['assessment']],
  'procedure.id': ['text', ['assessment']],
  'procedure.on': ['text', ['assessment']],
  ranking: ['text', ['assessment']],
  normSet: ['text', ['assessment']],
  normSets: ['list', ['assessment']],
  /** `now` or `before`: of which day. */
  day: ['text', ['trial']],
  /** Which measurement or screen of the day, and which item of the screen: rows of one number belong together. */
  number: ['number', ['trial', 'try']],
  itemNumber: ['number', ['try']],
  motion: ['text', ['precaution', 'trial']],
  digit: ['number', ['trial']],
  side: ['text', ['precaution', 'trial', 'try']],
  mode: ['text', ['precaution', 'trial']],
  position: ['text', ['trial']],
  protocol: ['text', ['precaution', 'trial']],
  instrument: ['text', ['trial']],
  start: ['number', ['trial']],
  zero: ['number', ['trial']],
  end: ['number', ['trial']],
  'upper.zero': ['number', ['trial']],
  'upper.end': ['number', ['trial']],
  'lower.zero': ['number', ['trial']],
  'lower.end': ['number', ['trial']],
  sense: ['number', ['trial']],
  value: ['number', ['trial', 'try']],
  unit: ['text', ['trial', 'try']],
  pain: ['number', ['trial', 'try']],
  painWhere: ['text', ['trial', 'try']],
  endFeel: ['text', ['trial']],
  substitutions: ['list', ['trial']],
  examiner: ['text', ['trial']],
  broughtIn: ['truth', ['trial']],
  kind: ['text', ['precaution']],
  with: ['list', ['precaution', 'try']],
  limit: ['number', ['precaution']],
  until: ['text', ['precaution']],
  source: ['text', ['precaution']],
  screen: ['text', ['try']],
  screenedOn: ['text', ['try']],
  item: ['text', ['try']],
  view: ['text', ['try']],
  skipped: ['text', ['try']],
  meets: ['truth', ['try']],
  faults: ['list', ['try']],
  'lines.shin': ['number', ['try']],
  'lines.trunk': ['number', ['try']],
  'sector.from': ['number', ['try']],
  'sector.to': ['number', ['try']],
  /** `yes`: the circle was looked at and nothing is missing. */
  wholeCircle: ['truth', ['try']],
  felt: ['list', ['try']],
  answer: ['text', ['try']],
  note: ['text', ['try']],
} as const satisfies Record<string, readonly [Kind, readonly RecordKind[]]>;
type Column = keyof typeof COLUMNS;
const NAMES = Object.keys(COLUMNS) as Column[];

/** What stands in cells that are no figure and no text of somebody's. */
const [YES, NO, NOT_JUDGED, NONE, SEPARATOR] = ['yes', 'no', 'not judged', 'none', ' '] as const;

/** Header and rows; figures are figures, everything else is text that no spreadsheet runs. */
export function documentToRows(document: AssessmentDocument): (string | number)[][] {
  const { precautions = [], measurements, screens = [], previous, ...about } = document;
  const rows: Leaves[] = [
    leaves('assessment', { ...about, previous: previous && { assessedOn: previous.assessedOn } }),
    ...precautions.map((precaution) => leaves('precaution', { ...precaution })),
    ...measurements.flatMap((measurement, at) => trialRows('now', measurement, at + 1)),
    ...(previous?.measurements ?? []).flatMap((measurement, at) => trialRows('before', measurement, at + 1)),
    ...screens.flatMap((screen, at) => tryRows(screen, at + 1)),
  ];
  const used = NAMES.filter((name) => rows.some((row) => name in row));
  return [used, ...rows.map((row) => used.map((name) => cellOf(row[name])))];
}

function trialRows(day: string, { trials, ...measurement }: MeasurementEntry, number: number): Leaves[] {
  return trials.map((trial) => leaves('trial', { day, number, ...measurement, ...trial }));
}

function tryRows({ items, ...screen }: ScreenEntry, number: number): Leaves[] {
  return items.flatMap(({ tries, ...item }, at) => {
    const about = { number, itemNumber: at + 1, ...screen, ...item };
    if (tries.length === 0) return [leaves('try', about)];
    return tries.map((seen) => leaves('try', { ...about, ...seen }));
  });
}

const leaves = (record: RecordKind, said: object): Leaves => ({ record, ...leavesOf(said) });

function cellOf(leaf: Leaf | undefined): string | number {
  if (leaf === undefined) return '';
  if (leaf === null) return NOT_JUDGED;
  if (typeof leaf === 'number') return leaf;
  if (typeof leaf === 'boolean') return leaf ? YES : NO;
  if (typeof leaf === 'string') return asShown(leaf);
  return leaf.length === 0 ? NONE : leaf.join(SEPARATOR);
}

/** One cell that was refused. Lines count from 1, as a spreadsheet shows them. */
export interface RefusedTableCell {
  readonly line: number;
  readonly column: string;
  readonly message: string;
}

export type DocumentRowsReading =
  | {
      readonly ok: true;
      /** To be held to the schema of an assessment file. */
      readonly document: Readonly<Record<string, unknown>>;
      /** The line that a place of the document came from. */
      readonly lineOf: (path: readonly PropertyKey[]) => number;
    }
  | { readonly ok: false; readonly refused: readonly RefusedTableCell[] };

interface ReadRow {
  readonly line: number;
  readonly record: RecordKind;
  readonly said: Record<string, Leaf>;
}

/** The document of some rows of text, or every cell that cannot be read. What the cells mean is the schema's to judge. */
export function documentFromRows(rows: readonly (readonly string[])[]): DocumentRowsReading {
  const refused: RefusedTableCell[] = [];
  const refuse = (line: number, column: string, message: string) => void refused.push({ line, column, message });
  const [header = [], ...body] = rows;
  const names = readHeader(header, refuse);
  const read = refused.length > 0 ? [] : body.flatMap((cells, at): ReadRow[] => readRow(cells, at + 2, names, refuse));
  for (const { row, name, first } of contradictions(read))
    refuse(row.line, name, `says something else than line ${first.line} of the same number; allowed: the same, or another number`);
  if (refused.length === 0 && read.filter(({ record }) => record === 'assessment').length !== 1)
    refuse(1, 'record', 'needs one row "assessment", that says whose and when; allowed: one such row');
  return refused.length > 0 ? { ok: false, refused } : { ok: true, ...joined(read) };
}

/** What rows of one measurement or item say alike, they have to say alike. */
function contradictions(rows: readonly ReadRow[]): { row: ReadRow; name: string; first: ReadRow }[] {
  const firsts = new Map<string, ReadRow>();
  return rows.flatMap((row) => {
    const { record, said } = row;
    if ((record !== 'trial' && record !== 'try') || said['number'] === undefined) return [];
    const key = [record, said['day'] ?? 'now', said['number'], said['itemNumber']].join(' ');
    const first = firsts.get(key) ?? row;
    firsts.set(key, first);
    return NAMES.filter((name) => isShared(name, record) && String(said[name]) !== String(first.said[name])).map((name) => ({
      row,
      name,
      first,
    }));
  });
}

function readHeader(header: readonly string[], refuse: (line: number, column: string, message: string) => void): string[] {
  const names = header.map((name) => name.trim());
  while (names.length > 0 && names[names.length - 1] === '') names.pop();
  for (const name of names) {
    if (!Object.hasOwn(COLUMNS, name)) refuse(1, name || 'column', `is not a column; allowed: ${NAMES.join(', ')}`);
    else if (names.indexOf(name) !== names.lastIndexOf(name)) refuse(1, name, 'is given twice; allowed: each column once');
  }
  if (!names.includes('record')) refuse(1, 'record', 'is missing; allowed: a first row with the names of the columns, "record" among them');
  return [...new Set(names)];
}

function readRow(
  cells: readonly string[],
  line: number,
  names: readonly string[],
  refuse: (line: number, column: string, message: string) => void,
): ReadRow[] {
  if (cells.every((cell) => cell.trim() === '')) return [];
  const record = (cells[names.indexOf('record')] ?? '').trim() as RecordKind;
  if (!RECORDS.includes(record)) {
    refuse(line, 'record', `"${record}" is no record; allowed: ${RECORDS.join(', ')}`);
    return [];
  }
  cells.slice(names.length).forEach((cell) => {
    if (cell.trim() !== '') refuse(line, 'row', `has a cell without a column, "${cell.slice(0, 40)}"; allowed: as many cells as columns`);
  });
  const said: Record<string, Leaf> = {};
  names.forEach((name, at) => {
    const cell = cells[at] ?? '';
    if (name === 'record' || cell === '') return;
    const [kind, records] = COLUMNS[name as Column];
    if (!(records as readonly string[]).includes(record)) {
      refuse(line, name, `says nothing of a row "${record}"; allowed: empty there`);
      return;
    }
    const leaf = READ[kind](cell);
    if (leaf === undefined) refuse(line, name, `"${cell.slice(0, 40)}" is not readable; allowed: ${ALLOWED[kind]}`);
    else said[name] = leaf;
  });
  return [{ line, record, said }];
}

const TRUTHS: ReadonlyMap<string, boolean | null> = new Map([
  [YES, true],
  [NO, false],
  [NOT_JUDGED, null],
]);

const READ: Readonly<Record<Kind, (cell: string) => Leaf | undefined>> = {
  text: asMeant,
  number: (cell) => (/^[-+]?(\d+(\.\d+)?|\.\d+)(e[-+]?\d+)?$/i.test(cell.trim()) ? Number(cell) : undefined),
  truth: (cell) => TRUTHS.get(cell.trim()),
  list: (cell) => (cell.trim() === NONE ? [] : cell.trim().split(/\s+/)),
};

const ALLOWED: Readonly<Record<Kind, string>> = {
  text: 'text',
  number: 'a figure with a point, as -7.5',
  truth: `${YES}, ${NO}, ${NOT_JUDGED}`,
  list: `ids with spaces between them, or ${NONE}`,
};

/** Rows of one number, in the order in which each number first appears; a row without a number stands alone. */
function together(rows: readonly ReadRow[], by: 'number' | 'itemNumber'): ReadRow[][] {
  const groups = new Map<unknown, ReadRow[]>();
  rows.forEach((row, at) => {
    const own = row.said[by] ?? `row ${at}`;
    groups.set(own, [...(groups.get(own) ?? []), row]);
  });
  return [...groups.values()];
}

function joined(rows: readonly ReadRow[]) {
  const lines = new Map<string, number>();
  const of = (record: RecordKind) => rows.filter((row) => row.record === record);
  const mark = (path: readonly PropertyKey[], row: ReadRow) => void lines.set(path.join('.'), row.line);
  const [about] = of('assessment') as [ReadRow];
  mark([], about);
  const measured = (day: string, path: readonly string[]) =>
    together(
      of('trial').filter(({ said }) => (said['day'] ?? 'now') === day),
      'number',
    ).map((own, at) => {
      mark([...path, at], own[0]!);
      return {
        ...shared(own[0]!, 'trial'),
        trials: own.map((row, trial) => (mark([...path, at, 'trials', trial], row), ofEach(row, 'trial'))),
      };
    });
  const screens = together(of('try'), 'number').map((own, at) => {
    mark(['screens', at], own[0]!);
    const { screen, screenedOn } = own[0]!.said;
    const items = together(own, 'itemNumber').map((ofItem, item) => {
      mark(['screens', at, 'items', item], ofItem[0]!);
      const tries = ofItem.map((row) => ofEach(row, 'try')).filter((seen) => Object.keys(seen).length > 0);
      ofItem.forEach((row, nth) => mark(['screens', at, 'items', item, 'tries', nth], row));
      return { ...shared(ofItem[0]!, 'try'), tries };
    });
    return { screen, ...(screenedOn === undefined ? {} : { screenedOn }), items };
  });
  const precautions = of('precaution').map((row, at) => (mark(['precautions', at], row), fromLeaves(row.said)));
  const { previous, ...said } = fromLeaves(about.said) as Record<string, unknown>;
  const document = {
    ...said,
    ...(precautions.length ? { precautions } : {}),
    measurements: measured('now', ['measurements']),
    ...(screens.length ? { screens } : {}),
    ...(previous === undefined
      ? {}
      : { previous: { ...(previous as object), measurements: measured('before', ['previous', 'measurements']) } }),
  };
  const lineOf = (path: readonly PropertyKey[]): number => {
    for (let length = path.length; length >= 0; length -= 1) {
      const line = lines.get(path.slice(0, length).join('.'));
      if (line !== undefined) return line;
    }
    return 1;
  };
  return { document, lineOf };
}

/** Which rows belong together. */
const PLACE = ['day', 'number', 'itemNumber', 'screen', 'screenedOn'];
const isShared = (name: string, kind: 'trial' | 'try'): boolean => !OWN_TO_EACH[kind].includes(name) && !PLACE.includes(name);

const shared = ({ said }: ReadRow, kind: 'trial' | 'try') => fromLeaves(picked(said, (name) => isShared(name, kind)));
const ofEach = ({ said }: ReadRow, kind: 'trial' | 'try') => fromLeaves(picked(said, (name) => OWN_TO_EACH[kind].includes(name)));
