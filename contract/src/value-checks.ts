import { VALUE_KINDS } from '@dial-gauge/core/names';
import type { ValueCheck } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { Id } from './ids.js';
import { none, nothing, route } from './route.js';

/** Figures by their name, as the source prints them. */
const Figures = z.record(z.string().max(20), z.number().min(-100_000).max(100_000));

/** A value that was looked up, as the core reads it. */
export const ValueChecks = z.array(
  described<ValueCheck>(
    z.looseObject({ kind: z.enum(VALUE_KINDS), of: z.string(), key: z.string(), source: z.string(), page: z.string() }),
  ),
);

const What = z.strictObject({ kind: z.enum(VALUE_KINDS), of: z.string().min(1).max(60), key: z.string().min(1).max(500) });

/** One value that was looked up, or that is no longer taken as looked up. */
export const NewValueCheck = What.extend({
  id: Id,
  /** The check that stood when it was looked up; null: none did. */
  follows: Id.nullable(),
  /** What the source prints; null: the same. */
  corrected: Figures.nullable(),
  source: z.string().trim().min(1).max(300),
  edition: z.string().trim().max(120),
  page: z.string().trim().min(1).max(60),
  withdrawn: z.boolean().optional(),
});
export type NewValueCheck = z.infer<typeof NewValueCheck>;

/** A check that stands, with its id. */
export const ValueCheckView = What.extend({
  id: Id,
  held: Figures,
  corrected: Figures.nullable(),
  source: z.string(),
  edition: z.string(),
  page: z.string(),
  by: z.string(),
  on: z.string(),
});
export type ValueCheckView = z.infer<typeof ValueCheckView>;

/** What stands of the values that were sent; one that is taken back is left out. */
export const ValueChecksAnswer = z.object({ checks: z.array(ValueCheckView) });
export type ValueChecksAnswer = z.infer<typeof ValueChecksAnswer>;

/** Values of norm sets, published errors and procedures that the clinic looked up. */
export const VALUE_CHECKS = {
  addValueChecks: route({
    method: 'post',
    path: '/value-checks',
    summary: 'Values that were looked up, as they are printed or corrected: all of them, or none',
    largest: 400_000,
    params: none,
    body: z.strictObject({ checks: z.array(NewValueCheck).min(1).max(200) }),
    answer: ValueChecksAnswer,
  }),
  exportValueChecks: route({
    method: 'get',
    path: '/value-checks/csv',
    summary: 'What was looked up as CSV, for another clinic',
    params: none,
    body: nothing,
    answer: z.object({ fileName: z.string(), csv: z.string() }),
  }),
  importValueChecks: route({
    method: 'post',
    path: '/value-checks/csv',
    summary: 'Bring in what another clinic looked up: all of it, or nothing with every refused cell named',
    largest: 2_000_000,
    params: none,
    body: z.strictObject({ csv: z.string().min(1).max(1_500_000) }),
    answer: z.object({ values: z.int() }),
  }),
} as const;
