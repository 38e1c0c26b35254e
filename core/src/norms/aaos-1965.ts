import type { Confidence, Degrees, MotionId } from '../terms.js';
import type { NormEntry, NormSet } from './types.js';

const point = (motion: MotionId, expected: Degrees, confidence: Confidence): NormEntry => ({
  motion,
  mode: 'any',
  position: 'any',
  sex: 'any',
  ages: null,
  value: { kind: 'point', expected },
  confidence,
});

/** Committee figures: no spread, no age, no sex, active not told from passive. */
export const AAOS_1965: NormSet = {
  id: 'aaos-1965',
  title: 'American Academy of Orthopaedic Surgeons, handbook 1965',
  short: 'AAOS 1965',
  source: {
    cite: 'American Academy of Orthopaedic Surgeons, Joint Motion: Method of Measuring and Recording, 1965',
    fromMemory: true,
  },
  entries: [
    point('hip.flexion', 120, 'high'),
    point('hip.extension', 30, 'high'),
    point('hip.abduction', 45, 'high'),
    point('hip.adduction', 30, 'high'),
    point('hip.internalRotation', 45, 'high'),
    point('hip.externalRotation', 45, 'high'),
  ],
};
