import type { Confidence, Degrees, MotionId, Position } from '../terms.js';
import type { NormEntry, NormSet } from './types.js';

const point = (motion: MotionId, expected: Degrees, confidence: Confidence, position: Position | 'any' = 'any'): NormEntry => ({
  motion,
  mode: 'any',
  position,
  sex: 'any',
  ages: null,
  value: { kind: 'point', expected },
  confidence,
});

/**
 * Consensus figures. For the hip the 4th and 5th editions print impairment
 * thresholds, which are not normal values; the figures here are those of the
 * 3rd edition's charts as textbooks compile them.
 */
export const AMA_GUIDES_4: NormSet = {
  id: 'ama-guides-4',
  title: 'American Medical Association, Guides (3rd–5th edition figures)',
  short: 'AMA Guides',
  source: {
    cite: 'American Medical Association, Guides to the Evaluation of Permanent Impairment, 3rd ed. 1988 (hip), 4th ed. 1993 (low back)',
    fromMemory: true,
  },
  entries: [
    point('hip.flexion', 100, 'medium'),
    point('hip.extension', 30, 'medium'),
    point('hip.abduction', 40, 'medium'),
    point('hip.adduction', 20, 'medium'),
    point('hip.internalRotation', 40, 'medium'),
    point('hip.externalRotation', 50, 'medium'),
    point('lumbar.flexion', 60, 'medium-high', 'standing'),
  ],
};
