import * as z from 'zod';
import { AnyDay, Id } from './ids.js';
import { FileView } from './reports.js';
import { ById, nothing, route } from './route.js';

/** Whether the record of a person may be erased, and what becomes of what. */
export const ErasureView = z.object({
  /** The first day on which it may; null: not while somebody is in care. */
  from: AnyDay.nullable(),
  /** Why not yet, in words; empty: it may. */
  against: z.array(z.string()),
  /** How many years a record is kept here after the last entry. */
  keepYears: z.int(),
  /** How many rows of each table go. */
  goes: z.array(z.object({ table: z.string(), rows: z.int() })),
  /** What stays, in words. */
  stays: z.array(z.string()),
});
export type ErasureView = z.infer<typeof ErasureView>;

/** That the record of a person was erased. */
export const Erased = z.object({ at: z.iso.datetime(), rows: z.int() });
export type Erased = z.infer<typeof Erased>;

/** `name`: the whole name of the person, typed by whoever erases. */
export const Erasure = z.strictObject({ id: Id, why: z.string().trim().min(3).max(300), name: z.string().trim().min(1).max(210) });
export type Erasure = z.infer<typeof Erasure>;

/** All that is kept of one person: handed over, or erased. */
export const PERSONS = {
  wholeRecord: route({
    method: 'get',
    path: '/patients/:id/whole-record',
    summary: 'All that is kept of one person: as JSON, and as PDF to be read, in one file',
    params: ById,
    query: z.object({ locale: z.string().max(35).default('en') }),
    body: nothing,
    answer: FileView,
  }),
  erasure: route({
    method: 'get',
    path: '/patients/:id/erasure',
    summary: 'Whether the record of a person may be erased, what goes and what stays',
    params: ById,
    body: nothing,
    answer: ErasureView,
  }),
  erase: route({
    method: 'post',
    path: '/patients/:id/erasure',
    summary: 'Erase the record of a person, for good; that it was, by whom and why stays',
    params: ById,
    body: Erasure,
    answer: Erased,
  }),
} as const;
