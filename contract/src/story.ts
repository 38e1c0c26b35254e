import type { Finding, ProgressSeries, QueueStanding } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { EpisodeView } from './episode-view.js';
import { AnyDay } from './ids.js';
import { FindingShape } from './judgement-shape.js';
import { StandingShape } from './patients.js';
import { SeriesShape } from './progress.js';
import { ById, nothing, route } from './route.js';
import { VisitView } from './visit-view.js';

/** How much of an episode its story tells. */
export const STORY_MOST = { findings: 4, series: 4 } as const;

/** A finding, and from which visit on it was there every time it was measured; null where nothing tells. */
const ToldFinding = z.object({
  finding: described<Finding>(FindingShape),
  since: z.object({ on: AnyDay, fromFirst: z.boolean() }).nullable(),
});

/** An episode of care at a glance: what is short, since when, what changed, what is being done, when it is looked at again. */
export const StoryView = z.object({
  episode: EpisodeView,
  /** The latest visit that holds readings; null: nothing is measured yet. */
  visit: VisitView.nullable(),
  /** Of that visit, worst first; and how many there are in all. */
  findings: z.array(ToldFinding),
  findingsInAll: z.int(),
  /** What nothing is said of in that visit. */
  notJudged: z.int(),
  /** What is measured again and again: those with a goal first, and how many there are in all. */
  series: z.array(described<ProgressSeries>(SeriesShape)),
  seriesInAll: z.int(),
  program: z.object({ drills: z.array(z.string()), by: z.string(), on: AnyDay, recheckOn: AnyDay }).nullable(),
  /** Days logged on the person's own page in the last 14 days; null: they have none. */
  loggedDays: z.int().nullable(),
  standing: described<QueueStanding>(StandingShape).nullable(),
});
export type StoryView = z.infer<typeof StoryView>;

/** The story of an episode of care. */
export const STORIES = {
  story: route({
    method: 'get',
    path: '/episodes/:id/story',
    keep: true,
    summary: 'An episode of care at a glance: what is short, since when, what changed, the programme, the next date',
    params: ById,
    body: nothing,
    answer: StoryView,
  }),
} as const;
