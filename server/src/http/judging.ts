import { ROUTES } from '@dial-gauge/contract';
import { normSetFromRows, normSetToRows, NORM_SETS } from '@dial-gauge/core';
import { Router } from 'express';
import Papa from 'papaparse';
import type { DataSource } from 'typeorm';
import { HttpProblem } from '../problem.js';
import { JudgingStore } from '../store/judging.js';
import { serve } from './serve.js';

/** As many refused cells are named; a file with more wrong is usually wrong in one way. */
const MOST_NAMED = 100;

/** Norm sets and thresholds of the caller's clinic. */
export function judgingRouter(dataSource: DataSource): Router {
  const router = Router();
  const store = (caller: { clinicId: string }) => new JudgingStore(dataSource, caller.clinicId);

  serve(router, ROUTES.judging, ({ caller }) => store(caller).view());

  serve(router, ROUTES.setJudging, async ({ caller, body }) => {
    await store(caller).change(caller, body);
    return store(caller).view();
  });

  serve(router, ROUTES.addNormSet, async ({ caller, body }) => {
    const { ownSets } = await store(caller).current();
    const reading = normSetFromRows(
      parseCsv(body.csv),
      [...NORM_SETS, ...ownSets].map((set) => set.id),
    );
    if (reading.ok) return store(caller).add(caller, reading.set);
    const lines = new Set(reading.refused.map((cell) => cell.line)).size;
    const named = reading.refused.slice(0, MOST_NAMED);
    const rest = reading.refused.length - named.length;
    throw new HttpProblem(
      422,
      'The norm set was refused',
      `Nothing was brought in: ${lines === 1 ? 'one line is' : `${lines} lines are`} wrong${rest > 0 ? ` (${rest} more cells beyond those named)` : ''}. Correct the file and bring it in again.`,
      named.map(({ line, column, message }) => ({ path: `line ${line}, ${column}`, message })),
    );
  });

  serve(router, ROUTES.exportNormSet, async ({ caller, params }) => {
    const set = await store(caller).find(params.id);
    return { fileName: `${set.id}.csv`, csv: `${Papa.unparse(normSetToRows(set), { newline: '\r\n' })}\r\n` };
  });

  serve(router, ROUTES.removeNormSet, async ({ caller, params }) => {
    await store(caller).remove(caller, params.id);
    return {};
  });
  return router;
}

/** Rows of a CSV text, commas or semicolons; a byte order mark is dropped. */
function parseCsv(csv: string): string[][] {
  const { data, errors } = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { delimitersToGuess: [',', ';', '\t'], skipEmptyLines: false });
  // A lone last newline makes one empty row; quotes that do not close are the one thing that stops a reading.
  const broken = errors.find((error) => error.type === 'Quotes');
  if (broken) {
    throw new HttpProblem(422, 'The norm set was refused', 'Nothing was brought in. Correct the file and bring it in again.', [
      {
        path: `line ${(broken.row ?? 0) + 1}`,
        message: 'has a quotation mark that does not close; allowed: text between two, doubled inside',
      },
    ]);
  }
  return data;
}
