import { EPISODES } from '@dial-gauge/contract';
import { serve, type Resource } from '../platform/resource.js';
import { Episode, EpisodeWord } from './entities.js';
import { setIntake } from './store.js';

/** What people are in care for. */
export const episodes: Resource = {
  entities: [Episode, EpisodeWord],
  routes: [serve(EPISODES.setIntake, (work, { params, body }) => setIntake(work, params.id, body))],
};
