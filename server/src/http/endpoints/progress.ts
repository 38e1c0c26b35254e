import { PROGRESS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { progressView } from '../../read-models/progress/progress.js';

/** What changed over the visits of an episode. */
export const progress: Resource = {
  entities: [],
  routes: [serve(PROGRESS.progress, (work, { params }) => progressView(work, params.id), { thread: true })],
};
