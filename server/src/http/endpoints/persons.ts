import { PERSONS } from '@dial-gauge/contract';
import { serve, type Http, type Resource } from '../endpoint.js';
import { ErasureRow } from '../../records/erasures/entities.js';
import { erase, erasureView } from '../../use-cases/erasing/erasing.js';
import { wholeRecord } from '../../use-cases/erasing/whole-record.js';

const keepYearsAt = ({ request }: Http): number => request.app.locals['keepYears'] as number;

/** All that is kept of one person: handed over, or erased. */
export const persons: Resource = {
  entities: [ErasureRow],
  routes: [
    // Gathering and drawing take longer than others should wait.
    serve(PERSONS.wholeRecord, (work, { params, query }) => wholeRecord(work, params.id, query.locale), { thread: true }),
    serve(PERSONS.erasure, (work, { params }, http) => erasureView(work, params.id, keepYearsAt(http))),
    serve(PERSONS.erase, (work, { params, body }, http) => erase(work, params.id, body, keepYearsAt(http))),
  ],
};
