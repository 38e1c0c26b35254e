import type { Confidence, MotionId } from '../terms.js';
import { byBand, point, sample, years, type Of } from './entry.js';
import type { NormEntry, NormSet } from './types.js';

const DECADES = [years(11, 19), years(20, 29), years(30, 39), years(40, 49), years(50, 59), years(60, 69), years(70, 79), years(80, 89)];
type Cell = readonly [mean: number, sd: number] | null;

/** A row over the decades; a cell whose mean or SD is not recalled is left out, not filled in. */
const decades = (sex: 'male' | 'female', motion: MotionId, of: Of, ...cells: readonly Cell[]): NormEntry[] =>
  byBand(motion, DECADES, cells, sex === 'male' ? 'medium' : 'low-medium', { mode: 'active', position: 'sitting', sex, ...of });
const LEFT: Of = { side: 'left' };
const RIGHT: Of = { side: 'right' };

export const YOUDAS_1992: NormSet = {
  id: 'youdas-1992',
  title: 'Youdas et al. 1992, active neck motion by decade and sex',
  short: 'Youdas et al. 1992',
  year: 1992,
  where: 'tables by decade; pages not recalled',
  source: {
    cite: 'Youdas JW, Garrett TR, Suman VJ, Bogard CL, Hallman HO, Carey JR. Normal range of motion of the cervical spine: an initial goniometric study. Phys Ther 1992;72:770-780; 337 people of 11–97, head-mounted instrument, seated',
    fromMemory: true,
  },
  entries: [
    ...decades(
      'male',
      'cervical.flexion',
      {},
      [64.0, 8.5],
      [54.3, 8.8],
      [47.4, 9.5],
      [49.5, 11.4],
      [45.5, 9.1],
      [41.0, 8.4],
      [39.2, 8.8],
      [40.4, 8.8],
    ),
    ...decades(
      'male',
      'cervical.extension',
      {},
      [85.6, 11.5],
      [76.7, 12.8],
      [68.2, 12.8],
      [62.5, 12.2],
      [59.9, 10.4],
      [57.4, 10.5],
      [53.7, 14.4],
      [49.4, 11.5],
    ),
    ...decades(
      'male',
      'cervical.lateralFlexion',
      LEFT,
      [46.3, 6.7],
      [41.4, 7.1],
      [41.2, 10.1],
      [35.6, 8.0],
      [34.9, 6.6],
      [30.4, 4.7],
      [25.0, 8.4],
      [23.5, 6.8],
    ),
    ...decades(
      'male',
      'cervical.lateralFlexion',
      RIGHT,
      [44.8, 7.7],
      [44.9, 7.2],
      [42.9, 8.9],
      [38.0, 10.9],
      [35.6, 5.4],
      [29.8, 5.4],
      [25.8, 7.0],
      [23.8, 6.3],
    ),
    ...decades(
      'male',
      'cervical.rotation',
      LEFT,
      [72.3, 7.0],
      [69.2, 6.9],
      [65.4, 9.1],
      [61.9, 8.4],
      [58.0, 8.8],
      [56.6, 6.7],
      [49.7, 8.7],
      [46.8, 9.1],
    ),
    ...decades(
      'male',
      'cervical.rotation',
      RIGHT,
      [74.1, 7.6],
      [69.6, 6.0],
      [67.1, 7.3],
      null,
      [61.0, 7.7],
      [53.6, 7.4],
      [50.0, 10.1],
      [46.4, 7.9],
    ),
    ...decades(
      'female',
      'cervical.extension',
      {},
      [84.0, 14.9],
      [85.6, 10.6],
      [78.0, 13.8],
      [77.5, 13.2],
      [65.3, 16.0],
      [65.2, 13.3],
      [54.8, 10.2],
      [50.3, 14.5],
    ),
    ...decades(
      'female',
      'cervical.lateralFlexion',
      LEFT,
      [46.6, 7.3],
      null,
      [43.6, 7.9],
      [40.8, 9.3],
      [35.1, 5.6],
      [34.4, 8.2],
      null,
      null,
    ),
    ...decades(
      'female',
      'cervical.lateralFlexion',
      RIGHT,
      [48.9, 7.1],
      [46.2, 6.7],
      [46.5, 8.5],
      [42.4, 9.2],
      [37.3, 6.6],
      [32.7, 9.5],
      null,
      null,
    ),
    ...decades(
      'female',
      'cervical.rotation',
      LEFT,
      [70.5, 9.9],
      [71.6, 5.9],
      [65.9, 8.1],
      [64.0, 8.2],
      null,
      null,
      [50.1, 8.0],
      [50.5, 10.6],
    ),
    ...decades(
      'female',
      'cervical.rotation',
      RIGHT,
      [74.9, 10.0],
      [74.6, 5.9],
      [71.7, 5.7],
      [70.2, 6.6],
      null,
      [65.2, 9.7],
      [53.4, 8.8],
      [53.0, 8.9],
    ),
  ],
};

export const HALL_2004: NormSet = {
  id: 'hall-2004',
  title: 'Hall & Robinson 2004, rotation of the fully bent neck',
  short: 'Hall & Robinson 2004',
  year: 2004,
  where: 'mean; 32–33 or less is called restricted',
  source: { cite: 'Hall T, Robinson K. Man Ther 2004;9:197-202; Ogince M et al. Man Ther 2007;12:256-262', fromMemory: true },
  entries: [point('cervical.rotation', 44, 'medium-high', { mode: 'passive', position: 'supine', variant: 'flexed' })],
};

