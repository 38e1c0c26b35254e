import { RETESTS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { RetestReadingRow, RetestRoundRow, RetestRow } from '../../records/retests/entities.js';
import { finishRetest, noteDrill, readMarker, startRetest } from '../../use-cases/retesting/retests.js';
import { retestsView } from '../../read-models/retests/retests.js';

const thread = true;
const thenView = (visitId: string) => (after: UnitOfWork) => retestsView(after, visitId);

/** Markers read before and after drills within one visit. */
export const retests: Resource = {
  entities: [RetestRow, RetestRoundRow, RetestReadingRow],
  routes: [
    serve(RETESTS.retests, (work, { params }) => retestsView(work, params.id), { thread }),
    serve(RETESTS.startRetest, async (work, { params, body }) => thenView(await startRetest(work, params.id, body)), {
      thread,
      late: { name: 'startRetest', words: (_work, { body }) => `a retest of ${body.markers.map((marker) => marker.protocol).join(', ')}` },
    }),
    serve(RETESTS.noteDrill, async (work, { params, body }) => thenView(await noteDrill(work, params.id, body)), {
      thread,
      late: { name: 'noteDrill', words: (_work, { body }) => `retest, round ${body.number}: ${body.drill}` },
    }),
    serve(RETESTS.readMarker, async (work, { params, body }) => thenView(await readMarker(work, params.id, body)), {
      thread,
      late: { name: 'readMarker', words: (_work, { body }) => `retest, round ${body.round}, marker ${body.marker + 1}: ${body.value}` },
    }),
    serve(RETESTS.finishRetest, async (work, { params }) => thenView(await finishRetest(work, params.id)), { thread }),
  ],
};
