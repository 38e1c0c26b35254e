import type { QueueStanding } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { EpisodeView } from './episode-view.js';
import { AnyDay, Day, Id, InvolvedSide, Sex } from './ids.js';
import { nameOf } from './names.js';
import { OddRecord } from './problem.js';
import { ById, none, nothing, route } from './route.js';
import { VisitView } from './visit-view.js';

const Name = nameOf(100);

/** Who somebody is. */
const PERSON = {
  givenName: Name,
  familyName: Name,
  birthDate: Day,
  /** By which norms are chosen; what somebody says of their gender stands apart. */
  sex: Sex,
  gender: z.string().trim().max(60).default(''),
  /** The number of a file that the clinic keeps elsewhere. */
  fileNumber: z.string().trim().max(40).default(''),
  occupation: z.string().trim().max(120).default(''),
};

/** Who somebody is, put right. `revision` is the one it was read at: where somebody else has changed it since, it is refused and shown. */
export const PersonChange = z.strictObject({ ...PERSON, revision: z.int().min(0) });
export type PersonChange = z.infer<typeof PersonChange>;

export const NewEpisode = z.strictObject({
  id: Id,
  complaint: z.string().trim().min(1).max(300),
  involvedSide: InvolvedSide.nullable().default(null),
});
export type NewEpisode = z.infer<typeof NewEpisode>;

/** How care came to an end. */
export const OUTCOMES = ['goal-met', 'better', 'unchanged', 'passed-on', 'stayed-away', 'other'] as const;
export const Outcome = z.enum(OUTCOMES);
export type Outcome = z.infer<typeof Outcome>;

export const Discharge = z.strictObject({ on: Day, outcome: Outcome, note: z.string().trim().max(300).default('') });
export type Discharge = z.infer<typeof Discharge>;

