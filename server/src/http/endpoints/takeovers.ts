import { TAKEOVERS } from '@dial-gauge/contract';
import { patientRecord } from '../../read-models/patient-record/patient-record.js';
import { serve, type Resource } from '../endpoint.js';
import { takeOver } from '../../use-cases/importing/takeovers.js';

/** Visits that come from elsewhere, in an open format. */
export const takeovers: Resource = {
  entities: [],
  routes: [
    serve(
      TAKEOVERS.takeOver,
      async (work, { body }) => {
        await takeOver(work, body);
        return (after) => patientRecord(after, body.ids.patient);
      },
      // A bundle of a long exam takes longer to read than others should wait.
      { thread: true },
    ),
  ],
};
