import type { GoalChoice } from '@dial-gauge/core';
import { checkValue, GOAL_SOURCES, protocolOfId, TASK_NEEDS } from '@dial-gauge/core/names';
import * as z from 'zod';
import { ById, none, route } from './route.js';
import { protocolWay, wayProblem } from './way.js';

/** Where the goal of one measurement comes from; null takes it back. */
export const GoalChange = z
  .strictObject({
    ...protocolWay,
    goal: z
      .strictObject({
        source: z.enum(GOAL_SOURCES),
        value: z.number().min(-999).max(9999).optional(),
        task: z.enum(TASK_NEEDS.map((need) => need.task)).optional(),
        less: z.number().min(0).max(90).optional(),
        note: z.string().trim().max(120).optional(),
      })
      .nullable(),
  })
  .superRefine((change, context) => {
    const refuse = (path: string[], message: string) => context.addIssue({ code: 'custom', path, message });
    const wrong = wayProblem(change);
    if (wrong) return void refuse([wrong.field], wrong.message);
    const { goal } = change;
    const { motion, instruments } = protocolOfId(change.protocol)!;
    if (goal?.source === 'hand') {
      const message =
        goal.value === undefined ? 'is missing; allowed: the goal in the motion’s unit' : checkValue(motion, instruments[0]!, goal.value);
      if (message) refuse(['goal', 'value'], message);
    }
    if (goal?.source === 'task' && !TASK_NEEDS.some((need) => need.motion === motion && need.task === goal.task)) {
      const known = TASK_NEEDS.filter((need) => need.motion === motion).map((need) => need.task);
      refuse(['goal', 'task'], `asks nothing of this motion; allowed: ${known.join(', ') || 'none, no task is known for it'}`);
    }
  });
export type GoalChange = z.infer<typeof GoalChange>;

/** A goal as it was chosen. */
export const GoalView = z.object({ ...protocolWay, goal: z.custom<GoalChoice>((value) => typeof value === 'object' && value !== null) });
export type GoalView = z.infer<typeof GoalView>;

/** What one measurement is to reach. */
export const GOALS = {
  setGoal: route({
    method: 'put',
    path: '/episodes/:id/goal',
    summary: 'Choose the goal of one measurement, or take it back; earlier goals stay on record',
    params: ById,
    body: GoalChange,
    answer: none,
  }),
} as const;
