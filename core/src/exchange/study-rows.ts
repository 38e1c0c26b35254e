import { LEAST_RATERS, LEAST_SUBJECTS, type StudyTable } from '../error/anova.js';
import { ICC_FORMS, type Reliability } from '../error/icc.js';

/** One cell that was refused; line and column from 1, as an editor counts. */
export interface RefusedStudyCell {
  readonly line: number | null;
  readonly column: number | null;
  readonly message: string;
}

export type StudyRowsReading =
  | {
      readonly ok: true;
      readonly table: StudyTable;
      readonly subjects: readonly string[] | null;
      readonly raters: readonly string[] | null;
    }
  | { readonly ok: false; readonly refused: readonly RefusedStudyCell[] };

const NUMBER = /^[-+−]?\d+([.,]\d+)?$/;
/** How words begin that head a column of identifiers; the weak ones alone may be a rater's. */
const SUBJECT_WORDS = ['subject', 'target', 'id', 'patient', 'person', 'participant', 'proband', 'case', 'code', 'key'];
const WEAK_WORDS = ['pat', 'name', 'no', 'nr', 'num', 'number'];

/** Whether a heading speaks of the people who were measured: every word of it does, as "Subject ID", "Pat-Nr". */
function namesSubjects(heading: string): boolean {
  const words = heading
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter(Boolean);
  if (words.length === 0) return heading.includes('#');
  const begins = (word: string, stems: readonly string[]) =>
    stems.some((stem) => word === stem || (stem.length > 3 && word.startsWith(stem)));
  const isWeak = (word: string) => WEAK_WORDS.includes(word);
  return (
    words.every((word) => begins(word, SUBJECT_WORDS) || isWeak(word)) && (words.length > 1 || !isWeak(words[0]!) || words[0] !== 'pat')
  );
}

/** Figures that merely count the rows, one after the other, are identifiers whatever their heading says. */
function countsRows(cells: readonly string[]): boolean {
  const figures = cells.map((cell) => (/^\d+$/.test(cell) ? Number(cell) : NaN));
  return figures.length >= 3 && figures.every((figure, i) => i === 0 || figure === figures[i - 1]! + 1);
}

const isNumber = (cell: string): boolean => NUMBER.test(cell);
const toNumber = (cell: string): number => Number(cell.replace('−', '-').replace(',', '.'));

/**
 * A reliability study from rows of text: subjects in rows, raters in columns.
 * A first row without a figure is a header; a first column that is headed as
 * one of names, or holds none but names, names the subjects. Empty rows are
 * passed over. A missing cell is refused by name, never filled.
 */
export function studyFromRows(rows: readonly (readonly string[])[]): StudyRowsReading {
  const lines = rows
    .map((row, index) => ({ line: index + 1, cells: trimEnd(row.map((cell) => cell.trim())) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  const header = lines[0] && !lines[0].cells.some(isNumber) ? lines[0] : undefined;
  const data = header ? lines.slice(1) : lines;
  const column = (at: number) => data.map(({ cells }) => cells[at] ?? '');
  const isHeaded = (at: number) => header !== undefined && namesSubjects(header.cells[at] ?? '');
  const columns = Math.max(header?.cells.length ?? 0, ...data.map(({ cells }) => cells.length));
  // A column of identifiers is never an examiner, whatever it is called and however many there are.
  const identifies = (at: number): boolean => {
    const own = column(at);
    if (own.every((cell) => cell !== '' && !isNumber(cell))) return true;
    if (isHeaded(at) || (header && (header.cells[at] ?? '') === '' && at === 0)) return columns > LEAST_RATERS || !isNumber(own[0]!);
    return columns - at > LEAST_RATERS && countsRows(own);
  };
  let skip = 0;
  while (data.length > 0 && skip < columns && identifies(skip)) skip += 1;
  const refused: RefusedStudyCell[] = data.flatMap(({ line, cells }) => notNumbers(line, cells, skip, columns));
  const raters = columns - skip;
  if (data.length < LEAST_SUBJECTS)
    refused.push({ line: null, column: null, message: `${data.length} subjects; allowed: ${LEAST_SUBJECTS} or more, one a row` });
  else if (raters < LEAST_RATERS)
    refused.push({
      line: null,
      column: null,
      message: `${Math.max(0, raters)} readings a subject; allowed: ${LEAST_RATERS} or more, one a column`,
    });
  if (refused.length > 0) return { ok: false, refused };
  return {
    ok: true,
    table: data.map(({ cells }) => cells.slice(skip).map(toNumber)),
    subjects: skip > 0 ? data.map(({ cells }) => cells[0]!) : null,
    raters: header ? header.cells.slice(skip) : null,
  };
}

/** Cells of one line that hold no number, from the first reading on. */
const notNumbers = (line: number, cells: readonly string[], from: number, columns: number): RefusedStudyCell[] =>
  Array.from({ length: columns }, (_, at) => ({ at, cell: cells[at] ?? '' }))
    .filter(({ at, cell }) => at >= from && !isNumber(cell))
    .map(({ at, cell }) => ({
      line,
      column: at + 1,
      message: `${cell === '' ? 'is missing' : `"${cell}" is not a number`}; allowed: a number in every cell`,
    }));

/** Without the empty cells that a trailing comma leaves. */
function trimEnd(cells: readonly string[]): readonly string[] {
  let end = cells.length;
  while (end > 0 && cells[end - 1] === '') end--;
  return cells.slice(0, end);
}

const round = (value: number): number => Number(value.toFixed(3)) + 0;

/** A study as the terminal prints it: coefficients and errors to 0.001. */
export function reliabilityReport({ variance, icc, sem, mdc95 }: Reliability) {
  return {
    n: variance.n,
    k: variance.k,
    icc: Object.fromEntries(
      ICC_FORMS.map((form) => {
        const { value, low, high } = icc[form];
        return [form, { value: round(value), low: round(low), high: round(high) }];
      }),
    ),
    sem: { agreement: round(sem.agreement), consistency: round(sem.consistency) },
    mdc95: { agreement: round(mdc95.agreement), consistency: round(mdc95.consistency) },
  };
}
