import { checkValue, checkWay, DEVICE_SCALES, endPosition, storedTrial } from '@dial-gauge/core/names';
import * as z from 'zod';
import type { MotionId } from '@dial-gauge/core';
import { Motion } from './catalogue-ids.js';
import { Digit, EndFeel, Id, Instrument, Mode, Position, Side } from './ids.js';
import { explain } from './explain.js';
import { ById, none, route } from './route.js';

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

/** A limit that was passed, and why. */
export const PastLimit = z.strictObject({ limit: z.number().min(-999).max(9999).nullable(), why: z.string().trim().min(1).max(300) });
export type PastLimit = z.infer<typeof PastLimit>;

/** What a tilting device can show, to a tenth of a degree, however it counts. */
const Shown = z
  .number()
  .min(-360)
  .max(360)
  .refine((figure) => Math.abs(figure * 10 - Math.round(figure * 10)) < 1e-6, 'is finer than a device shows; allowed: steps of 0.1');
const TiltPair = z.strictObject({ zero: Shown, end: Shown });

/** What was read: an angle, a pair of tilts, or an amount. */
const figures = {
  start: z.number().default(0),
  end: z.number(),
  /** Zero and end of the lower site, where the reading was taken at two; start and end are then the upper one's. */
  lower: TiltPair.optional(),
  /** How the device counts, where it was not set to zero: start and end are then figures of its scale. */
  scale: z.enum(DEVICE_SCALES).optional(),
  /** Which way the device counted while the joint moved. */
  sense: z.literal([1, -1]).optional(),
  /** As it was entered, where it was converted: "47 lb". */
  entered: z.string().trim().max(80).optional(),
};

type Figures = Pick<NewReading, 'motion' | 'instrument' | 'start' | 'end' | 'lower' | 'scale' | 'sense'>;

/** What does not fit the motion and the instrument, field by field. */
export function figureProblems(reading: Figures, isWay = true): FieldProblem[] {
  const { instrument, lower, scale } = reading;
  const problems: FieldProblem[] = [];
  const dual = instrument === 'dualInclinometer';
  if (dual !== (lower !== undefined)) {
    const message = dual ? 'is missing; allowed: zero and end of the lower site' : 'belongs to a reading at two sites; leave it out';
    problems.push({ field: 'lower', message });
  }
  if (scale && !dual && instrument !== 'inclinometer')
    problems.push({ field: 'scale', message: 'belongs to a reading of an inclinometer; leave it out' });
  if (!isWay) return problems;
  return lower || scale ? [...problems, ...shownProblems(reading, problems.length > 0)] : [...problems, ...valueProblems(reading)];
}

interface FieldProblem {
  field: string;
  message: string;
}

/** What a device showed, at one site or two: figures that it can show, and what they come to that a body can hold. */
function shownProblems(reading: Figures, isWrongAlready: boolean): FieldProblem[] {
  const { motion: id, instrument, lower } = reading;
  const problems = (['start', 'end'] as const).flatMap((field) => {
    const shown = Shown.safeParse(reading[field]);
    return shown.success ? [] : explain(shown.error).map(({ message }) => ({ field, message }));
  });
  if (isWrongAlready || problems.length > 0) return problems;
  const value = Math.round(endPosition(storedTrial(id, reading)) * 10) / 10;
  const message = checkValue(id, instrument, value);
  return message ? [{ field: 'end', message: `${lower ? 'upper less lower' : 'from zero to end'}: ${message}` }] : [];
}

/** What was read directly. A start at zero is always right. */
const valueProblems = (reading: Figures): FieldProblem[] =>
  (['start', 'end'] as const).flatMap((field) => {
    if (field === 'start' && reading.start === 0) return [];
    const message = checkValue(reading.motion, reading.instrument, reading[field]);
    return message ? [{ field, message }] : [];
  });

