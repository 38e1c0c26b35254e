import { checkValue, checkWay, endPosition, protocolOfId, storedTrial, type Judgement, type NormSet, type Series } from '@dial-gauge/core';
import * as z from 'zod';
import { Day, Digit, EndFeel, Id, Instrument, InvolvedSide, Mode, Motion, Position, Sex, Side } from './ids.js';

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

export const EpisodeView = z.object({
  id: Id,
  complaint: z.string(),
  involvedSide: InvolvedSide.nullable(),
  openedOn: Day,
});
export type EpisodeView = z.infer<typeof EpisodeView>;

export const VisitView = z.object({
  id: Id,
  assessedOn: Day,
  examiner: z.string(),
  readings: z.int(),
  number: z.int(),
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

/** One thing to be measured at a visit. */
export const SheetItem = z
  .strictObject({ protocol: z.string().max(90), digit: Digit.optional() })
  .superRefine(({ protocol: id, digit }, context) => {
    const protocol = protocolOfId(id);
    if (!protocol)
      return void context.addIssue({
        code: 'custom',
        path: ['protocol'],
        message: `"${id}" is not in the library; allowed: a protocol id, as hip.flexion/supine`,
      });
    const { motion: motionId, position, modes, instruments } = protocol;
    const wrong = checkWay({ motion: motionId, mode: modes[0]!, position, protocol: id, instrument: instruments[0]!, digit });
    if (wrong) context.addIssue({ code: 'custom', path: [wrong.field], message: wrong.message });
  });
export type SheetItem = z.infer<typeof SheetItem>;

/** What is to be measured at a visit, each thing once. */
export const Sheet = z
  .array(SheetItem)
  .min(1)
  .max(120)
  .superRefine((items, context) => {
    const seen = new Set<string>();
    items.forEach(({ protocol, digit }, index) => {
      const key = `${protocol} ${digit ?? ''}`;
      if (seen.has(key))
        context.addIssue({ code: 'custom', path: [index], message: 'is on the sheet already; allowed: each way of measuring once' });
      seen.add(key);
    });
  });

export const NewVisit = z.strictObject({ id: Id, assessedOn: Day, sheet: Sheet.optional() });
export type NewVisit = z.infer<typeof NewVisit>;

/** One way of measuring on one side: what a reading or a remark belongs to. */
const way = {
  motion: Motion,
  /** Which finger, for the joints of the fingers. */
  digit: Digit.optional(),
  side: Side,
  mode: Mode,
  position: Position,
  /** Protocol id, where a position has several ways; the usual one where it is left out. */
  protocol: z.string().max(90).optional(),
};

/** One held reading: degrees from `start` to `end`, or a length, force or time in `end`. `id` is made by the client: sending it twice saves it once. */
export const NewReading = z
  .strictObject({
    id: Id,
    ...way,
    instrument: Instrument,
    start: z.number().default(0),
    end: z.number(),
    /** Zero and end of the lower site, where the reading was taken at two; start and end are then the upper one's. */
    lower: z.strictObject({ zero: z.number(), end: z.number() }).optional(),
    heldAt: z.iso.datetime(),
  })
  .superRefine((reading, context) => {
    const wrong = checkWay(reading);
    if (wrong) context.addIssue({ code: 'custom', path: [wrong.field], message: wrong.message });
    const dual = reading.instrument === 'dualInclinometer';
    if (dual !== (reading.lower !== undefined)) {
      const message = dual ? 'is missing; allowed: zero and end of the lower site' : 'belongs to a reading at two sites; leave it out';
      context.addIssue({ code: 'custom', path: ['lower'], message });
    }
    if (wrong) return;
    if (dual && reading.lower) {
      const value = Math.round(endPosition(storedTrial(reading.motion, reading)) * 10) / 10;
      const message = checkValue(reading.motion, reading.instrument, value);
      if (message) context.addIssue({ code: 'custom', path: ['end'], message: `upper less lower: ${message}` });
      return;
    }
    for (const field of ['start', 'end'] as const) {
      if (field === 'start' && reading.start === 0) continue;
      const message = checkValue(reading.motion, reading.instrument, reading[field]);
      if (message) context.addIssue({ code: 'custom', path: [field], message });
    }
  });
export type NewReading = z.infer<typeof NewReading>;

export const TrialView = z.object({
  id: Id,
  start: z.number(),
  end: z.number(),
  lower: z.object({ zero: z.number(), end: z.number() }).nullable(),
  instrument: Instrument,
  heldAt: z.iso.datetime(),
  examiner: z.string(),
});
export type TrialView = z.infer<typeof TrialView>;

/** What was noted beside the readings of one measurement. A field left out stays as it is. */
export const Remark = z.strictObject({
  ...way,
  pain: z.int().min(0).max(10).nullable().optional(),
  painWhere: z.string().trim().max(200).optional(),
  endFeel: EndFeel.nullable().optional(),
  substitutions: z.array(z.string().max(60)).max(12).optional(),
});
export type Remark = z.infer<typeof Remark>;

export const MeasurementView = z.object({
  ...way,
  instrument: Instrument,
  trials: z.array(TrialView),
  pain: z.int().nullable(),
  painWhere: z.string(),
  endFeel: EndFeel.nullable(),
  substitutions: z.array(z.string()),
});
export type MeasurementView = z.infer<typeof MeasurementView>;

/** The clinic's norm set itself, where it is one of its own. */
const OwnNormSet = z.custom<NormSet>((value) => typeof value === 'object' && value !== null).nullable();

export const VisitRecord = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  normSet: z.string(),
  ownNormSet: OwnNormSet,
  /** What is to be measured; null: the default set. */
  sheet: z.array(z.object({ protocol: z.string(), digit: Digit.optional() })).nullable(),
  measurements: z.array(MeasurementView),
  /** The visit before, with readings; what the hollow marks show. */
  previous: z.object({ assessedOn: Day, measurements: z.array(MeasurementView) }).nullable(),
});
export type VisitRecord = z.infer<typeof VisitRecord>;

/** A held reading, once it is committed. */
export const SavedReading = z.object({ reading: TrialView, repeated: z.boolean() });
export type SavedReading = z.infer<typeof SavedReading>;

/** The core's result object as it passes over HTTP; its shape is described by the core's types. */
export const JudgementView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  previousOn: Day.nullable(),
  judgement: z.custom<Judgement>((value) => typeof value === 'object' && value !== null),
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
  series: z.array(z.custom<Series>((value) => typeof value === 'object' && value !== null)),
});
export type ProgressView = z.infer<typeof ProgressView>;

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
  thresholds: Thresholds,
  sets: z.array(NormSetSummary),
  /** The clinic's own sets in full; those of the program come with the program. */
  ownSets: z.array(z.custom<NormSet>((value) => typeof value === 'object' && value !== null)),
});
export type JudgingView = z.infer<typeof JudgingView>;

export const JudgingChange = z.strictObject({ normSet: z.string().max(60).optional(), thresholds: Thresholds.optional() });
export type JudgingChange = z.infer<typeof JudgingChange>;

/** A norm set as CSV text, as docs/formats/norm-set.md describes it. */
export const NormSetFile = z.strictObject({ csv: z.string().min(1).max(1_500_000) });
export const NormSetDownload = z.object({ fileName: z.string(), csv: z.string() });
