import { VALUE_CHECKS } from '@dial-gauge/contract';
import { checksFromRows, checksToRows } from '@dial-gauge/core';
import { tableText } from '@dial-gauge/files';
import { checkOfView, standingChecks } from '../../read-models/clinic-criteria/value-checks.js';
import { ValueCheckRow } from '../../records/norms/value-check.js';
import { csvRows } from '../../shared/csv.js';
import { dayOf } from '../../shared/days.js';
import { addValueChecks, answerOf, importValueChecks } from '../../use-cases/norms/value-checks.js';
import { serve, type Resource } from '../endpoint.js';
import { refusedCells } from '../refused-cells.js';

/** Values that the clinic looked up. */
export const valueChecks: Resource = {
  entities: [ValueCheckRow],
  routes: [
    serve(VALUE_CHECKS.addValueChecks, async (work, { body }) => {
      const ids = await addValueChecks(work, body.checks);
      return async (after) => ({ checks: await answerOf(after, ids) });
    }),
    serve(VALUE_CHECKS.exportValueChecks, async (work) => ({
      fileName: `looked-up-${dayOf(work.now)}.csv`,
      csv: tableText(checksToRows((await standingChecks(work)).map(checkOfView))),
    })),
    // A whole table is read and checked: off the way of everybody else.
    serve(
      VALUE_CHECKS.importValueChecks,
      async (work, { body }) => {
        const reading = checksFromRows(csvRows(body.csv, 'The table was refused'));
        if (!reading.ok) throw refusedCells('The table was refused', reading.refused);
        return { values: await importValueChecks(work, reading.checks) };
      },
      { thread: true },
    ),
  ],
};
