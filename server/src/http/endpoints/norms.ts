import { NORMS } from '@dial-gauge/contract';
import { NORM_SETS, normSetFromRows, normSetToRows } from '@dial-gauge/core';
import { tableText } from '@dial-gauge/files';
import { csvRows } from '../../shared/csv.js';
import { serve, type Resource } from '../endpoint.js';
import { refusedCells } from '../refused-cells.js';
import { NormSetRow } from '../../records/norms/entities.js';
import { addNormSet, removeNormSet, setNorms } from '../../use-cases/norms/norms.js';
import { normSetOf, normsView, ownSetsOf } from '../../read-models/clinic-criteria/criteria.js';

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
        throw refusedCells('The norm set was refused', reading.refused);
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
