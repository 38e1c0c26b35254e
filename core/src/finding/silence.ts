import { measurementKey, type Assessment, type MeasurementKey } from '../assessment.js';
import { protocolOf } from '../catalogue/index.js';
import { bandAround } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import { allowedFor, type Allowed } from '../precaution/allowed.js';
import type { Digit, Mode, MotionId, Side } from '../terms.js';
import { motionOf } from './make.js';
import type { Evidence, StoppedAt } from './types.js';

/** A measurement that was held against no norm, and why: nothing is said of it, and that is said. */
export interface NotJudged {
  readonly key: MeasurementKey;
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
  readonly digit?: Digit;
  /** No set of the order has a comparable value; it stopped at a limit; or it says something only beside the other side, which is not there. */
  readonly reason: 'no-comparable-norm' | 'stopped-at-limit' | 'forbidden' | 'no-other-side';
  /** The limit at which it stopped. */
  readonly limit?: { readonly at: number; readonly source: string };
}

const isForbidden = (allowed: Allowed): boolean =>
  allowed.kind === 'forbidden' && (allowed.row === null || (allowed.row.what === 'moves' && allowed.row.isFigure));

const wayOf = ({ measurement: m }: MeasuredValue) => ({ protocol: protocolOf(m).id, motion: m.motion, side: m.side, mode: m.mode });

/** What the precautions say of each way that was read, where they say anything. */
export function allowedReadings(
  measured: readonly MeasuredValue[],
  { precautions = [], assessedOn }: Pick<Assessment, 'precautions' | 'assessedOn'>,
): ReadonlyMap<MeasurementKey, Allowed> {
  if (precautions.length === 0) return new Map();
  return new Map(
    measured.flatMap((m): (readonly [MeasurementKey, Allowed])[] => {
      const allowed = allowedFor(wayOf(m), { precautions, cautions: [], on: assessedOn });
      return allowed.kind === 'free' ? [] : [[m.key, allowed]];
    }),
  );
}

/** Readings that ended where they had to, within the error of a reading: a wall is no loss. */
export function stoppedAtLimits(
  measured: readonly MeasuredValue[],
  allowedBy: ReadonlyMap<MeasurementKey, Allowed>,
  { precautions = [], assessedOn }: Pick<Assessment, 'precautions' | 'assessedOn'>,
): ReadonlyMap<MeasurementKey, StoppedAt> {
  return new Map(
    measured.flatMap((m): (readonly [MeasurementKey, StoppedAt])[] => {
      const allowed = allowedBy.get(m.key);
      // Where all of them together leave it free, none forbids it.
      if (!allowed) return [];
      // Whatever it came to: what must not be moved has no range to judge. What is only done beside it says nothing of it.
      const never = precautions.find((by) => isForbidden(allowedFor(wayOf(m), { precautions: [by], cautions: [], on: assessedOn })));
      if (never) return [[m.key, { at: null, by: never }]];
      if (allowed.kind !== 'stop') return [];
      const reach = motionOf(m).better === 'less' ? allowed.at - m.value : m.value - allowed.at;
      return reach + bandAround(m.sem) >= 0 ? [[m.key, { at: allowed.at, by: allowed.by }]] : [];
    }),
  );
}

const OPPOSITE = { left: 'right', right: 'left', midline: 'midline' } as const;

/** Why a measurement was not judged; undefined where it was, or where there is no amount to judge. */
export function notJudged(
  m: MeasuredValue,
  { judging, stopped, byKey }: Pick<Evidence, 'judging' | 'stopped' | 'byKey'>,
): NotJudged | undefined {
  const { motion, side, mode, digit } = m.measurement;
  const of = { key: m.key, motion, side, mode, ...(digit === undefined ? {} : { digit }) };
  const { unit, better } = motionOf(m);
  if (unit === 'yesNo') return undefined;
  const limit = stopped.get(m.key);
  if (limit?.at === null) return { ...of, reason: 'forbidden' };
  if (limit) return { ...of, reason: 'stopped-at-limit', limit: { at: limit.at, source: limit.by.source } };
  if (better !== 'neither') return judging.get(m.key) ? undefined : { ...of, reason: 'no-comparable-norm' };
  const hasOther = side !== 'midline' && byKey.has(measurementKey({ ...m.measurement, side: OPPOSITE[side] }));
  return hasOther ? undefined : { ...of, reason: 'no-other-side' };
}
