import type { TiltPair } from './angle/excursion.js';
import type { Degrees, EndFeel, Instrument, InvolvedSide, IsoDate, Mode, MotionId, Position, Sex, Side } from './terms.js';

/** One reading of a goniometer or a single inclinometer, as entered. `start` is 0 where it was not said. */
export interface AngleTrial {
  readonly start?: Degrees;
  readonly end: Degrees;
}

/** One reading at two sites, as entered. */
export interface DualTrial {
  readonly upper: TiltPair;
  readonly lower: TiltPair;
}

export type Trial = AngleTrial | DualTrial;

/** All trials of one motion, side, mode and position on one day. Facts, kept as entered. */
export interface Measurement {
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
  readonly position: Position;
  readonly instrument: Instrument;
  readonly trials: readonly Trial[];
  /** 0–10 during this motion; absent: not asked. */
  readonly pain?: number;
  readonly painWhere?: string;
  readonly endFeel?: EndFeel;
  readonly substitutions?: readonly string[];
  /** Who measured; two examiners carry a larger error than one. */
  readonly examiner?: string;
}

export interface Session {
  readonly assessedOn: IsoDate;
  readonly measurements: readonly Measurement[];
}

export interface Assessment extends Session {
  readonly person: { readonly birthDate: IsoDate; readonly sex: Sex };
  readonly involvedSide?: InvolvedSide;
  readonly previous?: Session;
}

/** What identifies a measurement from visit to visit. Another position is another protocol. */
export type MeasurementKey = `${MotionId}|${Side}|${Mode}|${Position}`;

export function measurementKey(of: Pick<Measurement, 'motion' | 'side' | 'mode' | 'position'>): MeasurementKey {
  return `${of.motion}|${of.side}|${of.mode}|${of.position}`;
}

/** Tells a reading at two sites from a single angle. */
export function isDual(trial: Trial): trial is DualTrial {
  return 'upper' in trial;
}
