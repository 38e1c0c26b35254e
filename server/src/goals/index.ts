import { GOALS } from '@dial-gauge/contract';
import { serve, type Resource } from '../platform/resource.js';
import { GoalRow } from './entities.js';
import { setGoal } from './store.js';

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
