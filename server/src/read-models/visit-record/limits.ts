import { limitsOf, type VisitView } from '@dial-gauge/contract';
import type { Limits } from '@dial-gauge/core';
import type { Episode } from '../../records/episodes/entities.js';
import type { Visit } from '../../records/visits/entities.js';

/** The answers of a visit as they are kept, as everybody is told them. */
export const answersOf = (cautions: Visit['cautions']): VisitView['answers'] =>
  cautions && { yes: cautions.yes, where: cautions.where ?? {} };

/** Everything that limits a person at a visit: the precautions of the episode, and what was answered yes before it. */
export function limitsAt(
  { precautions }: Pick<Episode, 'precautions'>,
  { cautions, assessedOn }: Pick<Visit, 'cautions' | 'assessedOn'>,
): Limits {
  return limitsOf({ episode: { precautions: precautions ?? [] }, visit: { assessedOn, answers: answersOf(cautions) } });
}

/** The same on a later day: the answers of the latest visit hold until they are asked again. */
export const limitsToday = (
  episode: Pick<Episode, 'precautions'>,
  visit: Parameters<typeof limitsAt>[1] | null,
  today: string,
): Limits => ({
  ...limitsAt(episode, visit ?? { cautions: null, assessedOn: today }),
  on: today,
});
