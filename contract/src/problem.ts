import * as z from 'zod';

/** Problems that whoever asks can do something about by itself, told apart by their type; all others go by their status. */
export const PROBLEM_KINDS = ['second-factor', 'second-factor-missing', 'proof', 'role'] as const;
export type ProblemKind = (typeof PROBLEM_KINDS)[number];

export const problemType = (kind: ProblemKind | number): string => `urn:dial-gauge:problem:${kind}`;

/** RFC 9457 problem, with one entry per field that was refused. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  /** What happened and what to do, for a person. */
  detail: z.string(),
  errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof Problem>;

/** One stored record that this version cannot read: shown as such, beside those it can. */
export const OddRecord = z.object({
  /** The record, so that somebody who looks after the database finds it. */
  id: z.string(),
  what: z.string(),
  why: z.string(),
});
export type OddRecord = z.infer<typeof OddRecord>;
