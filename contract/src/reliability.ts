import type { OwnError } from '@dial-gauge/core';
import { checkWay, LEAST_RATERS, LEAST_SUBJECTS, protocolOfId } from '@dial-gauge/core/names';
import * as z from 'zod';
import { Motion } from './catalogue-ids.js';
import { AnyDay, Digit, Id, Instrument, Mode } from './ids.js';
import { ById, none, nothing, route } from './route.js';

/** A study of the clinic's own error: one motion, one way of measuring, one instrument. */
const study = {
  name: z.string().trim().min(1).max(80),
  protocol: z.string().max(90),
  digit: Digit.optional(),
  mode: Mode,
  instrument: Instrument,
  /** Several examiners once each, or one examiner several times. */
  kind: z.enum(['repeats', 'raters']),
  subjects: z.int().min(LEAST_SUBJECTS).max(60),
  raters: z.int().min(LEAST_RATERS).max(6),
};

export const NewStudy = z
  .strictObject({ id: Id, ...study, seed: z.int().min(0).max(4294967295) })
  .superRefine(({ protocol: id, digit, mode, instrument }, context) => {
    const protocol = protocolOfId(id);
    if (!protocol)
      return void context.addIssue({
        code: 'custom',
        path: ['protocol'],
        message: `"${id}" is not in the library; allowed: a protocol id`,
      });
    const wrong = checkWay({ ...protocol, protocol: id, digit, mode, instrument });
    if (wrong) context.addIssue({ code: 'custom', path: [wrong.field], message: wrong.message });
  });
export type NewStudy = z.infer<typeof NewStudy>;

/** What any motion can hold; the study's own bounds come on top. */
const Value = z.number().min(-999).max(9999);

/** One blinded reading. Another one of the same subject and rater replaces it; the first stays on record. */
export const StudyReading = z.strictObject({ id: Id, subject: z.int().min(0).max(59), rater: z.int().min(0).max(5), value: Value });
export type StudyReading = z.infer<typeof StudyReading>;

export const Adoption = z.strictObject({ basis: z.enum(['agreement', 'consistency']) });
export type Adoption = z.infer<typeof Adoption>;

export const StudyView = z.object({
  id: Id,
  ...study,
  name: z.string(),
  protocol: z.string(),
  subjects: z.int(),
  raters: z.int(),
  motion: Motion,
  /** Who is read when, so that nobody remembers. */
  turns: z.array(z.object({ subject: z.int(), rater: z.int() })),
  /** Which of the turns are read, by their place in the order: that says nothing of what was read. */
  read: z.array(z.int()),
  /** Subjects × raters, once every cell is read; null before: whoever reads stays blind. */
  table: z.array(z.array(z.number())).nullable(),
  by: z.string(),
  startedOn: AnyDay,
  /** True where it was read off figures in practice: nothing is ever judged by it. */
  isPractice: z.boolean(),
  /** The error that was adopted from it and is in use. */
  adopted: z.object({ id: Id, sem: z.number(), basis: z.enum(['agreement', 'consistency']), on: AnyDay, by: z.string() }).nullable(),
});
export type StudyView = z.infer<typeof StudyView>;

/** The clinic's own errors, as the core reads them. */
export const OwnErrors = z.array(z.custom<OwnError>((value) => typeof value === 'object' && value !== null));

/** Studies of the clinic's own measuring error. */
export const RELIABILITY = {
  studies: route({
    method: 'get',
    path: '/studies',
    summary: 'Studies of the clinic’s own measuring error',
    params: none,
    body: nothing,
    answer: z.array(StudyView),
  }),
  startStudy: route({
    method: 'post',
    path: '/studies',
    summary: 'Plan a study of the clinic’s own measuring error',
    params: none,
    body: NewStudy,
    answer: StudyView,
  }),
  readStudy: route({
    method: 'post',
    path: '/studies/:id/readings',
    summary: 'Save one blinded reading; answered once it is committed',
    params: ById,
    body: StudyReading,
    answer: StudyView,
  }),
  adoptError: route({
    method: 'post',
    path: '/studies/:id/adoption',
    summary: 'Judge by the error of this study from now on',
    params: ById,
    body: Adoption,
    answer: StudyView,
  }),
  dropError: route({
    method: 'delete',
    path: '/studies/:id/adoption',
    summary: 'Stop judging by the error of this study; it stays on record',
    params: ById,
    body: nothing,
    answer: StudyView,
  }),
} as const;
