import type { Motion as AboutMotion, MotionId, PlanItem, PlanRequest } from '@dial-gauge/core';
import { allowedSides, checkWay, findMotion, isJoint, motion, PRECAUTION_KINDS, protocolOfId, waysOf } from '@dial-gauge/core/names';
import * as z from 'zod';
import { eachOnce } from './each-once.js';
import { Motion } from './catalogue-ids.js';
import { Day, Digit, InvolvedSide, Mode, Position, Side } from './ids.js';

/** What may not be done, as an episode and a plan file hold it. */
export const Precaution = z
  .strictObject({
    motion: Motion,
    /** What of it is limited; left out: how far. */
    kind: z.enum(PRECAUTION_KINDS).optional(),
    /** Only where these are done at once with it. */
    with: z.array(Motion).min(1).max(3).readonly().optional(),
    /** This way of measuring alone. */
    protocol: z.string().optional(),
    side: Side.optional(),
    mode: Mode.optional(),
    /** Furthest end position in the motion's unit, of a distance that is better small the least; left out or null: not at all. */
    limit: z.number().nullable().default(null),
    /** First day on which it no longer holds. */
    until: Day.nullable().default(null),
    source: z.string().trim().min(1).max(200),
  })
  .superRefine((precaution, context) => {
    const about = findMotion(precaution.motion);
    if (!about) return;
    const refuse = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    refuseLimit(about, precaution, refuse);
    refuseWay(about, precaution, refuse);
    refuseTogether(about, precaution, refuse);
  });

type PrecautionKind = (typeof PRECAUTION_KINDS)[number];
type SideId = z.infer<typeof Side>;

/** What is checked of a precaution beyond the shape of its fields. */
interface Checked {
  readonly motion: MotionId;
  readonly limit: number | null;
  readonly side?: SideId | undefined;
  readonly protocol?: string | undefined;
  readonly kind?: PrecautionKind | undefined;
  readonly with?: readonly MotionId[] | undefined;
}
type Refuse = (path: string, message: string) => void;

/** Kinds that say something of what is no joint: a distance, a muscle length. */
const OF_ANY_MOTION: readonly PrecautionKind[] = ['range', 'end-range', 'resisted'];

function refuseLimit({ name, limits: { min, max } }: AboutMotion, { limit, kind = 'range' }: Checked, refuse: Refuse): void {
  if (limit === null) return;
  if (limit < min || limit > max) refuse('limit', `${limit} is not an end of ${name.toLowerCase()}; allowed: ${min} to ${max}`);
  if (kind !== 'range' && kind !== 'weight')
    refuse('limit', `a limit says nothing of "${kind}"; allowed: no limit, or another kind: range, weight`);
}

function refuseWay(about: AboutMotion, { side, protocol, kind = 'range' }: Checked, refuse: Refuse): void {
  const name = about.name.toLowerCase();
  const sides = allowedSides(about);
  if (side && !sides.includes(side)) refuse('side', `${name} has no side "${side}"; allowed: ${sides.join(', ')}, or left out`);
  const ways = about.protocols.map((way) => way.id);
  if (protocol !== undefined && !ways.includes(protocol))
    refuse('protocol', `"${protocol}" is no way of measuring ${name}; allowed: ${ways.join(', ')}`);
  if (!OF_ANY_MOTION.includes(kind) && !isJoint(about.joint))
    refuse('kind', `"${kind}" says nothing of ${name}; allowed: ${OF_ANY_MOTION.join(', ')}`);
}

function refuseTogether(about: AboutMotion, { motion: id, kind = 'range', with: others = [] }: Checked, refuse: Refuse): void {
  if (others.length === 0) return;
  const name = about.name.toLowerCase();
  if (kind !== 'range') refuse('with', `motions at once are a range; allowed: no "with" beside "${kind}"`);
  else if (!isJoint(about.joint)) refuse('motion', `${name} is no direction of a joint; allowed beside "with": a motion of a joint`);
  for (const other of others) {
    const of = findMotion(other);
    if (of && (!isJoint(of.joint) || other === id))
      refuse('with', `"${other}" cannot be done at once with ${name}; allowed: another motion of a joint`);
  }
}
export type Precaution = z.infer<typeof Precaution>;

