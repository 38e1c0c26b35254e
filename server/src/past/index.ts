import { PAST } from '@dial-gauge/contract';
import { sheetRows } from '@dial-gauge/files';
import { refused } from '../platform/problems.js';
import { serve, type Resource } from '../platform/resource.js';
import { PastBatchRow } from './entities.js';
import { bringIn, pastView, undoPast } from './store.js';

const MOST_ROWS = 5_001;
const MOST_COLUMNS = 60;
const thread = true;

/** Readings of before, brought in from a list and undone as a whole. */
export const past: Resource = {
  entities: [PastBatchRow],
  routes: [
    serve(
      PAST.readSheet,
      async (_work, { body: { fileName, base64 } }) => {
        const read = await sheetRows(new Uint8Array(Buffer.from(base64, 'base64')));
        if (!read.ok) throw refused(fileName, read.message, 'The file was not read.');
        const { rows } = read;
        const widest = Math.max(...rows.map((row) => row.length));
        if (rows.length > MOST_ROWS || widest > MOST_COLUMNS)
          throw refused(
            fileName,
            `has ${rows.length} rows and ${widest} columns; allowed: at most ${MOST_ROWS} and ${MOST_COLUMNS}`,
            'The file was not read.',
          );
        return { rows: rows.map((row) => row.map((cell) => cell.slice(0, 500))) };
      },
      // It waits for a process that reads, and keeps no connection meanwhile.
      { thread, unit: 'loose' },
    ),
    serve(PAST.past, (work, { params }) => pastView(work, params.id), { thread }),
    serve(
      PAST.bringIn,
      async (work, { params, body }) => {
        await bringIn(work, params.id, body);
        return (after) => pastView(after, params.id);
      },
      { thread },
    ),
    serve(PAST.undoPast, async (work, { params }) => {
      const episodeId = await undoPast(work, params.id);
      return (after) => pastView(after, episodeId);
    }),
  ],
};
