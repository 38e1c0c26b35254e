import type { DrillBlock, LadderMove, Report } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { AnyDay, Day, Id } from './ids.js';
import { ReportShape } from './reports.js';
import { ById, none, nothing, route } from './route.js';

const Moment = z.iso.datetime();

/** A page of the person's own, for one episode of care, until a day. The link and the code are made here and told once. */
export const NewPatientPage = z.strictObject({ id: Id, days: z.int().min(1).max(180) });
export type NewPatientPage = z.infer<typeof NewPatientPage>;

/** What the person logs of one day. What is left out was not said. Sent again for a day, the last one counts. */
export const DayLog = z.strictObject({
  id: Id,
  on: Day,
  /** Drills as they were given. */
  done: z.array(z.string().max(80)).max(12),
  easy: z.boolean().nullable(),
  /** Worst pain of ten. */
  pain: z.int().min(0).max(10).nullable(),
  /** More swelling than the day before. */
  swelling: z.boolean().nullable(),
  /** What it is for is worse than before. */
  worse: z.boolean().nullable(),
  note: z.string().trim().max(500),
});
export type DayLog = z.infer<typeof DayLog>;

export const LoggedDayView = DayLog.extend({ on: AnyDay, receivedAt: Moment });
export type LoggedDayView = z.infer<typeof LoggedDayView>;

/** Where a drill stands on its ladder. */
export const StepView = z.object({
  given: z.string(),
  givenName: z.string(),
  side: z.string(),
  drill: z.string(),
  drillName: z.string(),
  move: z.enum(['up', 'down', 'stay']) satisfies z.ZodType<LadderMove>,
  words: z.string(),
  /** The day the last step follows from. */
  on: AnyDay.nullable(),
  rests: z.boolean(),
});
export type StepView = z.infer<typeof StepView>;

/** Pages of an episode, and what came from them. */
export const PatientPagesView = z.object({
  pages: z.array(
    z.object({
      id: Id,
      madeBy: z.string(),
      madeAt: Moment,
      expiresAt: Moment,
      revokedAt: Moment.nullable(),
      openedAt: Moment.nullable(),
    }),
  ),
  /** Newest first, one a day. */
  logged: z.array(LoggedDayView),
  steps: z.array(StepView),
});
export type PatientPagesView = z.infer<typeof PatientPagesView>;

/** Told once: only their hashes are kept. */
export const MadePage = z.object({ id: Id, token: z.string(), code: z.string(), expiresAt: Moment });
export type MadePage = z.infer<typeof MadePage>;

const Key = z.string().min(20).max(80);

/** What the person sees. Nothing of it names a finding. */
export const OwnPage = z.object({
  clinic: z.string(),
  name: z.string(),
  expiresAt: Moment,
  recheckOn: AnyDay.nullable(),
  drills: z.array(
    z.object({
      given: z.string(),
      /** Why it is another one than was given; empty: it is as given. */
      step: z.string(),
      rests: z.boolean(),
      /** It rests because of a limit that was set since. */
      limited: z.boolean().optional(),
      block: described<DrillBlock>(z.looseObject({ title: z.string(), dose: z.string(), cues: z.array(z.string()), stop: z.string() })),
    }),
  ),
  better: z.array(z.string()),
  less: z.array(z.string()),
  /** What was seen in clips that they sent, the latest first. */
  clips: z.array(described<Report>(ReportShape)).default([]),
  /** How many numbers are about the same. */
  same: z.int(),
  logged: z.array(LoggedDayView.omit({ receivedAt: true })),
});
export type OwnPage = z.infer<typeof OwnPage>;

/** The person's own page. Whoever holds its key reaches it and nothing else. */
export const PATIENT_PAGES = {
  patientPages: route({
    method: 'get',
    path: '/episodes/:id/patient-pages',
    summary: 'Pages of the person of an episode, what they logged, and where their drills stand',
    params: ById,
    body: nothing,
    answer: PatientPagesView,
  }),
  makePage: route({
    method: 'post',
    path: '/episodes/:id/patient-pages',
    summary: 'Make a page for the person; link and code are told once',
    params: ById,
    body: NewPatientPage,
    answer: MadePage,
  }),
  revokePage: route({
    method: 'post',
    path: '/patient-pages/:id/revocation',
    summary: 'Close a page of a person at once',
    params: ById,
    body: z.strictObject({}),
    answer: none,
  }),
  openPage: route({
    method: 'post',
    path: '/own-page/opening',
    summary: 'Open a page by its link and code; tries are limited',
    open: true,
    params: none,
    body: z.strictObject({ token: z.string().min(1).max(80), code: z.string().trim().min(1).max(20) }),
    answer: z.object({ key: z.string() }),
  }),
  ownPage: route({
    method: 'post',
    path: '/own-page',
    summary: 'The page of whoever holds its key',
    open: true,
    params: none,
    body: z.strictObject({ key: Key, locale: z.string().max(35).default('en') }),
    answer: OwnPage,
  }),
  logDay: route({
    method: 'post',
    path: '/own-page/days',
    summary: 'Log a day; sent twice it is logged once',
    open: true,
    params: none,
    body: z.strictObject({ key: Key, day: DayLog }),
    answer: none,
  }),
} as const;
