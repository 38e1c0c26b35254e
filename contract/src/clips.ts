import { CLIP_TELLS, FAULT_IDS, MOST_MARKS, SURENESS, VIEWS, type FaultId, type Report } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { Id, Side } from './ids.js';
import { FileView, OnPaper, ReportShape } from './reports.js';
import { ById, nothing, route } from './route.js';

const Moment = z.iso.datetime();
/** Of the width or the height of the picture. */
const Share = z.number().min(0).max(1);
const Spot = z.tuple([Share, Share]);

export const ClipMarkBody = z.strictObject({
  id: Id,
  t: z.number().min(0).max(86_400),
  tells: z.enum(CLIP_TELLS),
  side: Side,
  shows: z
    .strictObject({
      screen: z.string().min(1).max(40),
      item: z.string().min(1).max(80),
      fault: z.enum(FAULT_IDS as [FaultId, ...FaultId[]]).nullable(),
    })
    .nullable(),
  words: z.string().trim().max(300),
  sure: z.enum(SURENESS),
  lines: z.array(z.tuple([Spot, Spot])).max(12),
  angles: z
    .array(z.strictObject({ label: z.string().min(1).max(60), degrees: z.number().min(-360).max(360), error: z.number().min(0).max(180) }))
    .max(8),
  still: Id.nullable(),
});
export type ClipMarkBody = z.infer<typeof ClipMarkBody>;

/** A clip looked over, as it stands: a change is another version, and the one before stays on record. */
export const NewClipReview = z.strictObject({
  id: Id,
  /** The same over all versions. */
  clip: Id,
  /** The first is 1; a change is one more than the last. */
  version: z.int().min(1).max(10_000),
  file: z.string().trim().min(1).max(120),
  view: z.enum(VIEWS),
  marks: z.array(ClipMarkBody).max(MOST_MARKS),
  /** True: the sender sees it on their own page. */
  isShared: z.boolean(),
});
export type NewClipReview = z.infer<typeof NewClipReview>;

/** Largest picture that is taken, in bytes. */
export const LARGEST_STILL = 6_000_000;

/** A still that is attached on purpose. Whatever it came as, a plain picture is kept of it: no place, no device, nothing that runs. */
export const NewStill = z.strictObject({
  id: Id,
  words: z.string().trim().min(1).max(120),
  base64: z
    .base64()
    .min(4)
    .max(Math.ceil(LARGEST_STILL / 3) * 4),
});
export type NewStill = z.infer<typeof NewStill>;

export const StillView = z.object({
  id: Id,
  words: z.string(),
  width: z.int(),
  height: z.int(),
  by: z.string(),
  at: Moment,
});
export type StillView = z.infer<typeof StillView>;

export const ClipReviewView = z.object({
  clip: Id,
  version: z.int(),
  file: z.string(),
  view: z.enum(VIEWS),
  marks: z.array(ClipMarkBody.extend({ words: z.string() })),
  isShared: z.boolean(),
  by: z.string(),
  at: Moment,
});
export type ClipReviewView = z.infer<typeof ClipReviewView>;

/** Clips of a visit as they were looked over last, and the stills that are attached to it. */
export const ClipsView = z.object({ reviews: z.array(ClipReviewView), stills: z.array(StillView) });
export type ClipsView = z.infer<typeof ClipsView>;

export const ClipPageView = z.object({
  report: described<Report>(ReportShape),
  pages: z.int(),
  breaks: z.array(z.object({ page: z.int(), block: z.int(), item: z.int() })),
  isShared: z.boolean(),
});
export type ClipPageView = z.infer<typeof ClipPageView>;

/** Clips that somebody sent, looked over, and stills attached on purpose. */
export const CLIPS = {
  clips: route({
    method: 'get',
    path: '/visits/:id/clips',
    summary: 'Clips of a visit as they were looked over, and its stills',
    params: ById,
    body: nothing,
    answer: ClipsView,
  }),
  keepReview: route({
    method: 'post',
    path: '/visits/:id/clips',
    summary: 'Keep what was marked in a clip, as another version; the one before stays on record',
    params: ById,
    body: NewClipReview,
    answer: ClipsView,
  }),
  clipPage: route({
    method: 'get',
    path: '/clips/:id/page',
    summary: 'The page for whoever sent the clip',
    params: ById,
    query: OnPaper,
    body: nothing,
    answer: ClipPageView,
  }),
  clipFile: route({
    method: 'get',
    path: '/clips/:id/pdf',
    summary: 'The same page as PDF, A4 or Letter',
    params: ById,
    query: OnPaper,
    body: nothing,
    answer: FileView,
  }),
  attachStill: route({
    method: 'post',
    path: '/visits/:id/stills',
    summary: 'Attach a still to a visit: judged by what it holds, stripped of place and device',
    largest: Math.ceil(LARGEST_STILL / 3) * 4 + 2_000,
    params: ById,
    body: NewStill,
    answer: ClipsView,
  }),
  still: route({
    method: 'get',
    path: '/stills/:id',
    summary: 'A still, for the clinic it belongs to',
    params: ById,
    body: nothing,
    answer: FileView,
  }),
  removeStill: route({
    method: 'post',
    path: '/stills/:id/removal',
    summary: 'Take a still away: the picture is gone, that it was there stays on record',
    params: ById,
    body: z.strictObject({}),
    answer: ClipsView,
  }),
} as const;
