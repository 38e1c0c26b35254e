import { AssessmentFile, assessmentOf, explain, normSetsOf } from '@dial-gauge/contract';
import {
  assess,
  documentFromFhir,
  documentFromRows,
  documentOf,
  documentToFhir,
  documentToRows,
  sftrLines,
  type AssessmentDocument,
  type FhirContext,
  type Judgement,
  type Measurement,
} from '@dial-gauge/core';
import Papa from 'papaparse';

export const EXPORTED = ['fhir', 'csv', 'sftr', 'json'] as const;
export type Exported = (typeof EXPORTED)[number];
export const IMPORTED = ['csv', 'fhir', 'json'] as const;
export type Imported = (typeof IMPORTED)[number];

/** A larger file holds no assessment. */
const MOST_CHARACTERS = 20_000_000;

/** More rows than the largest assessment has: 1,000 measurements of six trials, with their screens. */
const MOST_ROWS = 10_000;
/** So many of the things that are wrong are told. */
const MOST_PROBLEMS = 200;

/** What is exported: the facts, the readings they hold as the core reads them, and what they come to. */
export interface Exportable {
  readonly document: AssessmentDocument;
  readonly measurements: readonly Measurement[];
  readonly judgement: () => Judgement;
}

/** The facts of a file that has been accepted, as a document in its newest version. */
const documentOfFile = (file: AssessmentFile): AssessmentDocument =>
  documentOf({ ...file, screens: file.screens as unknown as AssessmentDocument['screens'] });

export const exportableOf = (file: AssessmentFile): Exportable => ({
  document: documentOfFile(file),
  measurements: file.measurements,
  judgement: () => assess(assessmentOf(file), { normSets: normSetsOf(file), ranking: file.ranking }),
});

/** An assessment in one of the open formats. */
export function exportText({ document, measurements, judgement }: Exportable, to: Exported, context: FhirContext = {}): string {
  switch (to) {
    case 'json':
      return `${JSON.stringify(document, null, 2)}\n`;
    case 'csv':
      return tableText(documentToRows(document));
    case 'sftr':
      return `${sftrLines(measurements).join('\n')}\n`;
    case 'fhir':
      return `${JSON.stringify(documentToFhir(document, { judgement: judgement(), ...context }), null, 2)}\n`;
  }
}

/** Rows as RFC 4180 text: CRLF, quoted where it has to be. */
export const tableText = (rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse(rows as (string | number)[][], { newline: '\r\n' })}\r\n`;

/** Rows of a table; a byte order mark is no cell. A quote that is never closed is refused by its line. */
export function tableRows(text: string): { readonly rows: string[][]; readonly problems: readonly ImportProblem[] } {
  const plain = text.replace(/^\uFEFF/, '');
  const { data, errors } = Papa.parse<string[]>(plain, {
    delimiter: separatorBesideDecimalCommas(plain),
    delimitersToGuess: [',', ';', '\t'],
  });
  const problems = errors
    .filter(({ type }) => type === 'Quotes')
    .map(({ row, message }) => ({
      path: `line ${(row ?? 0) + 1}`,
      message: `${message.toLowerCase()}; allowed: a quote that is closed, doubled inside`,
    }));
  return { rows: data, problems };
}

/**
 * The sign between cells where commas are decimal: in every line a semicolon
 * or a tab, and no comma but between two digits. Undefined: it is guessed.
 */
function separatorBesideDecimalCommas(text: string): string | undefined {
  const lines = text
    .replace(/"(?:[^"]|"")*"/g, '')
    .split(/\r\n|\r|\n/)
    .filter((line) => line.trim() !== '');
  const areDecimal = !lines.some((line) => /(?<!\d),|,(?!\d)/.test(line));
  return areDecimal && lines.length > 0 ? [';', '\t'].find((sign) => lines.every((line) => line.includes(sign))) : undefined;
}

/** Where something is wrong, what, and what is allowed. */
export interface ImportProblem {
  readonly path: string;
  readonly message: string;
}

export type ImportReading =
  | { readonly ok: true; readonly document: AssessmentDocument }
  | {
      readonly ok: false;
      readonly problems: readonly ImportProblem[];
    };

const refused = (...problems: readonly ImportProblem[]): ImportReading => ({ ok: false, problems });

/** An assessment of one of the open formats, or everything that is wrong with it. Nothing is taken where anything is refused. */
export function importText(text: string, from: Imported): ImportReading {
  if (text.length > MOST_CHARACTERS)
    return refused({ path: 'file', message: `holds ${text.length} characters; allowed: at most ${MOST_CHARACTERS}` });
  switch (from) {
    case 'csv': {
      const { rows, problems } = tableRows(text);
      if (problems.length > 0) return refused(...problems);
      if (rows.length > MOST_ROWS) return refused({ path: 'file', message: `holds ${rows.length} rows; allowed: at most ${MOST_ROWS}` });
      const read = documentFromRows(rows);
      if (!read.ok)
        return refused(...read.refused.map(({ line, column, message }) => ({ path: `line ${line}, column ${column}`, message })));
      return held(read.document, (path) => `line ${read.lineOf(path)}, ${path.join('.') || 'row'}`);
    }
    case 'fhir': {
      const json = parsed(text);
      if (!json.ok) return json;
      const read = documentFromFhir(json.value);
      if (!read.ok) return refused(...read.refused);
      return held(read.document, read.placeOf);
    }
    case 'json': {
      const json = parsed(text);
      return json.ok ? held(json.value, (path) => path.join('.') || '(whole)') : json;
    }
  }
}

function parsed(
  text: string,
): { readonly ok: true; readonly value: unknown } | { readonly ok: false; readonly problems: readonly ImportProblem[] } {
  try {
    return { ok: true, value: JSON.parse(text) as unknown };
  } catch (error) {
    return {
      ok: false,
      problems: [{ path: 'file', message: `is not JSON (${(error as SyntaxError).message}); allowed: one JSON object` }],
    };
  }
}

/** Holds what was read to the schema; what is refused is told where it came from. */
function held(document: unknown, placeOf: (path: readonly PropertyKey[]) => string): ImportReading {
  const file = AssessmentFile.safeParse(document);
  if (file.success) return { ok: true, document: documentOfFile(file.data) };
  return refused(
    ...explain(file.error)
      .slice(0, MOST_PROBLEMS)
      .map(({ path, message }) => ({ path: placeOf(path === '(whole)' ? [] : path.split('.')), message })),
  );
}
