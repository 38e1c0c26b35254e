import { DATE_ORDERS, INSTRUMENTS, MINUS_MEANS, MODES, PAST_ROLES, POSITIONS, SIDES } from '@dial-gauge/core/names';
import * as z from 'zod';
import { Motion } from './catalogue-ids.js';
import { Id } from './ids.js';
import { ById, nothing, route } from './route.js';

/** As much as a list of one person holds; a larger file is something else. */
export const MOST_PAST_ROWS = 5_000;
const MOST_COLUMNS = 60;
const SHEET_BYTES = 3_000_000;

const Rows = z.array(z.array(z.string().max(500)).max(MOST_COLUMNS)).max(MOST_PAST_ROWS);

/** A file or a pasted table as rows of text. */
export const NewSheet = z.strictObject({
  fileName: z.string().trim().min(1).max(200),
  /** The bytes of a file: .csv, .tsv, .txt or .xlsx. */
  base64: z.base64().max(SHEET_BYTES),
});

/** What the columns hold, and what was chosen for all rows. */
export const PastChoices = z.strictObject({
  columns: z
    .array(
      z.strictObject({
        role: z.enum(PAST_ROLES),
        about: z
          .strictObject({
            motion: Motion.optional(),
            side: z.enum(SIDES).optional(),
            mode: z.enum(MODES).optional(),
            position: z.enum(POSITIONS).optional(),
          })
          .optional(),
        unit: z.enum(['deg', 'cm', 'in', 'N', 'lb', 'kg', 's']).optional(),
      }),
    )
    .max(MOST_COLUMNS),
  dateOrder: z.enum(DATE_ORDERS),
  minus: z.enum(MINUS_MEANS).nullable(),
  mode: z.enum(MODES).nullable(),
  instrument: z.enum(INSTRUMENTS).nullable(),
  without: z
    .array(
      z
        .int()
        .min(2)
        .max(MOST_PAST_ROWS + 1),
    )
    .max(MOST_PAST_ROWS),
});
export type PastChoices = z.infer<typeof PastChoices>;

/** Rows that are brought in, all or none. */
export const NewPast = z.strictObject({ id: Id, fileName: z.string().trim().min(1).max(200), rows: Rows, choices: PastChoices });
export type NewPast = z.infer<typeof NewPast>;

const Moment = z.iso.datetime();

/** What was brought in, and what was undone again. */
export const PastView = z.object({
  batches: z.array(
    z.object({
      id: Id,
      fileName: z.string(),
      readings: z.int(),
      from: z.string(),
      until: z.string(),
      by: z.string(),
      at: Moment,
      undone: z.object({ by: z.string(), at: Moment }).nullable(),
    }),
  ),
});
export type PastView = z.infer<typeof PastView>;

/** Readings of before, from a list. */
export const PAST = {
  readSheet: route({
    method: 'post',
    path: '/sheets',
    summary: 'Rows of a spreadsheet or a text file; nothing of it is kept',
    params: z.object({}),
    body: NewSheet,
    answer: z.object({ rows: z.array(z.array(z.string())) }),
    largest: SHEET_BYTES + 10_000,
  }),
  past: route({
    method: 'get',
    path: '/episodes/:id/past',
    summary: 'What was brought in for an episode, with who and when',
    params: ById,
    body: nothing,
    answer: PastView,
  }),
  bringIn: route({
    method: 'post',
    path: '/episodes/:id/past',
    summary: 'Bring in old readings, all or none',
    params: ById,
    body: NewPast,
    answer: PastView,
    largest: SHEET_BYTES,
  }),
  undoPast: route({
    method: 'post',
    path: '/past/:id/undoing',
    summary: 'Undo what was brought in, as a whole; it stays on record',
    params: ById,
    body: z.strictObject({}),
    answer: PastView,
  }),
} as const;
