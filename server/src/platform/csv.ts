import Papa from 'papaparse';
import { HttpProblem } from './problems.js';

/** Rows of a CSV text, commas or semicolons; a byte order mark is dropped. @param title of the problem where quotes do not close */
export function csvRows(csv: string, title: string): string[][] {
  const { data, errors } = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { delimitersToGuess: [',', ';', '\t'], skipEmptyLines: false });
  // A lone last newline makes one empty row; quotes that do not close are the one thing that stops a reading.
  const broken = errors.find((error) => error.type === 'Quotes');
  if (broken) {
    throw new HttpProblem(422, title, 'Nothing was brought in. Correct the file and bring it in again.', [
      {
        path: `line ${(broken.row ?? 0) + 1}`,
        message: 'has a quotation mark that does not close; allowed: text between two, doubled inside',
      },
    ]);
  }
  return data;
}

export const csvText = (rows: readonly (readonly (string | number)[])[]): string =>
  `${Papa.unparse(rows as (string | number)[][], { newline: '\r\n' })}\r\n`;
