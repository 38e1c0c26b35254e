import { VISITS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { Visit } from '../../records/visits/entities.js';
import { visitRecord } from '../../read-models/visit-record/record.js';
import { setCautions, setPlan, startVisit } from '../../use-cases/visits/visits.js';

/** Visits, and how they are prepared. */
export const visits: Resource = {
  entities: [Visit],
  routes: [
    serve(VISITS.startVisit, async (work, { params, body }) => {
      await startVisit(work, params.id, body);
      return (after) => visitRecord(after, body.id);
    }),
    serve(VISITS.visit, (work, { params }) => visitRecord(work, params.id)),
    serve(VISITS.setCautions, async (work, { params, body }) => {
      await setCautions(work, params.id, body);
      return (after) => visitRecord(after, params.id);
    }),
    serve(VISITS.setPlan, async (work, { params, body }) => {
      await setPlan(work, params.id, body);
      return (after) => visitRecord(after, params.id);
    }),
  ],
};
