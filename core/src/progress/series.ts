import { measurementKey, type MeasurementKey, type Session } from '../assessment.js';
import { bandAround } from '../error/sem.js';
import { measure, type MeasuredValue } from '../measurement.js';
import { protocolOf } from '../catalogue/index.js';
import type { Digit, IsoDate, Mode, MotionId, Position, Side } from '../terms.js';
import { changeBetween, type Change } from '../finding/change.js';

export interface SeriesPoint {
  readonly on: IsoDate;
  readonly value: number;
  /** Half-width of the 95 % band round this reading, in the motion's unit. */
  readonly error: number;
  readonly pain: number | null;
}

/** One measurement over the visits, oldest first. */
export interface Series {
  readonly key: MeasurementKey;
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
  readonly position: Position;
  readonly protocol: string;
  readonly digit?: Digit;
  readonly points: readonly SeriesPoint[];
  /** True when the last reading is of the last visit: without it there is nothing new to tell. */
  readonly isCurrent: boolean;
  /** Last reading against the one before it; null with a single reading. */
  readonly sinceLast: Change | null;
  /** Last reading against the first; null with a single reading. */
  readonly sinceFirst: Change | null;
}

/**
 * Sorts the readings of several visits into one series per protocol, side
 * and mode. Another protocol starts a series of its own: sitting and
 * prone are never joined.
 *
 * @param sessions in any order
 */
export function seriesOf(sessions: readonly Session[]): Series[] {
  const rows = new Map<MeasurementKey, { session: Session; measured: MeasuredValue }[]>();
  const oldestFirst = [...sessions].sort((a, b) => a.assessedOn.localeCompare(b.assessedOn));
  for (const session of oldestFirst) {
    for (const measurement of session.measurements) {
      if (measurement.trials.length === 0) continue;
      const key = measurementKey(measurement);
      rows.set(key, [...(rows.get(key) ?? []), { session, measured: measure(measurement) }]);
    }
  }
  return [...rows].map(([key, readings]) => {
    const { session: lastSession, measured: last } = readings[readings.length - 1]!;
    const { motion, side, mode, position, digit } = last.measurement;
    const since = (index: number) => (readings.length > 1 ? changeBetween(readings[index]!.measured, last) : null);
    return {
      key,
      motion,
      side,
      mode,
      position,
      protocol: protocolOf(last.measurement).id,
      digit,
      isCurrent: lastSession === oldestFirst[oldestFirst.length - 1],
      points: readings.map(({ session, measured }) => ({
        on: session.assessedOn,
        value: measured.value,
        error: bandAround(measured.sem),
        pain: measured.measurement.pain ?? null,
      })),
      sinceLast: since(readings.length - 2),
      sinceFirst: since(0),
    };
  });
}
