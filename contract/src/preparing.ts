import { CAUTIONS, checkWay, modesOf, protocolOfId } from '@dial-gauge/core/names';
import * as z from 'zod';
import { eachOnce } from './each-once.js';
import { Day, Digit, Id, InvolvedSide, Joint, Mode, Side } from './ids.js';
import { Precaution } from './plan-file.js';

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
    const key = ({ protocol, digit }: SheetItem) => `${protocol} ${digit ?? ''}`;
    eachOnce(items, key, context, 'is on the sheet already; allowed: each way of measuring once');
  });

/** What an episode of care is about, as it is asked at the start and changed later. */
export const Intake = z.strictObject({
  complaint: z.string().trim().min(1).max(300),
  involvedSide: InvolvedSide.nullable().default(null),
  /** Which joint it is about, for an order that starts there. */
  complaintAt: Joint.nullable().default(null),
  /** Id of a procedure that the program knows; null: none, or another one, named below. */
  procedureId: z.string().max(60).nullable().default(null),
  procedure: z.string().trim().max(160).default(''),
  procedureOn: Day.nullable().default(null),
  dominantSide: z.enum(['left', 'right', 'both']).nullable().default(null),
  /** Sport, stairs, instrument: what the patient wants back. */
  wanted: z.string().trim().max(300).default(''),
  precautions: z.array(Precaution).max(60).default([]),
});
export type Intake = z.infer<typeof Intake>;

/** A changed intake. `revision` is the one it was read at: where somebody else has changed it since, it is refused and shown. */
export const IntakeChange = z.strictObject({ ...Intake.shape, revision: z.int() });
export type IntakeChange = z.infer<typeof IntakeChange>;

const known = new Set(CAUTIONS.map((question) => question.id));
const Question = z.string().refine((id) => known.has(id), 'is not one of the questions');

/** Answers to the caution questions of a visit. */
export const Cautions = z.strictObject({
  asked: z.array(Question).max(60),
  yes: z.array(Question).max(60),
  note: z.string().trim().max(500).default(''),
});
export type Cautions = z.infer<typeof Cautions>;

export const CautionsView = z.object({
  ...Cautions.shape,
  outcome: z.enum(['measure', 'measure-with-care', 'refer']),
  by: z.string(),
  at: z.iso.datetime(),
});
export type CautionsView = z.infer<typeof CautionsView>;

/** One line of a run sheet that was prepared. */
export const PlanStep = z
  .strictObject({
    protocol: z.string().max(90),
    digit: Digit.optional(),
    side: Side,
    mode: Mode,
    seconds: z.number().min(0).max(3600),
    provoking: z.boolean().optional(),
    locked: z.boolean().optional(),
    keep: z.boolean().optional(),
    stopAt: z.number().optional(),
  })
  .superRefine(({ protocol: id, digit, side, mode }, context) => {
    const protocol = protocolOfId(id);
    if (!protocol) return void context.addIssue({ code: 'custom', path: ['protocol'], message: `"${id}" is not in the library` });
    const wrong = checkWay({ ...protocol, mode, protocol: id, instrument: protocol.instruments[0]!, digit, side });
    if (wrong) context.addIssue({ code: 'custom', path: [wrong.field], message: wrong.message });
    else if (!modesOf(protocol).includes(mode))
      context.addIssue({ code: 'custom', path: ['mode'], message: `is not told apart here; allowed: ${modesOf(protocol).join(', ')}` });
  });

const LeftOut = z.strictObject({
  motion: z.string().max(60),
  protocol: z.string().max(90),
  digit: Digit.optional(),
  side: Side,
  mode: Mode,
  reason: z.enum(['precaution', 'time']),
  why: z.string().max(300),
});

/** A run sheet as it was prepared: what is measured, in this order, and what was left out. */
export const PlanView = z
  .strictObject({
    steps: z.array(PlanStep).min(1).max(300),
    leftOut: z.array(LeftOut).max(300).default([]),
    minutesAvailable: z.number().min(1).max(240).nullable().default(null),
    trials: z.int().min(1).max(6).default(1),
  })
  .superRefine(({ steps }, context) => {
    const key = ({ protocol, digit, side, mode }: (typeof steps)[number]) => [protocol, digit, side, mode].join(' ');
    eachOnce(steps, key, context, 'is on the run sheet already; allowed: each measurement once', ['steps']);
  });
export type PlanView = z.infer<typeof PlanView>;

export const PlanChange = z.strictObject({ plan: PlanView, sheet: Sheet.optional(), revision: z.int().optional() });
export type PlanChange = z.infer<typeof PlanChange>;

/** A set of the clinic's own. */
export const OwnExamSet = z.strictObject({ id: Id, name: z.string().trim().min(1).max(80), items: Sheet });
export type OwnExamSet = z.infer<typeof OwnExamSet>;

/** Fist and finger of whoever gauges by hand here, in cm. */
export const HandWidths = z.strictObject({ fist: z.number().min(4).max(14), finger: z.number().min(0.8).max(4) });
export type HandWidths = z.infer<typeof HandWidths>;

const seconds = z.record(z.string(), z.number());

/** How this clinic works: its own exam sets, how long things take here, its hands. */
export const PracticeView = z.object({
  examSets: z.array(z.object({ id: Id, name: z.string(), items: z.array(z.object({ protocol: z.string(), digit: Digit.optional() })) })),
  times: z.object({ first: seconds, repeat: seconds, turn: seconds }),
  hand: HandWidths,
});
export type PracticeView = z.infer<typeof PracticeView>;
