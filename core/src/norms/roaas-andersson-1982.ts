import type { Confidence, MotionId, Position } from '../terms.js';
import { sample, years } from './entry.js';
import type { NormEntry, NormSet } from './types.js';

const AGES = years(30, 40);
const passive = (
  motion: MotionId,
  position: Position | 'any',
  mean: number,
  sd: number,
  confidence: Confidence = 'medium-high',
  note?: string,
): NormEntry => sample(motion, mean, sd, confidence, { mode: 'passive', position, sex: 'male', ages: AGES, ...(note ? { note } : {}) });

/** Passive motion, both sides of 108 Swedish men of 30 to 40, goniometer. */
export const ROAAS_ANDERSSON_1982: NormSet = {
  id: 'roaas-andersson-1982',
  title: 'Roaas & Andersson 1982, passive motion, men of 30–40',
  short: 'Roaas & Andersson 1982',
  year: 1982,
  where: 'main table',
  source: {
    cite: 'Roaas A, Andersson GBJ. Normal range of motion of the hip, knee and ankle joints in male subjects, 30-40 years of age. Acta Orthop Scand 1982;53:205-208',
    fromMemory: true,
  },
  entries: [
    passive('hip.flexion', 'supine', 120.4, 8.3),
    passive('hip.extension', 'prone', 9.5, 5.3),
    passive('hip.abduction', 'supine', 38.8, 7.0),
    passive('hip.adduction', 'supine', 30.5, 7.3),
    passive('hip.internalRotation', 'prone', 32.6, 8.2),
    passive('hip.externalRotation', 'prone', 33.6, 6.8),
    passive('knee.flexion', 'any', 143.8, 6.5),
    passive('knee.extension', 'any', 1.6, 2.9, 'medium', 'printed with a minus sign for past straight'),
    passive('ankle.dorsiflexion', 'any', 15.3, 5.8),
    passive('ankle.plantarflexion', 'any', 39.7, 7.5),
    passive('subtalar.inversion', 'prone', 27.6, 4.6, 'low-medium', 'hindfoot supination'),
    passive('subtalar.eversion', 'prone', 27.7, 6.9, 'medium', 'hindfoot pronation'),
  ],
};