/** One held reading: degrees from `start` to `end`, or a length, force or time in `end`. `id` is made by the client: sending it twice saves it once. */
export const NewReading = z
  .strictObject({
    id: Id,
    ...way,
    instrument: Instrument,
    ...figures,
    heldAt: z.iso.datetime(),
    /** Where a precaution was passed: the limit, and why. */
    pastLimit: PastLimit.optional(),
    /** Read off simulated instruments. A visit that holds such readings is a rehearsal and is not signed. */
    simulated: z.boolean().optional(),
  })
  .superRefine((reading, context) => {
    const wrong = checkWay(reading);
    if (wrong) context.addIssue({ code: 'custom', path: [wrong.field], message: wrong.message });
    for (const { field, message } of figureProblems(reading, wrong === undefined)) {
      context.addIssue({ code: 'custom', path: [field], message });
    }
  });
export type NewReading = z.infer<typeof NewReading>;

export const TrialView = z.object({
  id: Id,
  start: z.number(),
  end: z.number(),
  lower: z.object({ zero: z.number(), end: z.number() }).nullable(),
  scale: z.enum(DEVICE_SCALES).nullable(),
  sense: z.literal([1, -1]).nullable(),
  entered: z.string(),
  instrument: Instrument,
  heldAt: z.iso.datetime(),
  examiner: z.string(),
  pastLimit: z.object({ limit: z.number().nullable(), why: z.string() }).nullable(),
  /** Made-up numbers of simulated instruments. */
  simulated: z.boolean(),
  /** By how many seconds the clock of the device was off, where `heldAt` was put right by it. */
  clockOff: z.int().nullable(),
  /** What it said before it was corrected, oldest first: who corrected it, when and why. */
  corrected: z.array(
    z.object({ value: z.number(), entered: z.string(), examiner: z.string(), by: z.string(), at: z.iso.datetime(), why: z.string() }),
  ),
});
export type TrialView = z.infer<typeof TrialView>;

/** Why something of the run sheet has no reading. */
export const NOT_DONE = ['left-out', 'refused', 'not-possible'] as const;
export const NotDone = z.enum(NOT_DONE);
export type NotDone = z.infer<typeof NotDone>;

const notes = {
  pain: z.int().nullable(),
  painWhere: z.string(),
  endFeel: EndFeel.nullable(),
  substitutions: z.array(z.string()),
  notDone: NotDone.nullable(),
  notDoneWhy: z.string(),
  note: z.string(),
};

/** What was noted beside the readings of one measurement. A field left out stays as it is. */
export const Remark = z.strictObject({
  ...way,
  pain: z.int().min(0).max(10).nullable().optional(),
  painWhere: z.string().trim().max(200).optional(),
  endFeel: EndFeel.nullable().optional(),
  substitutions: z.array(z.string().max(60)).max(12).optional(),
  notDone: NotDone.nullable().optional(),
  notDoneWhy: z.string().trim().max(300).optional(),
  note: z.string().trim().max(1000).optional(),
  /** What the field said when it was changed: where it says something else by now, somebody else was there, and nothing is overwritten. */
  was: z
    .strictObject({ ...notes })
    .partial()
    .optional(),
});
export type Remark = z.infer<typeof Remark>;

export const MeasurementView = z.object({
  ...way,
  motion: z.custom<MotionId>((value) => typeof value === 'string'),
  protocol: z.string().optional(),
  instrument: Instrument,
  trials: z.array(TrialView),
  ...notes,
});
export type MeasurementView = z.infer<typeof MeasurementView>;

/** A held reading, once it is committed. */
export const SavedReading = z.object({ reading: TrialView, repeated: z.boolean() });
export type SavedReading = z.infer<typeof SavedReading>;

/** A reading put right: what it should have said, and why. The old value stays on record. */
export const Correction = z.strictObject({ id: Id, ...figures, why: z.string().trim().min(1).max(300) });
export type Correction = z.infer<typeof Correction>;

/** What is measured at a visit, as it was entered. */
export const READINGS = {
  holdReading: route({
    method: 'post',
    path: '/visits/:id/readings',
    summary: 'Save one held reading; answered once it is committed',
    params: ById,
    body: NewReading,
    answer: SavedReading,
  }),
  correctReading: route({
    method: 'post',
    path: '/readings/:id/correction',
    summary: 'Put a reading right; the old value stays on record with who, when and why',
    params: ById,
    body: Correction,
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
} as const;
