import * as z from 'zod';
import { Id } from './ids.js';
import { Cautions, HandWidths, IntakeChange, OwnExamSet, PlanChange, PracticeView, Sheet } from './preparing.js';
import { Correction, MeasurementView, NewReading, Remark, SavedReading } from './readings.js';
import {
  CaseloadRow,
  EpisodeView,
  JudgementView,
  JudgingChange,
  JudgingView,
  NewPatient,
  NewVisit,
  NormSetDownload,
  NormSetFile,
  NormSetSummary,
  PatientRecord,
  ProgressView,
  SessionView,
  SignIn,
  VisitRecord,
} from './records.js';

/** One operation over HTTP: what goes in, what comes out. Router, client and OpenAPI document all read it. */
export interface Route<Params extends z.ZodType = z.ZodType, Body extends z.ZodType = z.ZodType, Answer extends z.ZodType = z.ZodType> {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** Express path below `/api`, e.g. `/visits/:id`. */
  readonly path: string;
  readonly summary: string;
  /** True for the few routes that work without a session. */
  readonly open?: boolean;
  readonly params: Params;
  readonly body: Body;
  readonly answer: Answer;
}

const nothing = z.undefined();
const none = z.object({});
const ById = z.object({ id: Id });
const BySet = z.object({ id: z.string().max(60) });

function route<P extends z.ZodType, B extends z.ZodType, A extends z.ZodType>(definition: Route<P, B, A>): Route<P, B, A> {
  return definition;
}

export const ROUTES = {
  signIn: route({ method: 'post', path: '/session', summary: 'Sign in', open: true, params: none, body: SignIn, answer: SessionView }),
  session: route({ method: 'get', path: '/session', summary: 'Who is signed in', params: none, body: nothing, answer: SessionView }),
  signOut: route({ method: 'delete', path: '/session', summary: 'Sign out', params: none, body: nothing, answer: none }),
  caseload: route({
    method: 'get',
    path: '/caseload',
    summary: 'Patients in care, with their last visit',
    params: none,
    body: nothing,
    answer: z.array(CaseloadRow),
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
  startVisit: route({
    method: 'post',
    path: '/episodes/:id/visits',
    summary: 'Start a visit',
    params: ById,
    body: NewVisit,
    answer: VisitRecord,
  }),
  visit: route({
    method: 'get',
    path: '/visits/:id',
    summary: 'One visit with its readings and those of the visit before',
    params: ById,
    body: nothing,
    answer: VisitRecord,
  }),
  holdReading: route({
    method: 'post',
    path: '/visits/:id/readings',
    summary: 'Save one held reading; answered once it is committed',
    params: ById,
    body: NewReading,
    answer: SavedReading,
  }),
  withdrawReading: route({
    method: 'post',
    path: '/readings/:id/withdrawal',
    summary: 'Withdraw a reading; it stays on record as withdrawn',
    params: ById,
    body: none,
    answer: none,
  }),
  remark: route({
    method: 'put',
    path: '/visits/:id/remarks',
    summary: 'Note pain, end feel or substitutions of a measurement',
    params: ById,
    body: Remark,
    answer: MeasurementView,
  }),
  judgement: route({
    method: 'get',
    path: '/visits/:id/judgement',
    summary: 'Findings of a visit, with evidence',
    params: ById,
    body: nothing,
    answer: JudgementView,
  }),
  progress: route({
    method: 'get',
    path: '/visits/:id/progress',
    summary: 'Every motion over the visits of an episode, up to this visit',
    params: ById,
    body: nothing,
    answer: ProgressView,
  }),
  judging: route({
    method: 'get',
    path: '/judging',
    summary: 'What this clinic judges by: norm set, thresholds, installed sets',
    params: none,
    body: nothing,
    answer: JudgingView,
  }),
  setSheet: route({
    method: 'put',
    path: '/visits/:id/sheet',
    summary: 'Choose what is measured at a visit',
    params: ById,
    body: z.strictObject({ items: Sheet }),
    answer: VisitRecord,
  }),
  setIntake: route({
    method: 'put',
    path: '/episodes/:id/intake',
    summary: 'Change what an episode is about, with its precautions; what stood before is kept on record',
    params: ById,
    body: IntakeChange,
    answer: EpisodeView,
  }),
  setCautions: route({
    method: 'put',
    path: '/visits/:id/cautions',
    summary: 'Record the answers to the caution questions; earlier answers are kept on record',
    params: ById,
    body: Cautions,
    answer: VisitRecord,
  }),
  setPlan: route({
    method: 'put',
    path: '/visits/:id/plan',
    summary: 'Set the run sheet of a visit; refused where somebody else has changed it since',
    params: ById,
    body: PlanChange,
    answer: VisitRecord,
  }),
  correctReading: route({
    method: 'post',
    path: '/readings/:id/correction',
    summary: 'Put a reading right; the old value stays on record with who, when and why',
    params: ById,
    body: Correction,
    answer: SavedReading,
  }),
  practice: route({
    method: 'get',
    path: '/practice',
    summary: 'How this clinic works: own exam sets, recorded times, hand widths',
    params: none,
    body: nothing,
    answer: PracticeView,
  }),
  setHand: route({
    method: 'put',
    path: '/practice/hand',
    summary: 'Calibrate fist and finger, in cm',
    params: none,
    body: HandWidths,
    answer: PracticeView,
  }),
  addExamSet: route({
    method: 'post',
    path: '/exam-sets',
    summary: 'Keep a choice of measurements as an exam set of the clinic',
    params: none,
    body: OwnExamSet,
    answer: PracticeView,
  }),
  removeExamSet: route({
    method: 'delete',
    path: '/exam-sets/:id',
    summary: 'Take one of the clinic’s own exam sets out of use',
    params: ById,
    body: nothing,
    answer: PracticeView,
  }),
  setJudging: route({
    method: 'put',
    path: '/judging',
    summary: 'Choose the norm set or change thresholds; what stood before is kept on record',
    params: none,
    body: JudgingChange,
    answer: JudgingView,
  }),
  addNormSet: route({
    method: 'post',
    path: '/norm-sets',
    summary: 'Bring in a norm set from CSV: all of it, or nothing with every refused cell named',
    params: none,
    body: NormSetFile,
    answer: NormSetSummary,
  }),
  exportNormSet: route({
    method: 'get',
    path: '/norm-sets/:id/csv',
    summary: 'Any installed set as CSV',
    params: BySet,
    body: nothing,
    answer: NormSetDownload,
  }),
  removeNormSet: route({
    method: 'delete',
    path: '/norm-sets/:id',
    summary: 'Take one of the clinic’s own sets out of use; it stays on record',
    params: BySet,
    body: nothing,
    answer: none,
  }),
} as const;

export type RouteName = keyof typeof ROUTES;
