import * as z from 'zod';
import { Id } from './ids.js';
import { ById, none, nothing, route } from './route.js';
import { Sheet, SheetView } from './sheet.js';

/** A set of the clinic's own. */
export const OwnExamSet = z.strictObject({ id: Id, name: z.string().trim().min(1).max(80), items: Sheet });
export type OwnExamSet = z.infer<typeof OwnExamSet>;

/** Fist and finger of whoever gauges by hand here, in cm. */
export const HandWidths = z.strictObject({ fist: z.number().min(4).max(14), finger: z.number().min(0.8).max(4) });
export type HandWidths = z.infer<typeof HandWidths>;

const Seconds = z.record(z.string(), z.number());

/** How this clinic works: its own exam sets, how long things take here, its hands. */
export const ClinicView = z.object({
  examSets: z.array(z.object({ id: Id, name: z.string(), items: SheetView })),
  times: z.object({ first: Seconds, repeat: Seconds, turn: Seconds }),
  hand: HandWidths,
});
export type ClinicView = z.infer<typeof ClinicView>;

/** How the caller's clinic works. */
export const CLINIC = {
  clinic: route({
    method: 'get',
    path: '/clinic',
    keep: true,
    summary: 'How this clinic works: own exam sets, recorded times, hand widths',
    params: none,
    body: nothing,
    answer: ClinicView,
  }),
  setHand: route({
    method: 'put',
    path: '/clinic/hand',
    summary: 'Calibrate fist and finger, in cm',
    params: none,
    body: HandWidths,
    answer: ClinicView,
  }),
  addExamSet: route({
    method: 'post',
    path: '/exam-sets',
    summary: 'Keep a choice of measurements as an exam set of the clinic',
    params: none,
    body: OwnExamSet,
    answer: ClinicView,
  }),
  removeExamSet: route({
    method: 'delete',
    path: '/exam-sets/:id',
    summary: 'Take one of the clinic’s own exam sets out of use',
    params: ById,
    body: nothing,
    answer: ClinicView,
  }),
} as const;
