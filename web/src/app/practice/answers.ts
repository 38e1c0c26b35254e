import type { AnswerOf, ExerciseId, TaskOf } from '@dial-gauge/core';
import type { Draft } from './task-view';

/** What is still missing of an answer, in words; null where it is whole. */
const MISSING: { readonly [K in ExerciseId]: (draft: Draft<K>, task: TaskOf<K>) => string | null } = {
  read: ({ degrees }) => (degrees === undefined ? 'The figure is missing; allowed: degrees, in halves, as 47.5' : null),
  place: ({ axis, still, moving }) => {
    const missing = [axis ? '' : 'axis', still ? '' : 'still arm', moving ? '' : 'moving arm'].filter(Boolean);
    if (missing.length > 0) return `Not laid yet: ${missing.join(', ')}`;
    const isOn = (arm: typeof still): boolean => arm![0] === axis![0] && arm![1] === axis![1];
    return isOn(still) || isOn(moving) ? 'An arm has no length yet; allowed: arms that point away from the axis' : null;
  },
  side: ({ side }) => (side ? null : 'The side is missing; allowed: left or right'),
  name: ({ motion }) => (motion ? null : 'The motion is missing; allowed: one of those named'),
  plane: ({ moved = 0 }) => (moved > 0 ? null : 'The limb has not moved yet; allowed: take it to its end'),
  feel: ({ feel, isUsual, substitution, degrees }) => {
    const missing = [
      feel ? '' : 'the end feel',
      isUsual === undefined ? 'whether it is usual' : '',
      substitution === undefined ? 'the substitution, or none' : '',
      degrees === undefined ? 'the honest reading, in whole degrees' : '',
    ].filter(Boolean);
    return missing.length > 0 ? `Not answered yet: ${missing.join('; ')}` : null;
  },
  examiners: ({ apart, degrees }) => {
    const missing = [
      apart === undefined ? 'whether one stands apart' : '',
      degrees === undefined ? 'the best figure, in degrees' : '',
    ].filter(Boolean);
    return missing.length > 0 ? `Not answered yet: ${missing.join('; ')}` : null;
  },
};

export function missingIn<K extends ExerciseId>(id: K, draft: Draft<K>, task: TaskOf<K>): string | null {
  return MISSING[id](draft, task);
}

/** A draft as it is sent, once nothing is missing in it. */
export function wholeAnswer<K extends ExerciseId>(id: K, draft: Draft<K>, task: TaskOf<K>): AnswerOf<K> {
  if (id === 'read') return { eye: (task as TaskOf<'read'>).eye, ...draft } as unknown as AnswerOf<K>;
  if (id === 'plane') return { by: 0, ...draft } as unknown as AnswerOf<K>;
  return draft as unknown as AnswerOf<K>;
}
