import type { Report } from '@dial-gauge/core';
import { REPORT_KINDS } from '@dial-gauge/core/names';
import * as z from 'zod';
import { described } from './described.js';
import { EpisodeView } from './episode-view.js';
import { PatientView } from './patients.js';
import { ById, nothing, route } from './route.js';
import { SigningView } from './signing.js';
import { VisitView } from './visit-view.js';

export const ReportShape = z.looseObject({
  kind: z.enum([...REPORT_KINDS, 'clip', 'record']),
  title: z.string(),
  subtitle: z.string(),
  foot: z.string(),
  draft: z.boolean(),
  large: z.boolean(),
  blocks: z.array(z.looseObject({ kind: z.string() })),
});

/** BCP 47: how figures and days are written. */
const Locale = z.string().max(35).default('en');

/** A page as it will print, for whom it is. */
export const ReportView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  signing: SigningView,
  report: described<Report>(ReportShape),
  /** How it falls onto the paper that was asked for. */
  pages: z.int(),
  /** What begins each page but the first: an item (row, line) of a block, both from 0. */
  breaks: z.array(z.object({ page: z.int(), block: z.int(), item: z.int() })),
});
export type ReportView = z.infer<typeof ReportView>;

export const PAPER_SIZES = ['a4', 'letter'] as const;
export const REPORT_FORMATS = ['fhir', 'csv', 'sftr', 'json', 'ics'] as const;
export type ReportFormat = (typeof REPORT_FORMATS)[number];

/** A file that is handed over: its name, what it is, and its bytes in base64. */
export const FileView = z.object({ fileName: z.string(), mediaType: z.string(), base64: z.string() });
export type FileView = z.infer<typeof FileView>;

/** On which paper, and how figures and days are written. */
export const OnPaper = z.object({ paper: z.enum(PAPER_SIZES).default('a4'), locale: Locale });

const AskedPage = z.object({ for: z.enum(REPORT_KINDS).default('referrer'), paper: z.enum(PAPER_SIZES).default('a4'), locale: Locale });

/** Pages and files that go out. Only what is signed goes out as signed. */
export const REPORTS = {
  report: route({
    method: 'get',
    path: '/visits/:id/report',
    summary: 'A page about a visit: for the referrer, for the person, or with all evidence',
    params: ById,
    query: AskedPage,
    body: nothing,
    answer: ReportView,
  }),
  reportFile: route({
    method: 'get',
    path: '/visits/:id/report/pdf',
    summary: 'The same page as PDF, A4 or Letter',
    params: ById,
    query: AskedPage,
    body: nothing,
    answer: FileView,
  }),
  exportVisit: route({
    method: 'get',
    path: '/visits/:id/export',
    summary: 'A visit in an open format: FHIR R4, CSV, SFTR lines, JSON, or its days as iCalendar',
    params: ById,
    query: z.object({ to: z.enum(REPORT_FORMATS) }),
    body: nothing,
    answer: FileView,
  }),
  allReadings: route({
    method: 'get',
    path: '/readings.csv',
    summary: 'Every reading of the clinic as CSV, without names, piece by piece',
    params: z.object({}),
    body: nothing,
    answer: z.string(),
    mediaType: 'text/csv',
  }),
} as const;
