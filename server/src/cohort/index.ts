import { COHORT } from '@dial-gauge/contract';
import { normsView } from '../norms/read.js';
import { serve, stream, type Resource } from '../platform/resource.js';
import { CohortOutcome, CohortPerson, CohortRun, CohortTold } from './entities.js';
import { cohortFile, cohortView, countAnew, makeNormSet } from './store.js';

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
