import { RELIABILITY } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { OwnErrorRow, StudyReadingRow, StudyRow } from '../../records/reliability/entities.js';
import { adoptError, dropError, readStudy, startStudy, studies, studyView } from '../../use-cases/training/reliability.js';

/** Studies of the clinic's own measuring error, and the errors adopted from them. */
export const reliability: Resource = {
  entities: [StudyRow, StudyReadingRow, OwnErrorRow],
  routes: [
    serve(RELIABILITY.studies, (work) => studies(work)),
    serve(RELIABILITY.startStudy, async (work, { body }) => {
      await startStudy(work, body);
      return (after) => studyView(after, body.id);
    }),
    serve(RELIABILITY.readStudy, async (work, { params, body }) => {
      await readStudy(work, params.id, body);
      return (after) => studyView(after, params.id);
    }),
    serve(RELIABILITY.adoptError, async (work, { params, body }) => {
      await adoptError(work, params.id, body);
      return (after) => studyView(after, params.id);
    }),
    serve(RELIABILITY.dropError, async (work, { params }) => {
      await dropError(work, params.id);
      return (after) => studyView(after, params.id);
    }),
  ],
};
