import {
  checkValue,
  checkWay,
  describeEnd,
  DEFAULT_RANKING,
  endPosition,
  ENTRY_UNITS,
  entryUnitsFor,
  findMotion,
  findProtocol,
  finestStep,
  isTooFine,
  isDual,
  isTilt,
  isValue,
  measurementKey,
  motion,
  possibleWays,
  protocolOf,
  PROCEDURES,
  RANKINGS,
  readSftr,
  SFTR_POSITIONS,
  SftrError,
  type Assessment,
  type GradedItem,
  type Measurement,
  type Motion as CatalogueMotion,
  type MotionId,
  type Protocol,
  type Sense,
  type Side as SideId,
  type Trial,
} from '@dial-gauge/core';
import * as z from 'zod';
import { Motion, NormSetId } from './catalogue-ids.js';
import { Precaution } from './plan-file.js';
import { gradedOf, screenDoneOf, ScreenInFile } from './screen-file.js';
import { Day, Digit, EndFeel, Instrument, InvolvedSide, Joint, Mode, Position, Sex, Side } from './ids.js';

const Angle = z.number();
const TiltPair = z.strictObject({ zero: Angle, end: Angle });
const AngleTrial = z.strictObject({ start: Angle.optional(), end: Angle });
/** 1: the device counted up while the joint moved, −1: down. Needed where both can be. */
const SenseTold = z.union([z.literal(1), z.literal(-1)]).optional();
/** Two figures of an inclinometer that was not set to zero; which way it counted is told, or follows from what the motion can hold. */
const TiltTrial = TiltPair.extend({ sense: SenseTold }).transform(({ sense, ...tilt }) => ({ tilt, sense: sense as Sense }));
const DualTrial = z.strictObject({ upper: TiltPair, lower: TiltPair, sense: SenseTold });
const ValueTrial = z.strictObject({ value: z.number(), unit: z.enum(ENTRY_UNITS).optional() });

const qualifiers = {
  pain: z.int().min(0).max(10).optional(),
  painWhere: z.string().max(200).optional(),
  endFeel: EndFeel.optional(),
  substitutions: z.array(z.string()).optional(),
  examiner: z.string().max(100).optional(),
  /** From an old list: it carries the larger error. */
  broughtIn: z.boolean().optional(),
};

const Reading = z.strictObject({
  motion: Motion,
  digit: Digit.optional(),
  side: Side,
  /** May be left out where it says nothing: a girth, a distance, a force, a time. */
  mode: Mode.optional(),
  position: Position,
  protocol: z.string().optional(),
  instrument: Instrument,
  trials: z
    .array(z.union([AngleTrial, DualTrial, ValueTrial, TiltTrial]))
    .min(1)
    .max(6),
  ...qualifiers,
});

