import { mean, median } from 'simple-statistics';
import { keyBy, type Measurement, type MeasurementKey } from './assessment.js';
import { motion, protocolOf, type Better, type Summary } from './catalogue/index.js';
import { consistent } from './error/consistency.js';
import { mdc95 } from './error/sem.js';
import type { ErrorContext } from './error/own.js';
import type { ErrorSource } from './error/source.js';
import { errorOf } from './error/table.js';
import { endPosition, excursionOf } from './trial.js';

/** What the trials of one measurement say together, in the motion's unit. */
export interface MeasuredValue {
  readonly key: MeasurementKey;
  readonly measurement: Measurement;
  /** End position from zero (or length, force, time): mean or best of the trials, as the protocol counts. */
  readonly value: number;
  /** Mean excursion, where a trial did not start from zero; otherwise the same as the value. */
  readonly excursion: number;
  readonly ends: readonly number[];
  readonly summary: Summary;
  readonly consistent: boolean | null;
  readonly sem: number;
  readonly mdc95: number;
  readonly errorSource: ErrorSource;
  /** True where this clinic measured its error itself. */
  readonly errorIsOwn: boolean;
}

/**
 * Several readings as one, in the way the protocol counts.
 *
 * @example summarise([30, 32, 31], 'mean', 'more') // 31
 */
export function summarise(values: readonly number[], summary: Summary, better: Better): number {
  if (values.length === 1) return values[0]!;
  if (summary === 'median') return median([...values]);
  if (summary === 'mean' || better === 'neither') return mean([...values]);
  return better === 'less' ? Math.min(...values) : Math.max(...values);
}

/**
 * Trials to a measurement. The whole standard error is kept whatever the
 * number of trials: only its within-session part would shrink with √k, and
 * neither the defaults nor the published figures tell the parts apart.
 *
 * @param context the clinic's own errors, and the procedure of the episode
 * @throws RangeError without a trial, or for a way of measuring that the catalogue does not hold
 */
export function measure(measurement: Measurement, context: ErrorContext = {}): MeasuredValue {
  if (measurement.trials.length === 0) throw new RangeError('a measurement needs at least one trial');
  const protocol = protocolOf(measurement);
  const { better, unit } = motion(measurement.motion);
  const { summary } = protocol.trials;
  const ends = measurement.trials.map(endPosition);
  const value = summarise(ends, summary, better);
  const error = errorOf(
    { motion: measurement.motion, instrument: measurement.instrument, protocol: protocol.id, value },
    !measurement.broughtIn,
    context,
  );
  return {
    key: keyBy(protocol.id, measurement),
    measurement,
    value,
    excursion: summarise(measurement.trials.map(excursionOf), summary, better),
    ends,
    summary,
    consistent: summary === 'best' ? null : consistent(ends, unit),
    sem: error.sem,
    mdc95: mdc95(error.sem),
    errorSource: error.source,
    errorIsOwn: error.isOwn,
  };
}
