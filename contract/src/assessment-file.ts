import {
  allowedSides,
  checkAngle,
  checkWay,
  DEFAULT_NORM_SET,
  endPosition,
  findMotion,
  isDual,
  measurementKey,
  motion,
  readSftr,
  SftrError,
  type Assessment,
  type Measurement,
  type MotionId,
  type Position as PositionId,
  type Side as SideId,
} from '@dial-gauge/core';
import * as z from 'zod';
import { Day, EndFeel, Instrument, InvolvedSide, Joint, Mode, Motion, NormSetId, Position, Sex, Side } from './ids.js';

const Angle = z.number();
const TiltPair = z.strictObject({ zero: Angle, end: Angle });
const AngleTrial = z.strictObject({ start: Angle.optional(), end: Angle });
const DualTrial = z.strictObject({ upper: TiltPair, lower: TiltPair });

const qualifiers = {
  pain: z.int().min(0).max(10).optional(),
  painWhere: z.string().max(200).optional(),
  endFeel: EndFeel.optional(),
  substitutions: z.array(z.string()).optional(),
  examiner: z.string().max(100).optional(),
};

const Reading = z.strictObject({
  motion: Motion,
  side: Side,
  mode: Mode,
  position: Position,
  instrument: Instrument,
  trials: z
    .array(z.union([AngleTrial, DualTrial]))
    .min(1)
    .max(6),
  ...qualifiers,
});

/** An arc in SFTR notation, in place of two measurements. */
const ArcReading = z.strictObject({
  sftr: z.string(),
  joint: Joint,
  side: Side,
  mode: Mode,
  instrument: Instrument,
  position: Position.optional(),
  ...qualifiers,
});

type Item = z.infer<typeof Reading> | z.infer<typeof ArcReading>;
type Refuse = (path: PropertyKey[], message: string) => void;

/** Either kind of item; which one was meant is told by its `sftr`. A refused item is null: an unknown key alone does not stop what follows. */
const ItemSchema = z.custom<unknown>().transform((value, context): Item | null => {
  const schema = typeof value === 'object' && value !== null && 'sftr' in value ? ArcReading : Reading;
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  for (const issue of parsed.error.issues) context.issues.push({ ...issue, input: value } as (typeof context.issues)[number]);
  return null;
});

const Measurements = z
  .array(ItemSchema)
  .min(1)
  .max(1000)
  .transform((items, context): Measurement[] => {
    const refuse: Refuse = (path, message) => context.issues.push({ code: 'custom', path, message, input: items });
    const measurements = items.flatMap((item, index) =>
      (!item ? [] : 'sftr' in item ? fromSftr(item, index, refuse) : [item]).filter((m) => isMeasurable(m, index, refuse)),
    );
    const seen = new Set<string>();
    measurements.forEach((m) => {
      const key = measurementKey(m);
      const index = items.findIndex((item) => item && 'motion' in item && measurementKey(item) === key);
      if (seen.has(key)) refuse([Math.max(index, 0)], `${key.replaceAll('|', ' ')} is given twice; put its trials into one measurement`);
      seen.add(key);
    });
    return measurements;
  });

/** `dial-gauge/assessment`, version 1: one person's measurements of one day, and those of a day before. */
export const AssessmentFile = z
  .strictObject({
    format: z.literal('dial-gauge/assessment'),
    version: z.literal(1),
    person: z.strictObject({ birthDate: Day, sex: Sex }),
    assessedOn: Day,
    involvedSide: InvolvedSide.optional(),
    normSet: NormSetId.default(DEFAULT_NORM_SET),
    measurements: Measurements,
    previous: z.strictObject({ assessedOn: Day, measurements: Measurements }).optional(),
  })
  .superRefine((file, context) => {
    const refuse = (path: string[], message: string) => context.addIssue({ code: 'custom', path, message });
    if (file.assessedOn < file.person.birthDate)
      refuse(['assessedOn'], `lies before the birth date; allowed: ${file.person.birthDate} or later`);
    if (file.previous && file.previous.assessedOn > file.assessedOn) {
      refuse(['previous', 'assessedOn'], `lies after this assessment; allowed: ${file.assessedOn} or earlier`);
    }
  });
export type AssessmentFile = z.infer<typeof AssessmentFile>;

/** What the core judges, from a file that has been accepted. */
export function assessmentOf(file: AssessmentFile): Assessment {
  const { person, assessedOn, involvedSide, measurements, previous } = file;
  return { person, assessedOn, involvedSide, measurements, previous };
}

/** Rotation with the hip bent is the sitting protocol, with the hip straight the prone one. */
const POSITION_BY_SFTR: Readonly<Record<string, PositionId>> = { S90: 'sitting', S0: 'prone' };

function fromSftr(item: z.infer<typeof ArcReading>, index: number, refuse: Refuse): Measurement[] {
  const { sftr, joint, side, mode, instrument, position, ...rest } = item;
  try {
    const reading = readSftr(sftr, joint);
    const [fixed, angle] = Object.entries(reading.fixedAt ?? {})[0] ?? [];
    const ends = reading.motions ?? (typeof angle === 'number' && fixed ? fixedEnds(fixed, angle) : {});
    return Object.entries(ends).flatMap(([id, end]): Measurement[] => {
      const known = findMotion(id);
      if (!known) {
        refuse([index, 'sftr'], `"${id}" is not in the catalogue yet`);
        return [];
      }
      const at = position ?? POSITION_BY_SFTR[reading.position ?? ''] ?? known.protocols[0]?.position ?? 'supine';
      const of = (s: SideId, value: number): Measurement => ({
        ...rest,
        motion: known.id,
        side: s,
        mode,
        position: at,
        instrument,
        trials: [{ end: value }],
      });
      return typeof end === 'number' ? [of(side, end)] : [of('left', end.left), of('right', end.right)];
    });
  } catch (error) {
    if (!(error instanceof SftrError)) throw error;
    refuse([index, 'sftr'], error.message);
    return [];
  }
}

/** A fixed joint ends both its motions at one place: 30 of flexion is −30 of extension. */
function fixedEnds(id: string, at: number): Record<string, number> {
  const opposite: MotionId | null | undefined = findMotion(id)?.opposite;
  return opposite ? { [id]: at, [opposite]: -at } : { [id]: at };
}

function isMeasurable(m: Measurement, index: number, refuse: Refuse): boolean {
  const way = checkWay(m);
  if (way) {
    refuse([index, way.field], way.message);
    return false;
  }
  const sides = allowedSides(motion(m.motion));
  if (!sides.includes(m.side)) {
    refuse([index, 'side'], `"${m.side}" does not fit ${m.motion}; allowed: ${sides.join(', ')}`);
    return false;
  }
  let fine = true;
  m.trials.forEach((trial, t) => {
    if (isDual(trial) !== (m.instrument === 'dualInclinometer')) {
      fine = false;
      refuse(
        [index, 'trials', t],
        m.instrument === 'dualInclinometer'
          ? 'needs upper and lower, each with zero and end'
          : `needs end (and start where it was not 0), as read from a ${m.instrument}`,
      );
      return;
    }
    const angles = isDual(trial)
      ? [[trial, 'upper', endPosition(trial)] as const]
      : [[trial, 'end', trial.end] as const, ...(trial.start === undefined ? [] : [[trial, 'start', trial.start] as const])];
    for (const [, field, angle] of angles) {
      const problem = checkAngle(m.motion, m.instrument, angle);
      if (problem) {
        fine = false;
        refuse([index, 'trials', t, field], problem);
      }
    }
  });
  return fine;
}
