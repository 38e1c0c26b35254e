import { HttpProblem } from '../shared/problems.js';

/** As many refused cells are named; a file with more wrong is usually wrong in one way. */
const MOST_NAMED = 100;

/** What was refused of a table, cell by cell. */
export function refusedCells(title: string, refused: readonly { line: number; column: string; message: string }[]): HttpProblem {
  const lines = new Set(refused.map((cell) => cell.line)).size;
  const named = refused.slice(0, MOST_NAMED);
  const rest = refused.length - named.length;
  return new HttpProblem(
    422,
    title,
    `Nothing was brought in: ${lines === 1 ? 'one line is' : `${lines} lines are`} wrong${rest > 0 ? ` (${rest} more cells beyond those named)` : ''}. Correct the file and bring it in again.`,
    { errors: named.map(({ line, column, message }) => ({ path: `line ${line}, ${column}`, message })) },
  );
}
