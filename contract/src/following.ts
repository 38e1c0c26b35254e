import type { GoalChoice } from '@dial-gauge/core';
import { checkValue, checkWay, GOAL_SOURCES, MARKERS, protocolOfId, TASK_NEEDS } from '@dial-gauge/core/names';
import * as z from 'zod';
import { eachOnce } from './each-once.js';
import { Digit, Id, Instrument, Mode, Side } from './ids.js';

/** One way of measuring on one side, by its protocol. */
const way = { protocol: z.string().max(90), digit: Digit.optional(), side: Side, mode: Mode };

type Way = z.infer<z.ZodObject<typeof way>>;

/** What does not fit the catalogue; nothing where all is well. */
function wayProblem(
  { protocol: id, digit, side, mode }: Way,
  instrument?: z.infer<typeof Instrument>,
): { field: string; message: string } | undefined {
  const protocol = protocolOfId(id);
  if (!protocol) return { field: 'protocol', message: `"${id}" is not in the library; allowed: a protocol id, as hip.flexion/supine` };
  return checkWay({ ...protocol, protocol: id, digit, side, mode, instrument: instrument ?? protocol.instruments[0]! });
}

/** Where the goal of one measurement comes from; null takes it back. */
export const GoalChange = z
  .strictObject({
    ...way,
    goal: z
      .strictObject({
        source: z.enum(GOAL_SOURCES),
        value: z.number().optional(),
        task: z.enum(TASK_NEEDS.map((need) => need.task)).optional(),
        less: z.number().min(0).max(90).optional(),
        note: z.string().trim().max(120).optional(),
      })
      .nullable(),
  })
  .superRefine((change, context) => {
    const refuse = (path: string[], message: string) => context.addIssue({ code: 'custom', path, message });
    const wrong = wayProblem(change);
    if (wrong) return void refuse([wrong.field], wrong.message);
    const { goal } = change;
    const { motion, instruments } = protocolOfId(change.protocol)!;
    if (goal?.source === 'hand') {
      const message =
        goal.value === undefined ? 'is missing; allowed: the goal in the motion’s unit' : checkValue(motion, instruments[0]!, goal.value);
      if (message) refuse(['goal', 'value'], message);
    }
    if (goal?.source === 'task' && !TASK_NEEDS.some((need) => need.motion === motion && need.task === goal.task)) {
      const known = TASK_NEEDS.filter((need) => need.motion === motion).map((need) => need.task);
      refuse(['goal', 'task'], `asks nothing of this motion; allowed: ${known.join(', ') || 'none, no task is known for it'}`);
    }
  });
export type GoalChange = z.infer<typeof GoalChange>;

/** A goal as it was chosen. */
export const GoalView = z.object({ ...way, goal: z.custom<GoalChoice>((value) => typeof value === 'object' && value !== null) });
export type GoalView = z.infer<typeof GoalView>;

export const Marker = z.strictObject({ ...way, instrument: Instrument }).superRefine((marker, context) => {
  const wrong = wayProblem(marker, marker.instrument);
  if (wrong) context.addIssue({ code: 'custom', path: [wrong.field], message: wrong.message });
});
export type Marker = z.infer<typeof Marker>;

/** Begins a retest with its markers. */
export const NewRetest = z.strictObject({
  id: Id,
  markers: z
    .array(Marker)
    .min(MARKERS.least)
    .max(MARKERS.most)
    .superRefine((markers, context) => {
      eachOnce(markers, ({ protocol, digit, side, mode }) => [protocol, digit, side, mode].join(' '), context, 'is a marker already');
    }),
});
export type NewRetest = z.infer<typeof NewRetest>;

/** What was done before the readings of a round. Round 0 is the baseline and has none. */
export const NewRound = z.strictObject({ id: Id, number: z.int().min(1).max(30), drill: z.string().trim().min(2).max(120) });
export type NewRound = z.infer<typeof NewRound>;

/** One marker read in one round. Another reading of the same replaces it; the first stays on record. */
export const MarkerReading = z.strictObject({
  id: Id,
  round: z.int().min(0).max(30),
  marker: z
    .int()
    .min(0)
    .max(MARKERS.most - 1),
  value: z.number(),
});
export type MarkerReading = z.infer<typeof MarkerReading>;

export const RetestView = z.object({
  id: Id,
  markers: z.array(z.object({ ...way, instrument: Instrument })),
  rounds: z.array(z.object({ drill: z.string(), values: z.array(z.number().nullable()) })),
  by: z.string(),
  startedAt: z.iso.datetime(),
  finishedAt: z.iso.datetime().nullable(),
});
export type RetestView = z.infer<typeof RetestView>;
