import type { CohortGroup, CohortWay, OutcomeWeek } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { Id } from './ids.js';
import { NormsView } from './norms.js';
import { none, nothing, route } from './route.js';

const Spread = z.looseObject({ n: z.int(), p10: z.number(), q1: z.number(), median: z.number(), q3: z.number(), p90: z.number() });
const Ages = z.looseObject({ from: z.int(), to: z.int(), label: z.string() });

export const CohortWayShape = z.looseObject({
  motion: z.string(),
  mode: z.string(),
  position: z.string(),
  protocol: z.string(),
  digit: z.int().optional(),
});
export const CohortGroupShape = z.looseObject({ sex: z.string(), ages: Ages, spread: Spread });
export const OutcomeWeekShape = z.looseObject({
  week: z.int(),
  spread: Spread,
  usual: z.object({ low: z.number(), high: z.number().nullable() }).nullable(),
});

const Way = described<CohortWay>(CohortWayShape);

/** What the clinic's own readings tell, as they were counted last: groups of twenty people and more, and nobody by name. */
export const CohortView = z.object({
  /** null: never counted yet. */
  counted: z.object({ at: z.iso.datetime(), visits: z.int(), readings: z.int() }).nullable(),
  /** A count that is going on, or waits to begin. */
  counting: z.object({ askedAt: z.iso.datetime(), visits: z.int() }).nullable(),
  /** Sides that are not involved, the first reading of a person. */
  norms: z.array(z.object({ way: Way, groups: z.array(described<CohortGroup>(CohortGroupShape)) })),
  /** The side that was operated, by whole weeks since. */
  outcomes: z.array(z.object({ procedure: z.string(), way: Way, weeks: z.array(described<OutcomeWeek>(OutcomeWeekShape)) })),
  /** By how much an examiner reads more than the middle of each group; the lead sees all, others themselves. */
  examiners: z.array(z.object({ way: Way, name: z.string(), n: z.int(), difference: z.number() })),
});
export type CohortView = z.infer<typeof CohortView>;

/** The clinic's own norms, outcomes and examiners, counted in batches beside the requests. */
export const COHORT = {
  cohort: route({
    method: 'get',
    path: '/cohort',
    summary: 'What the clinic’s own readings tell, as they were counted last',
    params: none,
    body: nothing,
    answer: CohortView,
  }),
  countAnew: route({
    method: 'post',
    path: '/cohort/counts',
    summary: 'Have the readings of the clinic counted anew, beside the requests; asked twice they are counted once',
    params: none,
    body: z.strictObject({ id: Id }),
    answer: CohortView,
  }),
  makeNormSet: route({
    method: 'post',
    path: '/cohort/norm-sets',
    summary: 'Make a norm set of the clinic’s own people, as they were counted last; it is flagged, and asked last',
    params: none,
    body: none,
    answer: NormsView,
  }),
  cohortFile: route({
    method: 'get',
    path: '/cohort.csv',
    summary: 'What was counted, as CSV, without identities',
    params: none,
    body: nothing,
    answer: z.string(),
    mediaType: 'text/csv',
  }),
} as const;
