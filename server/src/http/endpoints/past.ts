import { PAST } from '@dial-gauge/contract';
import { sheetRows } from '@dial-gauge/files';
import { FairQueue } from '../../shared/fair-queue.js';
import { refused } from '../../shared/problems.js';
import { serve, type Resource } from '../endpoint.js';
import { PastBatchRow } from '../../records/past/entities.js';
import { bringIn, undoPast } from '../../use-cases/importing/past.js';
import { pastView } from '../../read-models/past/past.js';

/** Processes that read a file, at once: the others wait for their turn. */
const readers = new FairQueue(2);
const thread = true;

/** Readings of before, brought in from a list and undone as a whole. */
export const past: Resource = {
  entities: [PastBatchRow],
  routes: [
    serve(
      PAST.readSheet,
      async ({ caller }, { body: { fileName, base64 } }) => {
        const bytes = new Uint8Array(Buffer.from(base64, 'base64'));
        const read = await readers.run({ kind: 'person', who: caller.userId }, () => sheetRows(bytes));
        if (!read.ok) throw refused(fileName, read.message, 'The file was not read.');
        return { rows: read.rows.map((row) => row.map((cell) => cell.slice(0, 500))) };
      },
      // It waits for a process that reads, and keeps neither thread nor connection meanwhile.
      { unit: 'pooled' },
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
