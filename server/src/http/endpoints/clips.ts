import { CLIPS } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { ClipReviewRow, StillRow } from '../../records/clips/entities.js';
import { attachStill, clipFile, clipPage, clipsView, keepReview, removeStill, stillFile } from '../../use-cases/clips/clips.js';

// Pictures are opened and pages written: that takes longer than others should wait.
const thread = true;

/** Clips that somebody sent, looked over, and stills attached on purpose. */
export const clips: Resource = {
  entities: [ClipReviewRow, StillRow],
  routes: [
    serve(CLIPS.clips, (work, { params }) => clipsView(work, params.id)),
    serve(CLIPS.keepReview, async (work, { params, body }) => {
      await keepReview(work, params.id, body);
      return (after) => clipsView(after, params.id);
    }),
    serve(CLIPS.clipPage, (work, { params, query }) => clipPage(work, params.id, query), { thread }),
    serve(CLIPS.clipFile, (work, { params, query }) => clipFile(work, params.id, query), { thread }),
    serve(
      CLIPS.attachStill,
      async (work, { params, body }) => {
        await attachStill(work, params.id, body);
        return (after) => clipsView(after, params.id);
      },
      { thread },
    ),
    serve(CLIPS.still, (work, { params }) => stillFile(work, params.id)),
    serve(CLIPS.removeStill, async (work, { params }) => {
      const visitId = await removeStill(work, params.id);
      return (after) => clipsView(after, visitId);
    }),
  ],
};
