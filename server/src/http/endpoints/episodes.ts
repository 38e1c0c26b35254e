import { EPISODES } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { Episode, EpisodeWord } from '../../records/episodes/entities.js';
import { setIntake } from '../../use-cases/patients/episodes.js';

/** What people are in care for. */
export const episodes: Resource = {
  entities: [Episode, EpisodeWord],
  routes: [serve(EPISODES.setIntake, (work, { params, body }) => setIntake(work, params.id, body))],
};
