import { mean } from 'simple-statistics';
import { dualExcursion } from './angle/excursion.js';
import { isDual, measurementKey, type Measurement, type MeasurementKey, type Trial } from './assessment.js';
import { consistent } from './error/consistency.js';
import { mdc95 } from './error/sem.js';
import { errorOf } from './error/table.js';
import type { Degrees } from './terms.js';

/** What the trials of one measurement say together. Degrees. */
export interface MeasuredValue {
  readonly key: MeasurementKey;
  readonly measurement: Measurement;
  /** End position from zero: the mean of the trials. */
  readonly value: Degrees;
  /** Mean excursion, where a trial did not start from zero; otherwise the same as the value. */
  readonly excursion: Degrees;
  readonly ends: readonly Degrees[];
  readonly consistent: boolean | null;
  readonly sem: Degrees;
  readonly mdc95: Degrees;
  readonly errorSource: string;
}

/** The end position of one trial: a subtracted pair, or where the moving arm stopped. */
export function endPosition(trial: Trial): Degrees {
  return isDual(trial) ? dualExcursion(trial.upper, trial.lower) : trial.end;
}

/**
 * Trials to a measurement. The whole standard error is kept whatever the
 * number of trials: only its within-session part would shrink with √k, and
 * the defaults do not tell the parts apart.
 *
 * @throws RangeError without a trial, or with an instrument that reads no angle
 */
export function measure(measurement: Measurement): MeasuredValue {
  if (measurement.trials.length === 0) throw new RangeError('a measurement needs at least one trial');
  const error = errorOf(measurement.instrument);
  if (!error) throw new RangeError(`no measuring error is known for ${measurement.instrument}`);
  const ends = measurement.trials.map(endPosition);
  const excursions = measurement.trials.map((trial) => (isDual(trial) ? endPosition(trial) : trial.end - (trial.start ?? 0)));
  return {
    key: measurementKey(measurement),
    measurement,
    value: mean(ends),
    excursion: mean(excursions),
    ends,
    consistent: consistent(ends),
    sem: error.sem,
    mdc95: mdc95(error.sem),
    errorSource: error.source,
  };
}
