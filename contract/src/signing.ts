import type { Judgement } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { AnyDay, Id } from './ids.js';
import { JudgementShape } from './judgement-shape.js';

const Moment = z.iso.datetime();
const Summary = z.string().trim().max(4000);

/** The summary as it is being written; empty text goes back to the drafted one. */
export const SummaryChange = z.strictObject({
  summary: Summary,
  /** What stood there when it was written; where it says something else by now, nothing is overwritten. */
  was: z.string().max(4000).nullable(),
});
export type SummaryChange = z.infer<typeof SummaryChange>;

/** Signing a visit. `id` is made by the client: sending it twice signs once. */
export const NewSignature = z.strictObject({
  id: Id,
  summary: Summary.min(1),
  /** The findings as they were read: one signs what one has seen. */
  seen: z.strictObject({ revision: z.string().max(80), at: Moment }),
});
export type NewSignature = z.infer<typeof NewSignature>;

/** Why a signed visit is to be changed. */
export const NewAmendment = z.strictObject({ why: z.string().trim().min(3).max(300) });
export type NewAmendment = z.infer<typeof NewAmendment>;

/** One signature: who, when, and why again, where it was amended. */
export const SignatureView = z.object({
  id: Id,
  number: z.int(),
  at: Moment,
  by: z.string(),
  byMe: z.boolean(),
  summary: z.string(),
  /** Why the visit was amended before this signature; empty for the first. */
  why: z.string(),
  /** The lead, who has read it and stands by it. */
  countersigned: z.object({ by: z.string(), at: Moment }).nullable(),
});
export type SignatureView = z.infer<typeof SignatureView>;

/** Something that was entered before a signature and arrived after it: kept for review, not mixed in. */
export const LateEntry = z.object({
  id: Id,
  /** "left hip flexion, passive: 98°" */
  what: z.string(),
  by: z.string(),
  enteredAt: Moment,
  receivedAt: Moment,
});
export type LateEntry = z.infer<typeof LateEntry>;

/** What is answered, with status 202, to something that came too late for a signed visit. */
export const KeptForReview = z.object({ keptForReview: Id, detail: z.string() });
export type KeptForReview = z.infer<typeof KeptForReview>;

export const LateDismissal = z.strictObject({ why: z.string().trim().min(3).max(300) });
export type LateDismissal = z.infer<typeof LateDismissal>;

/** Where a visit stands between open and signed. */
export const SigningView = z.object({
  /** Oldest first; the last one counts. */
  signatures: z.array(SignatureView),
  /** Why the caller does not sign it; null where they do. */
  notYours: z.string().nullable(),
  /** Set while a signed visit is being amended. */
  amending: z.object({ why: z.string(), by: z.string(), at: Moment }).nullable(),
  /** What was changed after the last signature, oldest first. */
  changes: z.array(z.object({ at: Moment, by: z.string(), what: z.string() })),
  /** What arrived after the signature and waits to be looked at. */
  late: z.array(LateEntry),
});
export type SigningView = z.infer<typeof SigningView>;

/** What was signed: the findings as they stood then, whatever the rules say now. */
export const SignedCopy = z.object({
  signature: SignatureView,
  assessedOn: AnyDay,
  patient: z.string(),
  judgement: described<Judgement>(JudgementShape),
});
export type SignedCopy = z.infer<typeof SignedCopy>;
