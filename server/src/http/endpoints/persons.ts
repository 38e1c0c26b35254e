import { PERSONS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { ErasureRow } from '../../records/erasures/entities.js';
import { erase, erasureView } from '../../use-cases/erasing/erasing.js';
import { wholeRecord } from '../../use-cases/erasing/whole-record.js';

/** All that is kept of one person: handed over, or erased. */
export const persons: Resource = {
  entities: [ErasureRow],
  routes: [
    // Gathering and drawing take longer than others should wait.
    serve(PERSONS.wholeRecord, (work, { params, query }) => wholeRecord(work, params.id, query.locale), { thread: true }),
    serve(PERSONS.erasure, (work, { params }, { services }) => erasureView(work, params.id, services.keepYears)),
    serve(PERSONS.erase, (work, { params, body }, { services }) => erase(work, params.id, body, services.keepYears)),
  ],
};