const FITZGERALD = [years(20, 29), years(30, 39), years(40, 49), years(50, 59), years(60, 69), years(70, 79)];
const fitzgerald = (motion: MotionId, of: Of, ...cells: readonly Cell[]): NormEntry[] =>
  byBand(motion, FITZGERALD, cells, 'medium-high', { mode: 'active', position: 'standing', ...of });

export const FITZGERALD_1983: NormSet = {
  id: 'fitzgerald-1983',
  title: 'Fitzgerald et al. 1983, trunk motion by decade',
  short: 'Fitzgerald et al. 1983',
  year: 1983,
  where: 'tables by decade; pages not recalled',
  source: {
    cite: 'Fitzgerald GK, Wynveen KJ, Rheault W, Rothschild B. Objective assessment with establishment of normal values for lumbar spinal range of motion. Phys Ther 1983;63:1776-1781; 172 people of 20–82',
    fromMemory: true,
  },
  entries: [
    ...fitzgerald('thoracolumbar.extension', {}, [41.2, 9.6], [40.0, 8.8], [31.1, 8.9], [27.4, 8.0], [17.4, 7.5], [16.6, 8.8]),
    ...fitzgerald('thoracolumbar.lateralFlexion', RIGHT, [37.6, 5.8], [35.3, 6.5], [27.1, 6.5], [25.3, 6.2], [20.2, 4.8], [18.0, 4.7]),
    ...fitzgerald('thoracolumbar.lateralFlexion', LEFT, [38.7, 5.7], [36.5, 6.0], [28.5, 5.2], [26.8, 6.4], [20.3, 5.3], [18.9, 6.0]),
  ],
};

const NG: Of = { mode: 'active', sex: 'male', ages: years(18, 40), note: 'young men; ages of the sample not recalled' };
const ng = (motion: MotionId, mean: number, sd: number, of: Of = {}, confidence: Confidence = 'medium') =>
  sample(motion, mean, sd, confidence, { ...NG, position: 'standing', ...of });

/** Axial rotation, 33 (9) standing in a rotating frame, is left out: no protocol here measures it that way. */
export const NG_2001: NormSet = {
  id: 'ng-2001',
  title: 'Ng et al. 2001, lumbar motion of young men by inclinometer',
  short: 'Ng et al. 2001',
  year: 2001,
  where: 'main table; page not recalled',
  source: { cite: 'Ng JK-F, Kippers V, Richardson CA, Parnianpour M. Spine 2001;26:53-60; 35 men', fromMemory: true },
  entries: [
    ng('lumbar.flexion', 52, 9),
    ng('lumbar.extension', 19, 9),
    ng('lumbar.lateralFlexion', 31, 6, RIGHT),
    ng('lumbar.lateralFlexion', 30, 6, LEFT),
  ],
};

const MOLL = [years(15, 24), years(25, 34), years(35, 44), years(45, 54), years(55, 64), years(65, 74)];
export const MOLL_WRIGHT_1971: NormSet = {
  id: 'moll-wright-1971',
  title: 'Moll & Wright 1971, lumbar skin stretch by sex and age',
  short: 'Moll & Wright 1971',
  year: 1971,
  where: 'tables by age; pages not recalled',
  source: { cite: 'Moll JMH, Wright V. Normal range of spinal mobility. Ann Rheum Dis 1971;30:381-386', fromMemory: true },
  entries: [
    ...byBand(
      'distance.schoberModified',
      MOLL,
      [
        [7.23, 0.92],
        [7.48, 0.82],
        [6.88, 0.88],
        [7.17, 1.2],
        [6.87, 0.89],
        [5.67, 1.31],
      ],
      'medium',
      { sex: 'male', position: 'standing' },
    ),
    ...byBand(
      'distance.schoberModified',
      MOLL,
      [
        [6.66, 1.03],
        [6.69, 1.09],
        [6.29, 1.04],
        [6.02, 1.32],
        [6.08, 1.32],
        [4.93, 0.9],
      ],
      'medium',
      { sex: 'female', position: 'standing' },
    ),
  ],
};

export const ADRICHEM_KORST_1973: NormSet = {
  id: 'adrichem-korst-1973',
  title: 'van Adrichem & van der Korst 1973, 15 cm line at 15–18 years',
  short: 'van Adrichem & van der Korst 1973',
  year: 1973,
  where: 'page not recalled',
  source: { cite: 'van Adrichem JAM, van der Korst JK. Scand J Rheumatol 1973;2:87-91', fromMemory: true },
  entries: [
    sample('distance.schober15', 6.7, 1.0, 'medium', { sex: 'male', ages: years(15, 18) }),
    sample('distance.schober15', 5.8, 0.9, 'medium', { sex: 'female', ages: years(15, 18) }),
  ],
};

const LINE = 'better than this line scores nothing on the scale';
export const JENKINSON_1994: NormSet = {
  id: 'jenkinson-1994',
  title: 'Jenkinson et al. 1994, spinal metrology, lines without restriction',
  short: 'Jenkinson et al. 1994',
  year: 1994,
  where: 'three-point table',
  source: { cite: 'Jenkinson TR et al. J Rheumatol 1994;21:1694-1698', fromMemory: true },
  entries: [
    point('distance.tragusToWall', 15, 'high', { note: LINE }),
    point('distance.schoberModified', 4, 'high', { note: LINE }),
    point('distance.lateralFingertipTravel', 10, 'high', { note: LINE }),
    point('distance.intermalleolar', 100, 'high', { note: LINE }),
    point('cervical.rotation', 70, 'high', { note: LINE }),
  ],
};
