import { GOALS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { GoalRow } from '../../records/goals/entities.js';
import { setGoal } from '../../use-cases/goals/goals.js';

/** What one measurement is to reach. */
export const goals: Resource = {
  entities: [GoalRow],
  routes: [
    serve(GOALS.setGoal, async (work, { params, body }) => {
      await setGoal(work, params.id, body);
      return {};
    }),
  ],
};
