import type { NewPracticeRound } from '@dial-gauge/contract';
import type { ExerciseId } from '@dial-gauge/core';

/** A round that is to be started: for oneself, or under a name for the class. */
export const newRound = (exercise: ExerciseId, forClass: string | null = null): NewPracticeRound => ({
  id: crypto.randomUUID(),
  exercise,
  isShared: forClass !== null,
  name: forClass ?? '',
  seed: Math.floor(Math.random() * 2_147_483_647),
});
