import { dualExcursion, excursion } from './angle/excursion.js';
import { toKept } from './angle/units.js';
import { isDual, isTilt, isValue, type Trial } from './assessment.js';

/** What one trial came to: a subtracted pair, a length or force in the unit it is kept in, or where the moving arm stopped. */
export function endPosition(trial: Trial): number {
  if (isDual(trial)) return dualExcursion(trial.upper, trial.lower, trial.sense);
  if (isTilt(trial)) return excursion(trial.tilt, trial.sense);
  return isValue(trial) ? (trial.unit ? toKept(trial.value, trial.unit) : trial.value) : trial.end;
}

/** How far it moved: from the start to the end, where there is a start. */
export function excursionOf(trial: Trial): number {
  return isDual(trial) || isValue(trial) || isTilt(trial) ? endPosition(trial) : trial.end - (trial.start ?? 0);
}
