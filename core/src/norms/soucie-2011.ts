import type { Confidence, MotionId } from '../terms.js';
import { meanOnly, years, type Of } from './entry.js';
import type { NormEntry, NormSet } from './types.js';

const BANDS = [years(2, 8), years(9, 19), years(20, 44), years(45, 69)];
type Cell = readonly [mean: number, ciLow: number, ciHigh: number];

/** Confidence of a cell: the intervals of boys of 9–19 and of the arm in the youngest are the least certain. */
const sureness = (sex: 'female' | 'male', band: number, arm: boolean): Confidence =>
  (sex === 'male' && band === 1) || (arm && band === 0) ? 'low-medium' : 'medium';

const ARM: readonly MotionId[] = ['shoulder.flexion', 'elbow.flexion', 'elbow.extension', 'forearm.pronation', 'forearm.supination'];

const row = (sex: 'female' | 'male', motion: MotionId, of: Of, ...cells: readonly Cell[]): NormEntry[] =>
  cells.map(([mean, low, high], band) =>
    meanOnly(motion, mean, low, high, sureness(sex, band, ARM.includes(motion)), {
      mode: 'passive',
      sex,
      ages: BANDS[band],
      ...of,
    }),
  );
const f = (motion: MotionId, of: Of, ...cells: readonly Cell[]) => row('female', motion, of, ...cells);
const m = (motion: MotionId, of: Of, ...cells: readonly Cell[]) => row('male', motion, of, ...cells);
const PRONE: Of = { position: 'prone' };
const SUPINE: Of = { position: 'supine' };

/**
 * Passive motion of 674 healthy people from 2 to 69, goniometer, trained
 * examiners. Printed as the mean with the 95 % interval of that mean; the
 * group sizes are not recalled surely enough to make a spread of them.
 */
export const SOUCIE_2011: NormSet = {
  id: 'soucie-2011',
  title: 'Soucie et al. 2011, passive motion by sex and age',
  short: 'Soucie et al. 2011',
  year: 2011,
  where: 'tables of reference values; the same figures on a public page of the US CDC',
  source: {
    cite: 'Soucie JM, Wang C, Forsyth A, Funk S, Denny M, Roach KE, Boone D. Range of motion measurements: reference values and a database for comparison studies. Haemophilia 2011;17:500-507',
    fromMemory: true,
  },
  entries: [
    ...f('hip.extension', PRONE, [26.2, 23.9, 28.5], [20.5, 18.6, 22.4], [18.1, 17.0, 19.2], [16.7, 15.5, 17.9]),
    ...f('hip.flexion', SUPINE, [140.8, 139.2, 142.4], [134.9, 133.0, 136.8], [133.8, 132.5, 135.1], [130.8, 129.2, 132.4]),
    ...f('knee.flexion', SUPINE, [152.6, 151.2, 154.0], [142.3, 140.8, 143.8], [141.9, 140.9, 142.9], [137.8, 136.5, 139.1]),
    ...f('knee.extension', SUPINE, [5.4, 3.9, 6.9], [2.4, 1.5, 3.3], [1.6, 1.1, 2.1], [1.2, 0.7, 1.7]),
    ...f('ankle.dorsiflexion', {}, [24.8, 22.5, 27.1], [17.3, 15.6, 19.0], [13.8, 12.9, 14.7], [11.6, 10.6, 12.6]),
    ...f('ankle.plantarflexion', {}, [67.1, 64.8, 69.4], [57.3, 54.8, 59.8], [62.1, 60.6, 63.6], [56.5, 55.0, 58.0]),
    ...f('shoulder.flexion', {}, [178.6, 176.9, 180.3], [171.8, 169.8, 173.8], [172.0, 170.9, 173.1], [168.1, 166.7, 169.5]),
    ...f('elbow.flexion', {}, [152.9, 151.5, 154.3], [149.7, 148.5, 150.9], [150.0, 149.1, 150.9], [148.3, 147.3, 149.3]),
    ...f('elbow.extension', {}, [6.8, 5.3, 8.3], [6.4, 4.7, 8.1], [4.7, 3.9, 5.5], [3.6, 2.6, 4.6]),
    ...f('forearm.pronation', {}, [84.6, 82.8, 86.4], [81.2, 79.6, 82.8], [82.0, 81.0, 83.0], [80.8, 79.7, 81.9]),
    ...f('forearm.supination', {}, [93.7, 91.4, 96.0], [90.0, 88.0, 92.0], [90.6, 89.2, 92.0], [87.2, 86.0, 88.4]),
    ...m('hip.extension', PRONE, [28.3, 27.2, 29.4], [18.2, 16.6, 19.8], [17.4, 16.3, 18.5], [13.5, 12.5, 14.5]),
    ...m('hip.flexion', SUPINE, [131.1, 129.4, 132.8], [135.2, 133.0, 137.4], [130.4, 129.0, 131.8], [127.2, 125.7, 128.7]),
    ...m('knee.flexion', SUPINE, [147.8, 146.6, 149.0], [142.2, 140.4, 144.0], [137.7, 136.5, 138.9], [132.9, 131.6, 134.2]),
    ...m('knee.extension', SUPINE, [1.6, 0.9, 2.3], [1.8, 0.9, 2.7], [1.0, 0.6, 1.4], [0.5, 0.1, 0.9]),
    ...m('ankle.dorsiflexion', {}, [22.8, 21.3, 24.3], [16.3, 14.6, 18.0], [12.7, 11.6, 13.8], [11.9, 10.9, 12.9]),
    ...m('ankle.plantarflexion', {}, [55.8, 54.4, 57.2], [52.8, 50.8, 54.8], [54.6, 53.2, 56.0], [49.4, 47.7, 51.1]),
    ...m('shoulder.flexion', {}, [177.8, 176.7, 178.9], [170.9, 169.1, 172.7], [168.8, 167.3, 170.3], [164.0, 162.3, 165.7]),
    ...m('elbow.flexion', {}, [151.4, 150.8, 152.0], [148.3, 147.0, 149.6], [144.6, 143.6, 145.6], [143.5, 142.3, 144.7]),
    ...m('elbow.extension', {}, [2.2, 0.9, 3.5], [5.3, 3.6, 7.0], [0.8, 0.1, 1.5], [-0.7, -1.5, 0.1]),
    ...m('forearm.pronation', {}, [79.6, 78.8, 80.4], [79.8, 77.9, 81.7], [76.9, 75.6, 78.2], [77.7, 76.5, 78.9]),
    ...m('forearm.supination', {}, [86.4, 85.3, 87.5], [87.8, 85.7, 89.9], [85.0, 83.8, 86.2], [82.4, 81.1, 83.7]),
  ],
};
