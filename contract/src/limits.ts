import { answeredOf, type CautionWhere, type Limits } from '@dial-gauge/core';
import type { EpisodeView } from './episode-view.js';
import type { VisitView } from './visit-view.js';

/** Everything that limits a person at a visit: the precautions of the episode, and what was answered yes before it. */
export function limitsOf({
  episode,
  visit,
}: {
  readonly episode: Pick<EpisodeView, 'precautions'>;
  readonly visit: Pick<VisitView, 'assessedOn' | 'answers'>;
}): Limits {
  const { answers, assessedOn: on } = visit;
  return {
    precautions: episode.precautions,
    cautions: answers ? answeredOf({ ...answers, where: answers.where as CautionWhere }) : [],
    on,
  };
}
