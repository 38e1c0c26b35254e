import { COMMON_PRACTICE, type Degrees, type MotionId } from '../terms.js';
import type { NormEntry, NormSet, NormValue } from './types.js';

const entry = (motion: MotionId, value: NormValue): NormEntry => ({
  motion,
  mode: 'any',
  position: 'any',
  sex: 'any',
  ages: null,
  value,
  confidence: 'medium',
});
const point = (motion: MotionId, expected: Degrees) => entry(motion, { kind: 'point', expected });
const range = (motion: MotionId, low: Degrees, high: Degrees) => entry(motion, { kind: 'range', low, high });

/** What is taken as good in daily work, with no publication behind it. */
export const COMMON_PRACTICE_NORMS: NormSet = {
  id: 'common-practice',
  title: 'Common practice',
  short: 'Common practice',
  source: COMMON_PRACTICE,
  entries: [
    range('hip.flexion', 110, 135),
    range('hip.extension', 10, 30),
    range('hip.abduction', 40, 45),
    point('hip.adduction', 30),
    range('hip.internalRotation', 30, 45),
    point('hip.externalRotation', 45),
  ],
};
