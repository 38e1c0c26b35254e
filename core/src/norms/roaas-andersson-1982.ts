import type { MotionId, Position } from '../terms.js';
import type { AgeBand, NormEntry, NormSet } from './types.js';

const THIRTIES: AgeBand = { from: 30, to: 41, label: '30–40 years' };

const passive = (motion: MotionId, position: Position, mean: number, sd: number): NormEntry => ({
  motion,
  mode: 'passive',
  position,
  sex: 'male',
  ages: THIRTIES,
  value: { kind: 'distribution', mean, sd },
  confidence: 'medium-high',
});

/** Passive motion, both sides of 108 Swedish men, goniometer. */
export const ROAAS_ANDERSSON_1982: NormSet = {
  id: 'roaas-andersson-1982',
  title: 'Roaas & Andersson 1982, passive motion, men 30–40',
  short: 'Roaas & Andersson 1982',
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
  ],
};
