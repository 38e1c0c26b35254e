import type { DrillMemory, Judgement, NormSet, ProgressSeries } from '@dial-gauge/core';
import { DEFAULT_RANKING, RANKINGS } from '@dial-gauge/core/names';
import * as z from 'zod';
import { Day, Digit, Id, InvolvedSide, Sex } from './ids.js';
import { CautionsView, HandWidths, Intake, PlanView, Sheet } from './preparing.js';
import { GoalView, RetestView } from './following.js';
import { MeasurementView } from './readings.js';
import { SigningView } from './signing.js';
import { OwnErrors } from './steadiness.js';

/** RFC 9457 problem, with one entry per field that was refused. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  /** What happened and what to do, for a person. */
  detail: z.string(),
  errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof Problem>;

export const SignIn = z.strictObject({ email: z.email().max(200), password: z.string().min(1).max(200) });
export type SignIn = z.infer<typeof SignIn>;

export const SessionView = z.object({
  user: z.object({ id: Id, name: z.string(), email: z.string() }),
  clinic: z.object({ id: Id, name: z.string(), normSet: z.string() }),
});
export type SessionView = z.infer<typeof SessionView>;

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
  birthDate: Day,
  sex: Sex,
  occupation: z.string(),
});
export type PatientView = z.infer<typeof PatientView>;

export const EpisodeView = z.object({ ...Intake.shape, id: Id, openedOn: Day, revision: z.int() });
export type EpisodeView = z.infer<typeof EpisodeView>;

export const VisitView = z.object({
  id: Id,
  assessedOn: Day,
  examiner: z.string(),
  readings: z.int(),
  number: z.int(),
  /** Signed, and not being amended: nothing of it may be changed. */
  signed: z.boolean(),
});
export type VisitView = z.infer<typeof VisitView>;

export const CaseloadRow = z.object({
  patient: PatientView,
  episode: EpisodeView,
  visits: z.int(),
  lastVisit: VisitView.nullable(),
});
export type CaseloadRow = z.infer<typeof CaseloadRow>;

export const PatientRecord = z.object({
  patient: PatientView,
  episodes: z.array(EpisodeView.extend({ visits: z.array(VisitView) })),
});
export type PatientRecord = z.infer<typeof PatientRecord>;

export const NewVisit = z.strictObject({ id: Id, assessedOn: Day, sheet: Sheet.optional() });
export type NewVisit = z.infer<typeof NewVisit>;

/** The clinic's norm set itself, where it is one of its own. */
const OwnNormSet = z.custom<NormSet>((value) => typeof value === 'object' && value !== null).nullable();

export const VisitRecord = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  normSet: z.string(),
  ownNormSet: OwnNormSet,
  ownErrors: OwnErrors,
  /** What is to be measured; null: the default set. */
  sheet: z.array(z.object({ protocol: z.string(), digit: Digit.optional() })).nullable(),
  /** The run sheet as it was prepared; null: planned from the sheet. */
  plan: PlanView.nullable(),
  /** Counts up with every change of the plan. */
  revision: z.int(),
  cautions: CautionsView.nullable(),
  hand: HandWidths,
  measurements: z.array(MeasurementView),
  /** The visit before, with readings; what the hollow marks show. */
  previous: z.object({ assessedOn: Day, measurements: z.array(MeasurementView) }).nullable(),
});
export type VisitRecord = z.infer<typeof VisitRecord>;

/** The core's result object as it passes over HTTP; its shape is described by the core's types. */
export const JudgementView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  previousOn: Day.nullable(),
  /** What stands beside the numbers: not done and why, a note, a limit that was passed. */
  aside: z.array(MeasurementView),
  /** Live while the visit is open or being amended; otherwise the copy that was signed. */
  judgement: z.custom<Judgement>((value) => typeof value === 'object' && value !== null),
  /** The summary as somebody wrote it; null: as drafted. */
  summary: z.string().nullable(),
  signing: SigningView,
});
export type JudgementView = z.infer<typeof JudgementView>;

export const ProgressView = z.object({
  visit: VisitView,
  normSet: z.string(),
  ownNormSet: OwnNormSet,
  patient: PatientView,
  episode: EpisodeView,
  /** Up to and including this visit, oldest first. */
  visits: z.array(VisitView),
  series: z.array(z.custom<ProgressSeries>((value) => typeof value === 'object' && value !== null)),
  /** Goals that were chosen; the others follow from the sides. */
  goals: z.array(GoalView),
});
export type ProgressView = z.infer<typeof ProgressView>;

/** Retests of a visit, and what helped this patient before. */
export const RetestsView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  ownErrors: OwnErrors,
  /** Ways that were measured at this visit: the markers are chosen from them. */
  measured: z.array(MeasurementView),
  retests: z.array(RetestView),
  memory: z.array(z.custom<DrillMemory>((value) => typeof value === 'object' && value !== null)),
});
export type RetestsView = z.infer<typeof RetestsView>;

const triple = z.tuple([z.number(), z.number(), z.number()]);

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
    severityPercent: triple,
    severityTimes: triple,
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

/** What this clinic judges by. */
export const JudgingView = z.object({
  normSet: z.string(),
  ranking: z.enum(RANKINGS).default(DEFAULT_RANKING),
  ownErrors: OwnErrors,
  thresholds: Thresholds,
  sets: z.array(NormSetSummary),
  /** The clinic's own sets in full; those of the program come with the program. */
  ownSets: z.array(z.custom<NormSet>((value) => typeof value === 'object' && value !== null)),
});
export type JudgingView = z.infer<typeof JudgingView>;

export const JudgingChange = z.strictObject({
  normSet: z.string().max(60).optional(),
  thresholds: Thresholds.optional(),
  ranking: z.enum(RANKINGS).optional(),
});
export type JudgingChange = z.infer<typeof JudgingChange>;

/** A norm set as CSV text, as docs/formats/norm-set.md describes it. */
export const NormSetFile = z.strictObject({ csv: z.string().min(1).max(1_500_000) });
export const NormSetDownload = z.object({ fileName: z.string(), csv: z.string() });
