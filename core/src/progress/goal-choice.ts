/** What a goal can be taken from. */
export const GOAL_SOURCES = ['other-side', 'norm', 'task', 'hand'] as const;
export type GoalSource = (typeof GOAL_SOURCES)[number];

/** Where a goal is to come from. */
export interface GoalChoice {
  readonly source: GoalSource;
  /** Set by hand: the goal itself, in the motion's unit. */
  readonly value?: number;
  /** From a task: its name. */
  readonly task?: string;
  /** From the other side: how much less is agreed on, as after a joint replacement. */
  readonly less?: number;
  /** Who it was agreed with. */
  readonly note?: string;
}
