import { tableRows } from '@dial-gauge/files';
import { HttpProblem } from './problems.js';

/** Rows of a CSV text that somebody brings in. @param title of the problem where quotes do not close */
export function csvRows(csv: string, title: string): string[][] {
  const { rows, problems } = tableRows(csv);
  if (problems.length > 0)
    throw new HttpProblem(422, title, 'Nothing was brought in. Correct the file and bring it in again.', { errors: problems });
  return rows;
}
