import type { NormSet } from '@dial-gauge/core';
import { RANKINGS } from '@dial-gauge/core/names';
import * as z from 'zod';
import { described } from './described.js';
import { OwnErrors } from './reliability.js';
import { none, nothing, route } from './route.js';
import { ValueCheckView } from './value-checks.js';

const Triple = z.tuple([z.number(), z.number(), z.number()]);

/** From which size on something is flagged, as a clinic sets it. */
export const Thresholds = z
  .strictObject({
    sideDifference: z.strictObject({
      deg: z.number().min(1).max(60),
      cm: z.number().min(0.1).max(20),
      N: z.number().min(0.01).max(0.9),
      s: z.number().min(0.5).max(60),
    }),
    activeGap: z.number().min(1).max(60),
    activeGapShare: z.number().min(0.01).max(0.9),
    severityPercent: Triple,
    severityTimes: Triple,
  })
  .superRefine((thresholds, context) => {
    const steps = [
      ['severityPercent', 1, 99],
      ['severityTimes', 0.1, 20],
    ] as const;
    for (const [field, least, most] of steps) {
      const [mild, moderate, marked] = thresholds[field];
      if (mild < least || marked > most || mild >= moderate || moderate >= marked) {
        context.addIssue({
          code: 'custom',
          path: [field],
          message: `do not rise from step to step; allowed: three rising numbers from ${least} to ${most}`,
        });
      }
    }
  });
export type Thresholds = z.infer<typeof Thresholds>;

export const NormSetSummary = z.object({
  id: z.string(),
  title: z.string(),
  short: z.string(),
  year: z.int().nullable(),
  where: z.string(),
  cite: z.string(),
  fromMemory: z.boolean(),
  values: z.int(),
  motions: z.int(),
  /** True for a set that the clinic brought in itself. */
  own: z.boolean(),
});
export type NormSetSummary = z.infer<typeof NormSetSummary>;

/** A norm set in full, where it is one of the clinic's own. */
export const OwnNormSet = described<NormSet>(
  z.looseObject({ id: z.string(), title: z.string(), short: z.string(), entries: z.array(z.looseObject({})) }),
);

/** What this clinic judges by. */
export const NormsView = z.object({
  /** Every installed set, in the order in which they are asked: the first with a comparable value judges. */
  normSets: z.array(z.string()),
  ranking: z.enum(RANKINGS),
  ownErrors: OwnErrors,
  /** Values that the clinic looked up, and what it found. */
  valueChecks: z.array(ValueCheckView),
  thresholds: described<Thresholds>(z.looseObject({ activeGap: z.number(), severityPercent: Triple, severityTimes: Triple })),
  sets: z.array(NormSetSummary),
  /** The clinic's own sets in full; those of the program come with the program. */
  ownSets: z.array(OwnNormSet),
});
export type NormsView = z.infer<typeof NormsView>;

export const NormsChange = z.strictObject({
  /** Those that come first; the others follow in the program's order. */
  normSets: z.array(z.string().max(60)).min(1).max(300).optional(),
  thresholds: Thresholds.optional(),
  ranking: z.enum(RANKINGS).optional(),
});
export type NormsChange = z.infer<typeof NormsChange>;

/** A norm set as CSV text, as docs/formats/norm-set.md describes it. */
export const NormSetFile = z.strictObject({ csv: z.string().min(1).max(1_500_000) });
export const NormSetDownload = z.object({ fileName: z.string(), csv: z.string() });

const BySet = z.object({ id: z.string().max(60) });

/** What the caller's clinic judges by. */
export const NORMS = {
  norms: route({
    method: 'get',
    path: '/norms',
    keep: true,
    summary: 'What this clinic judges by: norm set, thresholds, installed sets',
    params: none,
    body: nothing,
    answer: NormsView,
  }),
  setNorms: route({
    method: 'put',
    path: '/norms',
    summary: 'Choose the order of norm sets or change thresholds; what stood before is kept on record',
    params: none,
    body: NormsChange,
    answer: NormsView,
  }),
  addNormSet: route({
    method: 'post',
    path: '/norm-sets',
    summary: 'Bring in a norm set from CSV: all of it, or nothing with every refused cell named',
    // A norm set is a table of its own; nothing else is that large.
    largest: 2_000_000,
    params: none,
    body: NormSetFile,
    answer: NormSetSummary,
  }),
  exportNormSet: route({
    method: 'get',
    path: '/norm-sets/:id/csv',
    summary: 'Any installed set as CSV',
    params: BySet,
    body: nothing,
    answer: NormSetDownload,
  }),
  removeNormSet: route({
    method: 'delete',
    path: '/norm-sets/:id',
    summary: 'Take one of the clinic’s own sets out of use; it stays on record',
    params: BySet,
    body: nothing,
    answer: none,
  }),
} as const;
