import * as z from 'zod';
import { EpisodeView } from './episode-view.js';
import { AnyDay, Day, Id, InvolvedSide, Sex } from './ids.js';
import { OddRecord } from './problem.js';
import { ById, none, nothing, route } from './route.js';
import { VisitView } from './visit-view.js';

const Name = z.string().trim().min(1).max(100);

export const NewPatient = z.strictObject({
  id: Id,
  givenName: Name,
  familyName: Name,
  birthDate: Day,
  sex: Sex,
  occupation: z.string().trim().max(120).default(''),
  episode: z.strictObject({
    id: Id,
    complaint: z.string().trim().min(1).max(300),
    involvedSide: InvolvedSide.nullable().default(null),
  }),
});
export type NewPatient = z.infer<typeof NewPatient>;

export const PatientView = z.object({
  id: Id,
  givenName: z.string(),
  familyName: z.string(),
  birthDate: AnyDay,
  sex: Sex,
  occupation: z.string(),
});
export type PatientView = z.infer<typeof PatientView>;

export const PatientRecord = z.object({
  patient: PatientView,
  episodes: z.array(EpisodeView.extend({ visits: z.array(VisitView) })),
});
export type PatientRecord = z.infer<typeof PatientRecord>;

/** How a caseload is ordered: seen last or opened last, by family name, or by the day they are due again. */
export const CASELOAD_ORDERS = ['latest', 'name', 'due'] as const;
export type CaseloadOrder = (typeof CASELOAD_ORDERS)[number];

/** Rows of one page of a caseload: what a screen shows, twice. The next follows while one scrolls. */
export const CASELOAD_PAGE = 25;

export const CaseloadQuery = z.strictObject({
  order: z.enum(CASELOAD_ORDERS).default('latest'),
  /** Beginnings of words of the name or the complaint; all of them have to be there. */
  find: z.string().trim().max(80).default(''),
  /** `next` of the page before. */
  after: z.string().max(600).optional(),
});
export type CaseloadQuery = z.input<typeof CaseloadQuery>;

/** One person in care, as the caseload names them. */
export const CaseloadRow = z.object({
  patient: PatientView,
  episode: z.object({
    id: Id,
    complaint: z.string(),
    involvedSide: InvolvedSide.nullable(),
    openedOn: AnyDay,
    dueOn: AnyDay.nullable(),
  }),
  visits: z.int(),
  lastVisit: VisitView.nullable(),
});
export type CaseloadRow = z.infer<typeof CaseloadRow>;

export const CaseloadPage = z.object({
  rows: z.array(CaseloadRow),
  /** Records of this page that this version cannot read. */
  odd: z.array(OddRecord),
  /** What to ask for the page after this one; null: there is none. */
  next: z.string().nullable(),
});
export type CaseloadPage = z.infer<typeof CaseloadPage>;

/** People in care. */
export const PATIENTS = {
  caseload: route({
    method: 'get',
    path: '/caseload',
    summary: 'People in care, a page at a time, in an order and narrowed by words',
    params: none,
    query: CaseloadQuery,
    body: nothing,
    answer: CaseloadPage,
  }),
  addPatient: route({
    method: 'post',
    path: '/patients',
    summary: 'Add a patient with the first episode of care',
    params: none,
    body: NewPatient,
    answer: PatientRecord,
  }),
  patient: route({
    method: 'get',
    path: '/patients/:id',
    summary: 'One patient, episodes and visits',
    params: ById,
    body: nothing,
    answer: PatientRecord,
  }),
} as const;
