import { operationOf, PROGRESS, type ProgressView } from '@dial-gauge/contract';
import { findNormSet, progressOf } from '@dial-gauge/core';
import { goalsByKey, goalsOf } from '../goals/store.js';
import { serve, type Resource } from '../platform/resource.js';
import type { UnitOfWork } from '../platform/unit-of-work.js';
import { Visit } from '../visits/entities.js';
import { history } from '../visits/history.js';

/** What changed over the visits of an episode. */
export const progress: Resource = {
  entities: [],
  routes: [serve(PROGRESS.progress, (work, { params }) => progressView(work, params.id), { thread: true })],
};

async function progressView(work: UnitOfWork, visitId: string): Promise<ProgressView> {
  const row = await work.one(Visit, visitId, 'visit');
  const [{ sessions, ownErrors, ...rest }, goals] = await Promise.all([history(work, row), goalsOf(work, row.episodeId)]);
  const { patient, episode, normSets, ownNormSets } = rest;
  const series = progressOf(sessions, {
    own: ownErrors,
    person: patient,
    normOrder: normSets.flatMap((id) => findNormSet(id, ownNormSets) ?? []),
    involvedSide: episode.involvedSide ?? undefined,
    operation: operationOf(episode),
    goals: goalsByKey(goals),
  });
  return { ...rest, goals, series };
}
