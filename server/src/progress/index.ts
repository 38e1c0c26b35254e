import { operationOf, PROGRESS, type ProgressView } from '@dial-gauge/contract';
import { findNormSet, progressOf } from '@dial-gauge/core';
import { goalsByKey, goalsOf } from '../goals/store.js';
import { serve, type Resource } from '../platform/resource.js';
import type { UnitOfWork } from '../platform/unit-of-work.js';
import { history } from '../visits/record.js';

/** What changed over the visits of an episode. */
export const progress: Resource = {
  entities: [],
  routes: [serve(PROGRESS.progress, (work, { params }) => progressView(work, params.id), { thread: true })],
};

async function progressView(work: UnitOfWork, visitId: string): Promise<ProgressView> {
  const { sessions, ownErrors, ...rest } = await history(work, visitId);
  const { patient, episode, normSet, ownNormSet } = rest;
  const goals = await goalsOf(work, episode.id);
  const series = progressOf(sessions, {
    own: ownErrors,
    person: patient,
    normSet: findNormSet(normSet, ownNormSet ? [ownNormSet] : []),
    involvedSide: episode.involvedSide ?? undefined,
    operation: operationOf(episode),
    goals: goalsByKey(goals),
  });
  return { ...rest, goals, series };
}
