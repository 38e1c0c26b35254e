import type { ItemSeries, ProgressSeries } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { EpisodeView } from './episode-view.js';
import { GoalView } from './goals.js';
import { OwnNormSet } from './norms.js';
import { PatientView } from './patients.js';
import { ById, nothing, route } from './route.js';
import { VisitView } from './visit-view.js';

export const SeriesShape = z.looseObject({
  key: z.string(),
  motion: z.string(),
  side: z.string(),
  mode: z.string(),
  protocol: z.string(),
  points: z.array(z.looseObject({ on: z.string(), value: z.number(), sem: z.number(), error: z.number() })),
});

const ItemSeriesShape = z.looseObject({
  key: z.string(),
  screen: z.string(),
  item: z.string(),
  name: z.string(),
  side: z.string(),
  points: z.array(
    z.looseObject({ visit: z.int(), on: z.string(), quality: z.string(), value: z.number().nullable(), pain: z.number().nullable() }),
  ),
});

export const ProgressView = z.object({
  visit: VisitView,
  normSets: z.array(z.string()),
  ownNormSets: z.array(OwnNormSet),
  patient: PatientView,
  episode: EpisodeView,
  /** Up to and including this visit, oldest first. */
  visits: z.array(VisitView),
  series: z.array(described<ProgressSeries>(SeriesShape)),
  /** Items of screens, each by what held on its day. */
  screens: z.array(described<ItemSeries>(ItemSeriesShape)),
  /** Goals that were chosen; the others follow from the sides. */
  goals: z.array(GoalView),
});
export type ProgressView = z.infer<typeof ProgressView>;

/** What changed over the visits of an episode. */
export const PROGRESS = {
  progress: route({
    method: 'get',
    path: '/visits/:id/progress',
    summary: 'Every motion and every item of a screen over the visits of an episode, up to this visit',
    params: ById,
    body: nothing,
    answer: ProgressView,
  }),
} as const;
