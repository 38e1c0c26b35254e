import { DRILL_LIST } from '@dial-gauge/contract';
import { DRILLS, drillsFromRows, drillsToRows } from '@dial-gauge/core';
import { tableText } from '@dial-gauge/files';
import { csvRows } from '../../shared/csv.js';
import { serve, type Resource } from '../endpoint.js';
import { DrillVersionRow } from '../../records/drills/entities.js';
import { keepDrill, keepDrills } from '../../use-cases/treating/drills.js';
import { drillsView, newestVersions } from '../../read-models/drills/drills.js';

/** Drills of the clinic's own, beside those that ship. */
export const drills: Resource = {
  entities: [DrillVersionRow],
  routes: [
    serve(DRILL_LIST.drills, (work) => drillsView(work)),
    serve(DRILL_LIST.keepDrill, async (work, { body }) => {
      await keepDrill(work, body);
      return (after) => drillsView(after);
    }),
    // A whole table is read and checked: off the way of everybody else.
    serve(
      DRILL_LIST.keepDrillFile,
      async (work, { body }) => {
        const counts = await keepDrills(work, drillsFromRows(csvRows(body.csv, 'The drills were refused')));
        return async (after) => ({ ...(await drillsView(after)), ...counts });
      },
      { thread: true },
    ),
    serve(DRILL_LIST.drillFile, async (work, { params: { which } }) => {
      const own = (await newestVersions(work)).filter(({ inUse }) => inUse).map(({ drill }) => drill);
      return { fileName: `drills-${which}.csv`, csv: tableText(drillsToRows(which === 'all' ? [...DRILLS, ...own] : own)) };
    }),
  ],
};