export const NewPatient = z.strictObject({
  id: Id,
  ...PERSON,
  episode: NewEpisode,
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

/** Somebody who may be the same person: of the same name and birth date, or the same file number. */
export const LikelyDouble = PatientView.extend({ fileNumber: z.string(), episodes: z.int() });
export type LikelyDouble = z.infer<typeof LikelyDouble>;

/** That two records were made one. */
export const MergeView = z.object({
  id: Id,
  /** As the record that went into this one called them. */
  name: z.string(),
  by: z.string(),
  at: z.iso.datetime(),
  episodes: z.int(),
});
export type MergeView = z.infer<typeof MergeView>;

export const PatientRecord = z.object({
  patient: PatientView.extend({ gender: z.string(), fileNumber: z.string(), revision: z.int() }),
  /** Set where this record went into another one: that is the one to look at. */
  mergedInto: Id.nullable(),
  episodes: z.array(
    EpisodeView.extend({
      /** null: in care. */
      ended: z.object({ on: AnyDay, outcome: z.string(), note: z.string(), by: z.string() }).nullable(),
      visits: z.array(VisitView),
    }),
  ),
  doubles: z.array(LikelyDouble),
  merges: z.array(MergeView),
});
export type PatientRecord = z.infer<typeof PatientRecord>;

/** What of a person was changed: who, when, and what stood before. */
export const PersonChanges = z.array(
  z.object({ at: z.iso.datetime(), by: z.string(), field: z.string(), before: z.unknown(), after: z.unknown() }),
);
export type PersonChanges = z.infer<typeof PersonChanges>;

/** How a caseload is ordered: who needs something first, seen last or opened last, by family name, or by the day they are due again. */
export const CASELOAD_ORDERS = ['urgent', 'latest', 'name', 'due'] as const;
export type CaseloadOrder = (typeof CASELOAD_ORDERS)[number];

/** Rows of one page of a caseload: what a screen shows, twice. The next follows while one scrolls. */
export const CASELOAD_PAGE = 25;

export const CaseloadQuery = z.strictObject({
  order: z.enum(CASELOAD_ORDERS).default('urgent'),
  /** Whose: "mine", "all", or the id of whoever examined last. */
  whose: z.union([z.enum(['mine', 'all']), Id]).default('all'),
  /** In care, or discharged: those by the day on which it ended, the last first. */
  state: z.enum(['care', 'ended']).default('care'),
  /** Beginnings of words of the name or the complaint; all of them have to be there. */
  find: z.string().trim().max(80).default(''),
  /** `next` of the page before. */
  after: z.string().max(600).optional(),
});
export type CaseloadQuery = z.input<typeof CaseloadQuery>;

export const StandingShape = z.looseObject({
  reasons: z.array(z.looseObject({ kind: z.string(), since: z.string() })),
  urgency: z.int(),
  since: z.string().nullable(),
  next: z.string(),
  line: z
    .looseObject({ name: z.string(), motion: z.string(), points: z.array(z.object({ on: z.string(), value: z.number() })) })
    .nullable(),
});

/** How many of a caseload need somebody today, are due, have arrived, are on their way; and who examines here. */
export const QueueCounts = z.object({
  today: z.int(),
  due: z.int(),
  met: z.int(),
  way: z.int(),
  /** Where they stand is being told: nothing is said of them yet. */
  untold: z.int(),
  ended: z.int(),
  examiners: z.array(z.object({ id: Id, name: z.string() })),
});
export type QueueCounts = z.infer<typeof QueueCounts>;

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
  /** Why they need something, and how they are doing; null: it is being told. */
  standing: described<QueueStanding>(StandingShape).nullable(),
  ended: z.object({ on: AnyDay, outcome: z.string() }).nullable(),
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
    keep: true,
    summary: 'People in care, a page at a time, in an order and narrowed by words',
    params: none,
    query: CaseloadQuery,
    body: nothing,
    answer: CaseloadPage,
  }),
  queueCounts: route({
    method: 'get',
    path: '/queue',
    keep: true,
    summary: 'How many need somebody today, are due, have arrived, are on their way; and who examines here',
    params: none,
    query: z.strictObject({ whose: CaseloadQuery.shape.whose }),
    body: nothing,
    answer: QueueCounts,
  }),
  messagesSeen: route({
    method: 'post',
    path: '/episodes/:id/messages-seen',
    summary: 'That somebody has looked at what came from the person’s own page',
    params: ById,
    body: none,
    answer: none,
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
    keep: true,
    summary: 'One patient, episodes and visits',
    params: ById,
    body: nothing,
    answer: PatientRecord,
  }),
  changePatient: route({
    method: 'put',
    path: '/patients/:id',
    summary: 'Put right who somebody is; what stood before is kept on record',
    params: ById,
    body: PersonChange,
    answer: PatientRecord,
  }),
  personChanges: route({
    method: 'get',
    path: '/patients/:id/changes',
    summary: 'What was changed of a person: who, when, and what stood before; the latest first',
    params: ById,
    body: nothing,
    answer: PersonChanges,
  }),
  openEpisode: route({
    method: 'post',
    path: '/patients/:id/episodes',
    summary: 'Another episode of care of the same person',
    params: ById,
    body: NewEpisode,
    answer: PatientRecord,
  }),
  discharge: route({
    method: 'post',
    path: '/episodes/:id/discharge',
    summary: 'End an episode of care with its outcome; its record stays',
    params: ById,
    body: Discharge,
    answer: PatientRecord,
  }),
  reopen: route({
    method: 'post',
    path: '/episodes/:id/reopening',
    summary: 'Take up an ended episode of care again, with the reason',
    params: ById,
    body: z.strictObject({ why: z.string().trim().min(3).max(300) }),
    answer: PatientRecord,
  }),
  merge: route({
    method: 'post',
    path: '/patients/:id/merges',
    summary: 'Make two records of one person one: the episodes of the other go to this one; it can be undone',
    params: ById,
    body: z.strictObject({ id: Id, other: Id }),
    answer: PatientRecord,
  }),
  undoMerge: route({
    method: 'post',
    path: '/merges/:id/undoing',
    summary: 'Take two records apart again that were made one',
    params: ById,
    body: none,
    answer: PatientRecord,
  }),
} as const;
