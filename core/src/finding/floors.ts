import { SEVERITIES, type MotionId, type Severity } from '../terms.js';

/** A value at or below which a loss weighs at least so much, whatever its share: what the function asks for. */
interface Floor {
  readonly motion: MotionId;
  readonly atMost: number;
  readonly severity: Severity;
}

/** @see steps of severity where the usual value is near zero: proposals, from memory */
export const FLOORS: readonly Floor[] = [
  { motion: 'ankle.dorsiflexion', atMost: -1, severity: 'moderate' },
  { motion: 'knee.extension', atMost: -5, severity: 'mild' },
  { motion: 'knee.extension', atMost: -10, severity: 'moderate' },
  { motion: 'knee.extension', atMost: -15, severity: 'marked' },
  { motion: 'elbow.extension', atMost: -30, severity: 'moderate' },
  { motion: 'greatToeMtp.extension', atMost: 44, severity: 'mild' },
  { motion: 'greatToeMtp.extension', atMost: 29, severity: 'marked' },
];

/** A floor can raise a severity, never lower it. */
export function raised(severity: Severity, motion: MotionId, value: number): Severity {
  const steps = FLOORS.filter((floor) => floor.motion === motion && value <= floor.atMost).map((floor) =>
    SEVERITIES.indexOf(floor.severity),
  );
  return SEVERITIES[Math.max(SEVERITIES.indexOf(severity), ...steps)]!;
}
