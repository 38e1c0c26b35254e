import type { Confidence, MotionId } from '../terms.js';
import { byBand, type Of } from './entry.js';
import type { AgeBand, NormEntry, NormSet } from './types.js';

const BANDS: readonly AgeBand[] = [
  { from: 1.5, to: 20, label: '18 months–19 years' },
  { from: 20, to: 55, label: '20–54 years' },
];
type MeanSd = readonly [mean: number, sd: number];

const both = (motion: MotionId, young: MeanSd, adult: MeanSd, of: Of = {}, confidence: Confidence = 'high'): NormEntry[] =>
  byBand(motion, BANDS, [young, adult], confidence, { mode: 'active', sex: 'male', ...of });

/** Active motion, 109 males from 18 months to 54 years (53 up to 19, 56 from 20), goniometer, one examiner. */
export const BOONE_AZEN_1979: NormSet = {
  id: 'boone-azen-1979',
  title: 'Boone & Azen 1979, active motion, males',
  short: 'Boone & Azen 1979',
  year: 1979,
  where: 'main table',
  source: {
    cite: 'Boone DC, Azen SP. Normal range of motion of joints in male subjects. J Bone Joint Surg Am 1979;61:756-759, main table',
    fromMemory: true,
  },
  entries: [
    ...both('shoulder.flexion', [168.4, 3.7], [165.0, 5.0]),
    ...both('shoulder.extension', [67.5, 8.0], [57.3, 8.1]),
    ...both('shoulder.abduction', [185.4, 3.6], [182.7, 9.0]),
    ...both('shoulder.internalRotation', [70.5, 4.5], [67.1, 4.1]),
    ...both('shoulder.externalRotation', [108.0, 7.2], [99.6, 7.6]),
    ...both('shoulder.horizontalAdduction', [140.8, 6.8], [140.7, 4.9]),
    ...both('shoulder.horizontalAbduction', [47.3, 6.1], [43.7, 5.8]),
    ...both('elbow.flexion', [145.4, 5.3], [140.5, 4.9]),
    ...both('elbow.extension', [0.8, 3.5], [0.3, 2.0], { note: 'the adult SD is doubtful: 2.7 would fit the whole sample' }, 'low-medium'),
    ...both('forearm.pronation', [76.7, 4.8], [75.0, 5.3]),
    ...both('forearm.supination', [83.1, 3.4], [81.1, 4.0]),
    ...both('wrist.flexion', [78.2, 5.5], [74.8, 6.6]),
    ...both('wrist.extension', [75.8, 6.1], [74.0, 6.6]),
    ...both('wrist.radialDeviation', [21.8, 4.0], [21.1, 4.0]),
    ...both('wrist.ulnarDeviation', [36.7, 3.7], [35.3, 3.8]),
    ...both('hip.flexion', [123.4, 5.6], [121.3, 6.4], { position: 'supine' }),
    ...both('hip.extension', [7.4, 7.3], [12.1, 5.4], { position: 'prone' }),
    ...both('hip.abduction', [51.7, 8.8], [40.5, 6.0], { position: 'supine' }),
    ...both('hip.adduction', [28.3, 4.1], [25.6, 3.6], { position: 'supine' }),
    ...both('hip.internalRotation', [50.3, 6.1], [44.4, 4.3], { position: 'sitting' }),
    ...both('hip.externalRotation', [50.5, 6.1], [44.2, 4.8], { position: 'sitting' }),
    ...both('knee.flexion', [143.8, 5.1], [141.2, 5.3], { position: 'supine' }),
    ...both('knee.extension', [2, 3], [1, 2], { position: 'supine' }, 'low'),
    ...both('ankle.dorsiflexion', [13.0, 4.7], [12.2, 4.1]),
    ...both('ankle.plantarflexion', [58.2, 6.1], [54.3, 5.9], {}, 'medium'),
    ...both('subtalar.inversion', [37.5, 4.7], [36.2, 4.2], { position: 'sitting' }),
    ...both('subtalar.eversion', [22.3, 4.6], [19.2, 4.9], { position: 'sitting' }),
  ],
};
