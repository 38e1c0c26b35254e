import { operationOf, type ProgressView } from '@dial-gauge/contract';
import { checkedSet, findNormSet, progressOf, seriesOfItems } from '@dial-gauge/core';
import { goalsByKey, goalsOf } from '../goals/goals.js';
import { pastSessions } from '../past/past.js';
import type { UnitOfWork } from '../../database/unit-of-work.js';
import { screenDays } from '../screens/screens.js';
import { Visit } from '../../records/visits/entities.js';
import { history } from '../visit-record/history.js';

export async function progressView(work: UnitOfWork, visitId: string): Promise<ProgressView> {
  const row = await work.one(Visit, visitId, 'visit');
  const [{ sessions, ownErrors, valueChecks, ...rest }, goals, before] = await Promise.all([
    history(work, row),
    goalsOf(work, row.episodeId),
    pastSessions(work, row.episodeId, row.assessedOn),
  ]);
  const { patient, episode, normSets, ownNormSets } = rest;
  const series = progressOf([...before, ...sessions], {
    own: ownErrors,
    checks: valueChecks,
    person: patient,
    normOrder: normSets.flatMap((id) => {
      const set = findNormSet(id, ownNormSets);
      return set ? [checkedSet(set, valueChecks)] : [];
    }),
    involvedSide: episode.involvedSide ?? undefined,
    operation: operationOf(episode),
    goals: goalsByKey(goals),
  });
  const screens = seriesOfItems(await screenDays(work, rest.visits), rest.visits.length - 1, {
    own: ownErrors,
    procedure: operationOf(episode)?.id,
    checks: valueChecks,
  });
  return { ...rest, goals, series, screens };
}
