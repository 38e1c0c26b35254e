import type { MotionId } from '../terms.js';
import { byBand, range, years } from './entry.js';
import type { NormSet } from './types.js';

const REACH_BANDS = [years(60, 64), years(65, 69), years(70, 74), years(75, 79), years(80, 84), years(85, 89), years(90, 94)];
/** Printed in inches; 1 in = 2.54 cm. */
const WOMEN_INCHES = [
  [-3.0, 1.5],
  [-3.5, 1.5],
  [-4.0, 1.0],
  [-5.0, 0.5],
  [-5.5, 0.0],
  [-7.0, -1.0],
  [-8.0, -1.0],
] as const;
const MEN_INCHES = [
  [-6.5, 0.0],
  [-7.5, -1.0],
  [-8.0, -1.0],
  [-9.0, -2.0],
  [-9.5, -2.0],
  [-9.5, -3.0],
  [-10.5, -4.0],
] as const;
const cm = (inches: number): number => Math.round(inches * 254) / 100;

export const RIKLI_JONES_1999: NormSet = {
  id: 'rikli-jones-1999',
  title: 'Rikli & Jones 1999, reaching behind the back at 60–94 years',
  short: 'Rikli & Jones 1999',
  year: 1999,
  where: 'normal ranges (middle half of people), printed in inches',
  source: { cite: 'Rikli RE, Jones CJ. J Aging Phys Act 1999;7:129-161', fromMemory: true },
  entries: (
    [
      ['female', WOMEN_INCHES],
      ['male', MEN_INCHES],
    ] as const
  ).flatMap(([sex, cells]) =>
    cells.map(([low, high], i) =>
      range('distance.handsBehindBack', cm(low), cm(high), 'high', {
        sex,
        ages: REACH_BANDS[i] ?? null,
        note: 'middle half of people: a quarter lies below it',
      }),
    ),
  ),
};

const STANCE_BANDS = [years(18, 39), years(40, 49), years(50, 59), years(60, 69), years(70, 79), years(80, 99)];
/** Timing stopped at 45 s, and many stand so long: the spread that is printed is not that of a bell curve. */
const stance = (eyes: 'Open' | 'Closed', ...cells: readonly (readonly [number, number])[]) =>
  byBand(`balance.singleLegStanceEyes${eyes}` satisfies MotionId, STANCE_BANDS, cells, 'low-medium', {
    position: 'standing',
    summary: 'mean',
    note: 'mean of three, both sexes; timing stopped at 45 s, so the spread is not that of a bell curve',
  }).map((entry) => (entry.value.kind === 'distribution' ? { ...entry, value: { ...entry.value, kind: 'skewed' as const } } : entry));

export const SPRINGER_2007: NormSet = {
  id: 'springer-2007',
  title: 'Springer et al. 2007, single-leg stance by age',
  short: 'Springer et al. 2007',
  year: 2007,
  where: 'main table; page not recalled',
  source: { cite: 'Springer BA, Marin R, Cyhan T, Roberts H, Gill NW. J Geriatr Phys Ther 2007;30:8-15; 549 adults', fromMemory: true },
  entries: [
    ...stance('Open', [43.3, 5.1], [40.3, 10.8], [37.0, 12.6], [26.9, 16.6], [15.0, 13.9], [6.2, 9.3]),
    ...stance('Closed', [9.4, 9.4], [7.3, 7.4], [4.8, 4.8], [2.8, 2.2], [2.0, 1.6], [1.3, 0.6]),
  ],
};
