import { NORMS } from '@dial-gauge/contract';
import { NORM_SETS, normSetFromRows, normSetToRows } from '@dial-gauge/core';
import { tableText } from '@dial-gauge/files';
import { csvRows } from '../../shared/csv.js';
import { HttpProblem } from '../../shared/problems.js';
import { serve, type Resource } from '../endpoint.js';
import { NormSetRow } from '../../records/norms/entities.js';
import { addNormSet, removeNormSet, setNorms } from '../../use-cases/norms/norms.js';
import { normSetOf, normsView, ownSetsOf } from '../../read-models/clinic-criteria/criteria.js';

/** As many refused cells are named; a file with more wrong is usually wrong in one way. */
const MOST_NAMED = 100;

/** Norm sets and thresholds of the caller's clinic. */
export const norms: Resource = {
  entities: [NormSetRow],
  routes: [
    serve(NORMS.norms, (work) => normsView(work)),
    serve(NORMS.setNorms, async (work, { body }) => {
      await setNorms(work, body);
      return (after) => normsView(after);
    }),
    // A whole table is read and checked: off the way of everybody else.
    serve(
      NORMS.addNormSet,
      async (work, { body }) => {
        const installed = [...NORM_SETS, ...(await ownSetsOf(work))].map((set) => set.id);
        const reading = normSetFromRows(csvRows(body.csv, 'The norm set was refused'), installed);
        if (reading.ok) return addNormSet(work, reading.set);
        throw refusedCells(reading.refused);
      },
      { thread: true },
    ),
    serve(NORMS.exportNormSet, async (work, { params }) => {
      const set = await normSetOf(work, params.id);
      return { fileName: `${set.id}.csv`, csv: tableText(normSetToRows(set)) };
    }),
    serve(NORMS.removeNormSet, async (work, { params }) => {
      await removeNormSet(work, params.id);
      return {};
    }),
  ],
};

function refusedCells(refused: readonly { line: number; column: string; message: string }[]): HttpProblem {
  const lines = new Set(refused.map((cell) => cell.line)).size;
  const named = refused.slice(0, MOST_NAMED);
  const rest = refused.length - named.length;
  return new HttpProblem(
    422,
    'The norm set was refused',
    `Nothing was brought in: ${lines === 1 ? 'one line is' : `${lines} lines are`} wrong${rest > 0 ? ` (${rest} more cells beyond those named)` : ''}. Correct the file and bring it in again.`,
    { errors: named.map(({ line, column, message }) => ({ path: `line ${line}, ${column}`, message })) },
  );
}
