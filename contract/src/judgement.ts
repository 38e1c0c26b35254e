import type { Judgement } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { EpisodeView } from './episode-view.js';
import { AnyDay, Id } from './ids.js';
import { JudgementShape } from './judgement-shape.js';
import { PatientView } from './patients.js';
import { OddRecord } from './problem.js';
import { MeasurementView } from './readings.js';
import { ById, nothing, route } from './route.js';
import { LateDismissal, NewAmendment, NewSignature, SignedCopy, SigningView, SummaryChange } from './signing.js';
import { VisitView } from './visit-view.js';

/** The core's result object as it passes over HTTP, and where the visit stands between open and signed. */
export const JudgementView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  previousOn: AnyDay.nullable(),
  /** What stands beside the numbers: not done and why, a note, a limit that was passed. */
  aside: z.array(MeasurementView),
  /** Live while the visit is open or being amended; otherwise the copy that was signed. */
  judgement: described<Judgement>(JudgementShape),
  /** Names these findings, and when they were made: whoever signs says which ones were seen. */
  seen: z.object({ revision: z.string(), at: z.iso.datetime() }),
  /** The summary as somebody wrote it; null: as drafted. */
  summary: z.string().nullable(),
  signing: SigningView,
  odd: z.array(OddRecord),
});
export type JudgementView = z.infer<typeof JudgementView>;

/** Judging a visit, summing it up, signing and amending it. */
export const JUDGEMENT = {
  judgement: route({
    method: 'get',
    path: '/visits/:id/judgement',
    summary: 'Findings of a visit, with evidence',
    params: ById,
    body: nothing,
    answer: JudgementView,
  }),
  setSummary: route({
    method: 'put',
    path: '/visits/:id/summary',
    summary: 'Write the summary of a visit; an empty one goes back to the draft',
    params: ById,
    body: SummaryChange,
    answer: JudgementView,
  }),
  sign: route({
    method: 'post',
    path: '/visits/:id/signatures',
    summary: 'Sign a visit; the findings are kept as they stand now',
    params: ById,
    body: NewSignature,
    answer: JudgementView,
  }),
  amend: route({
    method: 'post',
    path: '/visits/:id/amendment',
    summary: 'Open a signed visit to be amended, with the reason',
    params: ById,
    body: NewAmendment,
    answer: JudgementView,
  }),
  countersign: route({
    method: 'post',
    path: '/signatures/:id/countersignatures',
    summary: 'Countersign the signature that stands, as the lead',
    params: ById,
    body: z.strictObject({ id: Id }),
    answer: JudgementView,
  }),
  signedCopy: route({
    method: 'get',
    path: '/signatures/:id',
    summary: 'What was signed, as it stood then',
    params: ById,
    body: nothing,
    answer: SignedCopy,
  }),
  takeLate: route({
    method: 'post',
    path: '/late-entries/:id/taking',
    summary: 'Take what arrived after a signature into the visit, which is being amended',
    params: ById,
    body: z.strictObject({}),
    answer: JudgementView,
  }),
  dismissLate: route({
    method: 'post',
    path: '/late-entries/:id/dismissal',
    summary: 'Leave what arrived after a signature out, with the reason; it stays on record',
    params: ById,
    body: LateDismissal,
    answer: JudgementView,
  }),
} as const;
