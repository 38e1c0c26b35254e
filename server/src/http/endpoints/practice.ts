import { PRACTICE } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { studyView } from '../../use-cases/training/reliability.js';
import { PracticeAnswerRow, PracticeRoundRow } from '../../records/training/entities.js';
import { answerTask, practiceView, roundView, startRound, studyOfRound } from '../../use-cases/training/practice.js';

/** Practice: rounds of tasks with a hidden truth, one's own answers, and how a class lies apart. */
export const practice: Resource = {
  entities: [PracticeRoundRow, PracticeAnswerRow],
  routes: [
    // Thousands of answers are scored again: off the way of everybody else.
    serve(PRACTICE.practice, (work) => practiceView(work), { thread: true }),
    serve(
      PRACTICE.startRound,
      async (work, { body }) => {
        await startRound(work, body);
        return (after) => roundView(after, body.id);
      },
      { thread: true },
    ),
    serve(PRACTICE.round, (work, { params: { id } }) => roundView(work, id)),
    serve(PRACTICE.answerTask, async (work, { params: { id }, body }) => {
      await answerTask(work, id, body);
      return (after) => roundView(after, id);
    }),
    serve(PRACTICE.studyOfRound, async (work, { params: { id }, body }) => {
      await studyOfRound(work, id, body);
      return (after) => studyView(after, body.id);
    }),
  ],
};
