import type { DeviceScale } from './angle/scale.js';
import type { Sense, TiltPair } from './angle/excursion.js';
import type { EntryUnit } from './angle/units.js';
import { motion, protocolOf } from './catalogue/index.js';
import type { Operation } from './course/course.js';
import type { Precaution } from './precaution/precaution.js';
import type { ScreenDone } from './screen/result.js';
import { MODES, SIDES } from './terms.js';
import type { Degrees, Digit, EndFeel, Instrument, InvolvedSide, IsoDate, Joint, Mode, MotionId, Position, Sex, Side } from './terms.js';

/** One reading of a goniometer or a single inclinometer, as entered. `start` is 0 where it was not said. */
export interface AngleTrial {
  readonly start?: Degrees;
  readonly end: Degrees;
}

/** One reading at two sites, as entered. */
export interface DualTrial {
  readonly upper: TiltPair;
  readonly lower: TiltPair;
  /** Which way the devices counted; up where it is left out. */
  readonly sense?: Sense;
}

/** One reading of a tape, a dynamometer or a stopwatch, as entered; in the motion's unit where none is said. */
export interface ValueTrial {
  readonly value: number;
  readonly unit?: EntryUnit;
}

/** One reading of an inclinometer that was not set to zero: two figures of its scale. */
export interface TiltTrial {
  readonly tilt: TiltPair;
  /** Which way the device counted while the joint moved. */
  readonly sense: Sense;
}

export type Trial = AngleTrial | DualTrial | ValueTrial | TiltTrial;

/** All trials of one motion, side, mode and position on one day. Facts, kept as entered. */
export interface Measurement {
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
  readonly position: Position;
  /** Which way of measuring, where a position has several; the usual one where it is left out. */
  readonly protocol?: string;
  /** Which finger, for the joints of the fingers. */
  readonly digit?: Digit;
  readonly instrument: Instrument;
  readonly trials: readonly Trial[];
  /** 0–10 during this motion; absent: not asked. */
  readonly pain?: number;
  readonly painWhere?: string;
  readonly endFeel?: EndFeel;
  readonly substitutions?: readonly string[];
  /** Who measured; two examiners carry a larger error than one. */
  readonly examiner?: string;
  /** From an old list: who measured, and how exactly, is not known, so it carries the larger error. */
  readonly broughtIn?: boolean;
}

export interface Session {
  readonly assessedOn: IsoDate;
  readonly measurements: readonly Measurement[];
}

export interface Assessment extends Session {
  readonly person: { readonly birthDate: IsoDate; readonly sex: Sex };
  readonly involvedSide?: InvolvedSide;
  /** Which joint the complaint is about. */
  readonly complaintAt?: Joint;
  /** What was operated on the involved side, and when. */
  readonly procedure?: Operation;
  /** What may not be done, or only so far: a reading that stops at a limit is no loss. */
  readonly precautions?: readonly Precaution[];
  readonly previous?: Session;
  /** Movement screens of the same visit, and those of visits before, oldest first. */
  readonly screens?: readonly ScreenDone[];
  readonly screensBefore?: readonly ScreenDone[];
}

/** Protocol, finger, side and mode: what identifies a measurement from visit to visit. */
export type MeasurementKey = `${string}|${Digit | ''}|${Side}|${Mode}`;

/**
 * Another protocol is another measurement, be it another position or another
 * way in the same one.
 *
 * @throws RangeError when the catalogue does not measure it that way
 */
export function measurementKey(of: Pick<Measurement, 'motion' | 'side' | 'mode' | 'position' | 'protocol' | 'digit'>): MeasurementKey {
  return keyBy(protocolOf(of).id, of);
}

/** The same, where the protocol has been looked up. Made once for each: a long record asks for a few keys thousands of times. */
export function keyBy(protocol: string, { digit, side, mode }: Pick<Measurement, 'digit' | 'side' | 'mode'>): MeasurementKey {
  let made = keys.get(protocol);
  if (!made) keys.set(protocol, (made = []));
  const at = ((digit ?? 0) * SIDES.length + SIDES.indexOf(side)) * MODES.length + MODES.indexOf(mode);
  return (made[at] ??= `${protocol}|${digit ?? ''}|${side}|${mode}`);
}

const keys = new Map<string, MeasurementKey[]>();

/** Tells a reading at two sites from a single angle. */
export function isDual(trial: Trial): trial is DualTrial {
  return 'upper' in trial;
}

/** Tells a length, a force or a time from an angle. */
export function isValue(trial: Trial): trial is ValueTrial {
  return 'value' in trial;
}

/** Tells two figures of a device's scale from an angle counted from zero. */
export function isTilt(trial: Trial): trial is TiltTrial {
  return 'tilt' in trial;
}

/** A reading as records keep it, whatever it was read with. */
export interface StoredReading {
  readonly start: number;
  readonly end: number;
  /** The lower site of a reading at two. */
  readonly lower?: TiltPair | null;
  /** How the device counts, where start and end (and those of the lower site) are figures of its scale. */
  readonly scale?: DeviceScale | null;
  readonly sense?: Sense | null;
  /** As typed, where it was converted: "31.9 lb", "1 fist 2 fingers". */
  readonly entered?: string;
  /** Read off simulated instruments: made-up numbers, to rehearse with. */
  readonly simulated?: boolean;
}

/** A stored reading as the trial it was: a pair of sites, an angle, or a length, force or time. */
export function storedTrial(motionId: MotionId, { start, end, lower, scale, sense }: StoredReading): Trial {
  if (motion(motionId).unit !== 'deg') return { value: end };
  if (lower) return { upper: { zero: start, end }, lower, ...(sense ? { sense } : {}) };
  return scale ? { tilt: { zero: start, end }, sense: sense ?? 1 } : { start, end };
}
