import type { MotionId, Position } from '../terms.js';
import type { AgeBand, NormEntry, NormSet } from './types.js';

const YOUNG: AgeBand = { from: 1.5, to: 20, label: '18 months–19 years' };
const ADULT: AgeBand = { from: 20, to: 55, label: '20–54 years' };

type MeanSd = readonly [mean: number, sd: number];

const both = (motion: MotionId, position: Position, young: MeanSd, adult: MeanSd): NormEntry[] =>
  (
    [
      [YOUNG, young],
      [ADULT, adult],
    ] as const
  ).map(([ages, [mean, sd]]) => ({
    motion,
    mode: 'active',
    position,
    sex: 'male',
    ages,
    value: { kind: 'distribution', mean, sd },
    confidence: 'high',
  }));

/** Active motion, 109 males from 18 months to 54 years (53 up to 19, 56 from 20), goniometer, one examiner. */
export const BOONE_AZEN_1979: NormSet = {
  id: 'boone-azen-1979',
  title: 'Boone & Azen 1979, active motion, males',
  short: 'Boone & Azen 1979',
  source: {
    cite: 'Boone DC, Azen SP. Normal range of motion of joints in male subjects. J Bone Joint Surg Am 1979;61:756-759, main table',
    fromMemory: true,
  },
  entries: [
    ...both('hip.flexion', 'supine', [123.4, 5.6], [121.3, 6.4]),
    ...both('hip.extension', 'prone', [7.4, 7.3], [12.1, 5.4]),
    ...both('hip.abduction', 'supine', [51.7, 8.8], [40.5, 6.0]),
    ...both('hip.adduction', 'supine', [28.3, 4.1], [25.6, 3.6]),
    ...both('hip.internalRotation', 'sitting', [50.3, 6.1], [44.4, 4.3]),
    ...both('hip.externalRotation', 'sitting', [50.5, 6.1], [44.2, 4.8]),
  ],
};
