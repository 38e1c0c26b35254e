import { PROGRESS } from '@dial-gauge/contract';
import { serve, type Resource } from '../platform/resource.js';
import { progressView } from './view.js';

/** What changed over the visits of an episode. */
export const progress: Resource = {
  entities: [],
  routes: [serve(PROGRESS.progress, (work, { params }) => progressView(work, params.id), { thread: true })],
};