const Wanted = z
  .strictObject({
    motion: Motion,
    digit: Digit.optional(),
    /** May be left out where the motion has none. */
    side: Side.optional(),
    /** May be left out where it says nothing: a girth, a distance, a force, a time. */
    mode: Mode.optional(),
    /** Left out: the plan chooses the position that saves a turn. */
    position: Position.optional(),
    protocol: z.string().optional(),
    locked: z.boolean().optional(),
    keep: z.boolean().optional(),
    provoking: z.boolean().optional(),
  })
  .transform((wanted, context): PlanItem => {
    const refuse = (field: string, message: string): PlanItem => {
      context.addIssue({ code: 'custom', path: [field], message });
      return z.NEVER;
    };
    const about = motion(wanted.motion);
    const side = wanted.side ?? (about.sides === 'midline' ? 'midline' : undefined);
    if (!side) return refuse('side', 'is missing; allowed: left, right');
    const modes = [...new Set(about.protocols.flatMap((p) => p.modes))];
    const mode = wanted.mode ?? (about.unit !== 'deg' || modes.length === 1 ? modes[0] : undefined);
    if (!mode) return refuse('mode', `is missing; allowed: ${modes.join(', ')}`);
    const { protocol, position, digit } = wanted;
    const ways = protocol === undefined ? waysOf(wanted.motion, mode, position) : [protocol];
    const found = ways.map(protocolOfId)[0];
    const usual = found ?? { ...about.protocols[0]!, ...(position ? { position } : {}), id: protocol };
    const wrong = checkWay({
      motion: wanted.motion,
      mode,
      position: usual.position,
      protocol: usual.id,
      instrument: usual.instruments[0]!,
      digit,
      side,
    });
    if (wrong) return refuse(wrong.field, wrong.message);
    if (!found) return refuse('mode', `${about.name.toLowerCase()} is not measured "${mode}"; allowed: ${modes.join(', ')}`);
    return { motion: wanted.motion, ...marksOf(wanted), side, mode, protocols: ways };
  });

type Marks = Pick<PlanItem, 'digit' | 'locked' | 'keep' | 'provoking'>;

/** What is marked of a measurement; what is not marked is left out. */
const marksOf = ({ digit, locked, keep, provoking }: { [K in keyof Marks]: Marks[K] | undefined }): Marks => ({
  ...(digit ? { digit } : {}),
  ...(locked ? { locked } : {}),
  ...(keep ? { keep } : {}),
  ...(provoking ? { provoking } : {}),
});

const Provoking = z.union([
  Motion.transform((id) => ({ motion: id, side: undefined, mode: undefined })),
  z.strictObject({ motion: Motion, side: Side.optional(), mode: Mode.optional() }),
]);

/** What `gauge plan` takes: what is to be measured, and what stands in the way. */
export const PlanFile = z
  .strictObject({
    format: z.literal('dial-gauge/plan').optional(),
    version: z.literal(1).optional(),
    assessedOn: Day.optional(),
    measurements: z.array(Wanted).min(1).max(200),
    involvedSide: InvolvedSide.nullable().optional(),
    precautions: z.array(Precaution).max(200).default([]),
    minutesAvailable: z.number().min(1).max(240).nullable().optional(),
    trials: z.int().min(1).max(6).default(1),
    provoking: z.array(Provoking).max(200).default([]),
  })
  .superRefine(({ measurements }, context) => {
    const key = ({ protocols, digit, side, mode }: PlanItem) => [protocols.join(), digit, side, mode].join(' ');
    eachOnce(measurements, key, context, 'is given twice; allowed: each measurement once', ['measurements']);
  });
export type PlanFile = z.infer<typeof PlanFile>;

/** What the core plans, from a file that has been accepted. */
export function planRequestOf(file: PlanFile): PlanRequest {
  const provokes = (item: PlanItem) =>
    item.provoking ||
    file.provoking.some(
      (p) => p.motion === item.motion && (p.side === undefined || p.side === item.side) && (p.mode === undefined || p.mode === item.mode),
    );
  return {
    items: file.measurements.map((item) => (provokes(item) ? { ...item, provoking: true } : item)),
    involved: file.involvedSide ?? null,
    limits: { precautions: file.precautions, cautions: [], on: file.assessedOn ?? null },
    minutesAvailable: file.minutesAvailable ?? null,
    trials: file.trials,
  };
}
