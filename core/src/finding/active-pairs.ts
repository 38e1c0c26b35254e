import { measurementKey } from '../assessment.js';
import { mdcOfDifference } from '../error/sem.js';
import type { MeasuredValue } from '../measurement.js';
import { errorStep, motionOf } from './make.js';
import { readings, type Step } from './steps.js';
import type { Evidence } from './types.js';

/** An active and a passive reading of the same motion, side and position. */
export interface ActivePair {
  readonly active: MeasuredValue;
  readonly passive: MeasuredValue;
  /** Error of their difference. */
  readonly mdc: number;
}

/** Active readings with the passive one beside them. */
export function activePairs({ measured, byKey }: Evidence): ActivePair[] {
  return measured.flatMap((active) => {
    // Only a joint angle has an active and a passive end that say something beside each other.
    if (active.measurement.mode !== 'active' || motionOf(active).unit !== 'deg') return [];
    const passive = byKey.get(measurementKey({ ...active.measurement, mode: 'passive' }));
    return passive ? [{ active, passive, mdc: mdcOfDifference(active.sem, passive.sem) }] : [];
  });
}

/** Both readings and what lies between them. */
export const pairSteps = ({ active, passive, mdc }: ActivePair): Step[] => [
  readings(active, 'active'),
  readings(passive, 'passive'),
  {
    step: 'difference',
    motion: active.measurement.motion,
    what: 'passive − active',
    from: passive.value,
    take: active.value,
    is: passive.value - active.value,
    mdc,
  },
  errorStep(active),
];
