import { STORIES } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { storyView } from '../../read-models/story/story.js';

/** Where episodes of care stand, and what their story is. */
export const stories: Resource = {
  entities: [],
  routes: [serve(STORIES.story, (work, { params }) => storyView(work, params.id), { thread: true })],
};