/** An arc in SFTR notation, in place of two measurements. */
const ArcReading = z.strictObject({
  sftr: z.string(),
  joint: Joint,
  digit: Digit.optional(),
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
  .max(1000)
  .transform((items, context): Measurement[] => {
    const refuse: Refuse = (path, message) => context.issues.push({ code: 'custom', path, message, input: items });
    const measurements = items.flatMap((item, index) =>
      (!item ? [] : 'sftr' in item ? fromSftr(item, index, refuse) : withMode(item, index, refuse))
        .flatMap((m) => withSense(m, index, refuse))
        .filter((m) => isMeasurable(m, index, refuse))
        .map((m) => ({ m, index })),
    );
    const seen = new Map<string, number>();
    for (const { m, index } of measurements) {
      const first = seen.get(measurementKey(m));
      if (first === undefined) seen.set(measurementKey(m), index);
      else refuse([index], `${nameOf(m)} is given twice, first as ${first}; put its trials into one measurement`);
    }
    return measurements.map(({ m }) => m);
  });

/** `dial-gauge/assessment`, version 1: one person's measurements of one day, and those of a day before. */
export const AssessmentFile = z
  .strictObject({
    format: z.literal('dial-gauge/assessment'),
    version: z.literal(1),
    person: z.strictObject({ birthDate: Day, sex: Sex }),
    assessedOn: Day,
    involvedSide: InvolvedSide.optional(),
    complaintAt: Joint.optional(),
    procedure: z.strictObject({ id: z.enum(PROCEDURES.map((procedure) => procedure.id)), on: Day }).optional(),
    ranking: z.enum(RANKINGS).default(DEFAULT_RANKING),
    /** One set that judges, or several in their order; left out: the program's order. */
    normSet: NormSetId.optional(),
    normSets: z.array(NormSetId).min(1).max(100).optional(),
    precautions: z.array(Precaution).max(200).optional(),
    /** May be empty beside screens. */
    measurements: Measurements.default([]),
    /** Screens of the same visit. */
    screens: z.array(ScreenInFile).max(20).default([]),
    previous: z.strictObject({ assessedOn: Day, measurements: Measurements }).optional(),
  })
  .superRefine((file, context) => {
    const refuse = (path: string[], message: string) => context.addIssue({ code: 'custom', path, message });
    if (file.measurements.length + file.screens.length === 0)
      refuse(['measurements'], 'is empty; allowed: at least one measurement, or a screen under "screens"');
    if (file.previous?.measurements.length === 0) refuse(['previous', 'measurements'], 'is too short; allowed: at least 1');
    if (file.normSet !== undefined && file.normSets !== undefined) refuse(['normSets'], 'is given beside normSet; allowed: one of the two');
    if (new Set(file.normSets).size !== (file.normSets?.length ?? 0)) refuse(['normSets'], 'names a set twice; allowed: each once');
    for (const { path, message } of wrongDays(file)) refuse(path, message);
  });
export type AssessmentFile = z.infer<typeof AssessmentFile>;

interface Dated {
  readonly person: { readonly birthDate: string };
  readonly assessedOn: string;
  readonly procedure?: { readonly on: string } | undefined;
  readonly previous?: { readonly assessedOn: string } | undefined;
}

/** Days that lie before the birth or after the assessment. */
function wrongDays({ person: { birthDate }, assessedOn, procedure, previous }: Dated): { path: string[]; message: string }[] {
  const days: readonly (readonly [path: string[], day: string | undefined])[] = [
    [['previous', 'assessedOn'], previous?.assessedOn],
    [['procedure', 'on'], procedure?.on],
    [['assessedOn'], assessedOn],
  ];
  return days.flatMap(([path, day]) => {
    if (day === undefined) return [];
    if (day < birthDate) return [{ path, message: `lies before the birth date; allowed: ${birthDate} or later` }];
    return day > assessedOn ? [{ path, message: `lies after this assessment; allowed: ${assessedOn} or earlier` }] : [];
  });
}

/** Graded items of all screens of a file. */
export const screensOf = (file: AssessmentFile): GradedItem[] =>
  file.screens.flatMap((screen) => gradedOf(screenDoneOf(screen, file.assessedOn)));

/** What the core judges, from a file that has been accepted. */
export function assessmentOf(file: AssessmentFile): Assessment {
  const { person, assessedOn, involvedSide, complaintAt, procedure, precautions, measurements, previous } = file;
  return { person, assessedOn, involvedSide, complaintAt, procedure, precautions, measurements, previous };
}

const nameOf = ({ motion: id, digit, side, mode, position }: Measurement): string =>
  [id, digit, side, mode, position].filter((part) => part !== undefined).join(' ');

/** The mode where it was left out and says nothing; refused where it does. */
function withMode(item: z.infer<typeof Reading>, index: number, refuse: Refuse): Measurement[] {
  if (item.mode !== undefined) return [{ ...item, mode: item.mode }];
  const modes = findProtocol(item.motion, item.position)?.modes ?? ['active', 'passive'];
  if (motion(item.motion).unit !== 'deg' || modes.length === 1) return [{ ...item, mode: modes[0]! }];
  refuse([index, 'mode'], `is missing; allowed: ${modes.join(', ')}`);
  return [];
}

/** Which way a device counted, where it was not told: the only way that the motion can have gone. Where both can be, it is not guessed. */
function withSense(m: Measurement, index: number, refuse: Refuse): Measurement[] {
  const about = motion(m.motion);
  let isTold = true;
  const trials = m.trials.map((trial, at): Trial => {
    if (!(isTilt(trial) || isDual(trial)) || trial.sense !== undefined) return trial;
    const valueAt = (sense: Sense) => endPosition({ ...trial, sense });
    const ways = possibleWays(valueAt, about.limits);
    if (ways.length === 2) {
      isTold = false;
      const [up, down] = ways.map(({ value }) => describeEnd(about, Math.round(value * 10) / 10));
      refuse(
        [index, 'trials', at, 'sense'],
        `is missing: the device can have counted up (${up}) or down (${down}); allowed: 1 for up, -1 for down`,
      );
    }
    return { ...trial, sense: ways[0]?.sense ?? 1 };
  });
  return isTold ? [{ ...m, trials }] : [];
}

/** The first usual way of measuring that fits what was said. */
function protocolFor(
  { protocols }: CatalogueMotion,
  { mode, instrument, position }: Pick<z.infer<typeof ArcReading>, 'mode' | 'instrument' | 'position'>,
): Protocol | undefined {
  const usual = protocols.filter((p) => p.variant === null && (position === undefined || p.position === position));
  return usual.find((p) => p.modes.includes(mode) && p.instruments.includes(instrument)) ?? usual[0];
}

/** The position named in the brackets of an arc, or what is wrong with it. */
function bracketed(
  bracket: ReturnType<typeof readSftr>['position'],
  { joint, position }: Pick<z.infer<typeof ArcReading>, 'joint' | 'position'>,
): { readonly named: z.infer<typeof Position> | undefined } | { readonly field: 'position' | 'sftr'; readonly message: string } {
  if (bracket === null) return { named: undefined };
  const named = SFTR_POSITIONS[joint]?.[bracket];
  if (named === undefined) {
    const known = Object.keys(SFTR_POSITIONS[joint] ?? {}).join(', ') || 'none';
    return {
      field: 'sftr',
      message: `no protocol of the ${joint} is known for (${bracket}); allowed: ${known}, or no bracket and the position`,
    };
  }
  return position === undefined || named === position
    ? { named }
    : { field: 'position', message: `"${position}" is not where (${bracket}) is measured; allowed: ${named}, or no position` };
}

function fromSftr(item: z.infer<typeof ArcReading>, index: number, refuse: Refuse): Measurement[] {
  const { sftr, joint, side, mode, instrument, position, ...rest } = item;
  try {
    const reading = readSftr(sftr, joint);
    const place = bracketed(reading.position, item);
    if ('field' in place) {
      refuse([index, place.field], place.message);
      return [];
    }
    const { named } = place;
    const [fixed, angle] = Object.entries(reading.fixedAt ?? {})[0] ?? [];
    const ends = reading.motions ?? (fixed && angle !== undefined ? fixedEnds(fixed, angle) : {});
    return Object.entries(ends).flatMap(([id, end]): Measurement[] => {
      const known = findMotion(id);
      if (!known) {
        refuse([index, 'sftr'], `"${id}" is not in the catalogue`);
        return [];
      }
      const protocol = protocolFor(known, { mode, instrument, position: position ?? named });
      const at = protocol?.position ?? position ?? named ?? known.protocols[0]!.position;
      const of = (s: SideId, value: number): Measurement => ({
        ...rest,
        motion: known.id,
        side: known.sides === 'midline' ? 'midline' : s,
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

/** A fixed joint ends both its motions at one place: 30 of flexion is −30 of extension, 10 to the right −10 to the left. */
function fixedEnds(
  id: string,
  at: number | { left: number } | { right: number },
): Record<string, number | { left: number; right: number }> {
  if (typeof at !== 'number') return { [id]: 'left' in at ? { left: at.left, right: -at.left } : { left: -at.right, right: at.right } };
  const opposite: MotionId | null | undefined = findMotion(id)?.opposite;
  return opposite ? { [id]: at, [opposite]: -at } : { [id]: at };
}

function isMeasurable(m: Measurement, index: number, refuse: Refuse): boolean {
  const way = checkWay(m);
  if (way) {
    refuse([index, way.field], way.message);
    return false;
  }
  const known = protocolOf(m).substitutions.map((substitution) => substitution.id);
  const unknown = (m.substitutions ?? []).filter((id) => !known.includes(id));
  for (const id of unknown) refuse([index, 'substitutions'], `"${id}" is none of ${nameOf(m)}; allowed: ${known.join(', ') || 'none'}`);
  if (unknown.length > 0) return false;
  const problems = m.trials.flatMap((trial, t) => trialProblems(m, trial).map(([field, message]) => [t, field, message] as const));
  for (const [t, field, message] of problems) refuse([index, 'trials', t, ...(field ? [field] : [])], message);
  return problems.length === 0;
}

type TrialProblem = readonly [field: string, message: string];

/** What of one trial does not fit its motion and instrument. */
function trialProblems({ motion: id, instrument }: Measurement, trial: Trial): TrialProblem[] {
  const { unit } = motion(id);
  const checked = (field: string, value: number): TrialProblem[] => {
    const problem = checkValue(id, instrument, value);
    return problem ? [[field, problem]] : [];
  };
  if (instrument === 'dualInclinometer') {
    if (!isDual(trial)) return [['', 'needs upper and lower, each with zero and end']];
    return checked('upper', Math.round(endPosition(trial) * 10) / 10);
  }
  if (unit === 'deg') {
    if (isTilt(trial))
      return instrument === 'inclinometer'
        ? checked('end', endPosition(trial))
        : [['zero', `belongs to an inclinometer that was not set to zero, not to a ${instrument}`]];
    if (isDual(trial) || isValue(trial)) return [['', `needs end (and start where it was not 0), as read from a ${instrument}`]];
    if (trial.start && trial.start > trial.end)
      return [['start', `${trial.start} lies after the end, ${trial.end}; allowed: a start at the end or before it`]];
    return [...checked('end', trial.end), ...(trial.start === undefined ? [] : checked('start', trial.start))];
  }
  if (!isValue(trial)) return [['', `needs value in ${unit}, as read from a ${instrument}`]];
  const units = entryUnitsFor(unit);
  if (trial.unit && !units.includes(trial.unit)) return [['unit', `"${trial.unit}" does not measure this; allowed: ${units.join(', ')}`]];
  // What was entered is held to the instrument's steps; what it comes to, to what a body can hold.
  if (isTooFine(instrument, trial.value, unit)) return checked('value', trial.value);
  const step = finestStep(instrument, unit);
  return checked('value', Math.round(endPosition(trial) / step) * step);
}

/** The norm sets of a file in their order; undefined: the program's. */
export const normSetsOf = ({ normSet, normSets }: Pick<AssessmentFile, 'normSet' | 'normSets'>): readonly string[] | undefined =>
  normSets ?? (normSet === undefined ? undefined : [normSet]);
