import { BODY_PARTS, CAUTION_IDS, checkWay, modesOf, protocolOfId } from '@dial-gauge/core/names';
import * as z from 'zod';
import { eachOnce } from './each-once.js';
import { Digit, Mode, Side } from './ids.js';

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

const known = new Set(CAUTION_IDS);
const Question = z.string().refine((id) => known.has(id), 'is not one of the questions');

/** Answers to the caution questions of a visit. */
export const Cautions = z.strictObject({
  asked: z.array(Question).max(60),
  yes: z.array(Question).max(60),
  note: z.string().trim().max(500).default(''),
  /** Parts of the body that an answer is about; an answer without any holds everywhere. */
  where: z.record(Question, z.array(z.enum(BODY_PARTS)).max(BODY_PARTS.length)).default({}),
  /** The visit as it was read: where somebody else has answered since, nothing is overwritten. */
  revision: z.int().min(0),
});
export type Cautions = z.infer<typeof Cautions>;

export const CautionsView = z.object({
  asked: z.array(z.string()),
  yes: z.array(z.string()),
  note: z.string(),
  where: z.record(z.string(), z.array(z.string())).optional(),
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
    stopAt: z.number().min(-999).max(9999).optional(),
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

/** A run sheet as it is prepared: what is measured, in this order, and what is left out. */
export const Plan = z
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

/** A run sheet as it is stored. */
export const PlanView = z.object({
  steps: z.array(
    z.object({
      protocol: z.string(),
      digit: Digit.optional(),
      side: Side,
      mode: Mode,
      seconds: z.number(),
      provoking: z.boolean().optional(),
      locked: z.boolean().optional(),
      keep: z.boolean().optional(),
      stopAt: z.number().optional(),
    }),
  ),
  leftOut: z.array(
    z.object({
      motion: z.string(),
      protocol: z.string(),
      digit: Digit.optional(),
      side: Side,
      mode: Mode,
      reason: z.enum(['precaution', 'time']),
      why: z.string(),
    }),
  ),
  minutesAvailable: z.number().nullable(),
  trials: z.int(),
});
export type PlanView = z.infer<typeof PlanView>;

/** Stored sheets hold names that are checked when they are used. */
export const SheetView = z.array(z.object({ protocol: z.string(), digit: Digit.optional() }));

/** A changed run sheet. With `revision` it replaces the one read at it; without, it is added to what stands there, as at the dial. */
export const PlanChange = z.strictObject({ plan: Plan, sheet: Sheet.optional(), revision: z.int().min(0).optional() });
export type PlanChange = z.infer<typeof PlanChange>;
