import type { Judgement } from '@dial-gauge/core';
import * as z from 'zod';
import { Day, Id } from './ids.js';

const moment = z.iso.datetime();
const Summary = z.string().trim().max(4000);

/** The summary as it is being written; empty text goes back to the drafted one. */
export const SummaryChange = z.strictObject({ summary: Summary });
export type SummaryChange = z.infer<typeof SummaryChange>;

/** Signing a visit. `id` is made by the client: sending it twice signs once. */
export const NewSignature = z.strictObject({ id: Id, summary: Summary.min(1) });
export type NewSignature = z.infer<typeof NewSignature>;

/** Why a signed visit is to be changed. */
export const NewAmendment = z.strictObject({ why: z.string().trim().min(3).max(300) });
export type NewAmendment = z.infer<typeof NewAmendment>;

/** One signature: who, when, and why again, where it was amended. */
export const SignatureView = z.object({
  id: Id,
  number: z.int(),
  at: moment,
  by: z.string(),
  summary: z.string(),
  /** Why the visit was amended before this signature; empty for the first. */
  why: z.string(),
});
export type SignatureView = z.infer<typeof SignatureView>;

/** Where a visit stands between open and signed. */
export const SigningView = z.object({
  /** Oldest first; the last one counts. */
  signatures: z.array(SignatureView),
  /** Set while a signed visit is being amended. */
  amending: z.object({ why: z.string(), by: z.string(), at: moment }).nullable(),
  /** What was changed after the last signature, oldest first. */
  changes: z.array(z.object({ at: moment, by: z.string(), what: z.string() })),
});
export type SigningView = z.infer<typeof SigningView>;

/** What was signed: the findings as they stood then, whatever the rules say now. */
export const SignedCopy = z.object({
  signature: SignatureView,
  assessedOn: Day,
  patient: z.string(),
  judgement: z.custom<Judgement>((value) => typeof value === 'object' && value !== null),
});
export type SignedCopy = z.infer<typeof SignedCopy>;
