import { CLINIC } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { Clinic, ExamSetRow } from '../../records/clinic/entities.js';
import { addExamSet, clinicView, removeExamSet, setHand } from '../../use-cases/clinic/clinic.js';

// How long things take is learned from thousands of readings.
const thread = true;

/** How the caller's clinic works. */
export const clinic: Resource = {
  entities: [Clinic, ExamSetRow],
  routes: [
    serve(CLINIC.clinic, (work) => clinicView(work), { thread }),
    serve(
      CLINIC.setHand,
      async (work, { body }) => {
        await setHand(work, body);
        return (after) => clinicView(after);
      },
      { thread },
    ),
    serve(
      CLINIC.addExamSet,
      async (work, { body }) => {
        await addExamSet(work, body);
        return (after) => clinicView(after);
      },
      { thread },
    ),
    serve(
      CLINIC.removeExamSet,
      async (work, { params }) => {
        await removeExamSet(work, params.id);
        return (after) => clinicView(after);
      },
      { thread },
    ),
  ],
};
