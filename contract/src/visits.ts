import * as z from 'zod';
import { ClinicView } from './clinic.js';
import { EpisodeView } from './episode-view.js';
import { AnyDay, Day, Id } from './ids.js';
import { OwnNormSet } from './norms.js';
import { PatientView } from './patients.js';
import { OddRecord } from './problem.js';
import { MeasurementView } from './readings.js';
import { OwnErrors } from './reliability.js';
import { ValueChecks } from './value-checks.js';
import { ById, nothing, route } from './route.js';
import { Cautions, CautionsView, PlanChange, PlanView, Sheet, SheetView } from './sheet.js';
import { VisitView } from './visit-view.js';

export const NewVisit = z.strictObject({ id: Id, assessedOn: Day, sheet: Sheet.optional() });
export type NewVisit = z.infer<typeof NewVisit>;

export const VisitRecord = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  /** Norm sets in the order in which they are asked. */
  normSets: z.array(z.string()),
  /** Those of them that are the clinic's own, in full. */
  ownNormSets: z.array(OwnNormSet),
  ownErrors: OwnErrors,
  /** Values that the clinic looked up, as far as they are needed here. */
  valueChecks: ValueChecks,
  /** What is to be measured; null: the default set. */
  sheet: SheetView.nullable(),
  /** The run sheet as it was prepared; null: planned from the sheet. */
  plan: PlanView.nullable(),
  /** Counts up with every change of the plan or the caution answers. */
  revision: z.int(),
  cautions: CautionsView.nullable(),
  hand: ClinicView.shape.hand,
  measurements: z.array(MeasurementView),
  /** The visit before, with readings; what the hollow marks show. */
  previous: z.object({ assessedOn: AnyDay, measurements: z.array(MeasurementView) }).nullable(),
  /** Records of this visit that this version cannot read: they are not judged. */
  odd: z.array(OddRecord),
});
export type VisitRecord = z.infer<typeof VisitRecord>;

/** Visits, and how they are prepared. */
export const VISITS = {
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
    keep: true,
    summary: 'One visit with its readings and those of the visit before',
    params: ById,
    body: nothing,
    answer: VisitRecord,
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
} as const;
