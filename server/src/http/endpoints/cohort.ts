import { COHORT } from '@dial-gauge/contract';
import { normsView } from '../../read-models/clinic-criteria/criteria.js';
import { serve, stream, type Resource } from '../endpoint.js';
import { CohortOutcome, CohortPerson, CohortRun, CohortTold } from '../../records/cohort/entities.js';
import { cohortFile, cohortView, countAnew, makeNormSet } from '../../use-cases/cohort/cohort.js';

/** The clinic's own people as groups. */
export const cohort: Resource = {
  entities: [CohortRun, CohortPerson, CohortOutcome, CohortTold],
  routes: [
    serve(COHORT.cohort, (work) => cohortView(work)),
    serve(COHORT.countAnew, async (work, { body }) => {
      await countAnew(work, body.id);
      return (after) => cohortView(after);
    }),
    serve(COHORT.makeNormSet, async (work) => {
      await makeNormSet(work);
      return (after) => normsView(after);
    }),
    stream(COHORT.cohortFile, (work) => cohortFile(work)),
  ],
};
