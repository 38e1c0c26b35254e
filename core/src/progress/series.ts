import type { ErrorSource } from '../error/source.js';
import { compareDays } from '../days.js';
import type { MeasurementKey, Session } from '../assessment.js';
import { protocolOf } from '../catalogue/index.js';
import type { ErrorContext } from '../error/own.js';
import { bandAround } from '../error/sem.js';
import { changeBetween, changeOf, errorOfTwo, type Change, type Comparable } from '../finding/change.js';
import { measure, type MeasuredValue } from '../measurement.js';
import type { Digit, Instrument, IsoDate, Mode, MotionId, Position, Side } from '../terms.js';

export interface SeriesPoint {
  readonly on: IsoDate;
  readonly value: number;
  readonly sem: number;
  /** Standard errors beside a reading of the same examiner and beside one of another; left out where one examiner took them all. */
  readonly sems?: { readonly same: number; readonly other: number };
  /** Half-width of the 95 % band round this reading, in the motion's unit. */
  readonly error: number;
  readonly pain: number | null;
  readonly instrument: Instrument;
  readonly examiner: string | null;
  /** From an old list. */
  readonly broughtIn?: true;
  /** Why this reading takes no part in the trend; null: it does. */
  readonly apart: Apart | null;
}

/** Another examiner, or another instrument, than took most of the others. */
export type Apart = 'other-examiner' | 'other-instrument';

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
  /** The same motion by another protocol: said, never joined. */
  readonly notJoined: readonly NotJoined[];
  readonly errorSource: ErrorSource;
}

/** Readings of the same motion that were taken by another protocol. */
export interface NotJoined {
  readonly protocol: string;
  readonly on: readonly IsoDate[];
}

interface Row {
  readonly session: Session;
  readonly measured: MeasuredValue;
  /** Examiner and instrument. */
  readonly way: string;
}

/**
 * Sorts the readings of several visits into one series per protocol, side
 * and mode. Another protocol starts a series of its own: sitting and
 * prone are never joined. Readings of another examiner or instrument than
 * most stay in it with their larger error, and take no part in the trend.
 *
 * @param sessions in any order
 */
export function seriesOf(sessions: readonly Session[], context: ErrorContext = {}): Series[] {
  const rows = new Map<MeasurementKey, Row[]>();
  const oldestFirst = [...sessions].sort((a, b) => compareDays(a.assessedOn, b.assessedOn));
  for (const session of oldestFirst) {
    for (const measurement of session.measurements) {
      if (measurement.trials.length === 0) continue;
      const measured = measure(measurement, context);
      const row = { session, measured, way: `${measurement.examiner ?? ''}|${measurement.instrument}` };
      const own = rows.get(measured.key);
      if (own) own.push(row);
      else rows.set(measured.key, [row]);
    }
  }
  const lastSession = oldestFirst[oldestFirst.length - 1];
  return [...rows].map(([key, readings]) => {
    const last = readings[readings.length - 1]!;
    const { motion: id, side, mode, position, digit } = last.measured.measurement;
    const since = (at: number) => (readings.length < 2 ? null : changeBetween(readings[at]!.measured, last.measured, context));
    const isOfOne = readings.every(({ measured }) => measured.measurement.examiner === last.measured.measurement.examiner);
    const usual = usualWay(readings);
    return {
      key,
      motion: id,
      side,
      mode,
      position,
      protocol: protocolOf(last.measured.measurement).id,
      digit,
      isCurrent: last.session === lastSession,
      points: readings.map((row) => pointOf(row, usual, isOfOne, context)),
      sinceLast: since(readings.length - 2),
      sinceFirst: since(0),
      notJoined: otherWays(key, last.measured, rows),
      errorSource: last.measured.errorSource,
    };
  });
}

/** The last reading of a series against one before it; null where there is none at that place. */
export function changeAt({ motion: id, points }: Series, at: number): Omit<Change, 'errorSource'> | null {
  const [before, now] = [points[at], points[points.length - 1]!];
  if (!before || before === now) return null;
  return changeOf(id, comparablePoint(before), comparablePoint(now));
}

function comparablePoint({ value, instrument, examiner, sem, sems }: SeriesPoint): Comparable {
  return { value, instrument, examiner, sem: sems?.same ?? sem, semOfTwo: sems?.other ?? sem };
}

/** The examiner and instrument of most readings; of the latest, where as many were taken by another. */
function usualWay(readings: readonly Row[]): Row {
  const last = readings[readings.length - 1]!;
  if (readings.every(({ way }) => way === last.way)) return last;
  const counts = new Map<string, number>();
  for (const { way } of readings) counts.set(way, (counts.get(way) ?? 0) + 1);
  const most = Math.max(...counts.values());
  return [...readings].reverse().find(({ way }) => counts.get(way) === most)!;
}

function pointOf({ session, measured }: Row, usual: Row, isOfOne: boolean, context: ErrorContext): SeriesPoint {
  const { measurement, value } = measured;
  const reference = usual.measured.measurement;
  const otherExaminer =
    measurement.examiner !== undefined && reference.examiner !== undefined && measurement.examiner !== reference.examiner;
  const otherInstrument = measurement.instrument !== reference.instrument;
  const apart = otherExaminer ? 'other-examiner' : otherInstrument ? 'other-instrument' : null;
  const sems = isOfOne ? undefined : { same: measured.sem, other: errorOfTwo(measured, context).sem };
  const sem = sems && otherExaminer ? sems.other : measured.sem;
  return {
    on: session.assessedOn,
    value,
    sem,
    ...(sems && { sems }),
    error: bandAround(sem),
    pain: measurement.pain ?? null,
    instrument: measurement.instrument,
    examiner: measurement.examiner ?? null,
    ...(measurement.broughtIn && { broughtIn: true as const }),
    apart,
  };
}

/** Readings of the same motion by other protocols. */
function otherWays(key: MeasurementKey, { measurement: m }: MeasuredValue, rows: ReadonlyMap<MeasurementKey, readonly Row[]>): NotJoined[] {
  return [...rows].flatMap(([otherKey, readings]) => {
    const other = readings[0]!.measured.measurement;
    if (otherKey === key || other.motion !== m.motion || other.side !== m.side || other.mode !== m.mode || other.digit !== m.digit)
      return [];
    return [{ protocol: protocolOf(other).id, on: readings.map((row) => row.session.assessedOn) }];
  });
}
