import type { MotionId, Position } from '../terms.js';
import type { AgeBand, NormEntry, NormSet } from './types.js';

const BANDS: readonly AgeBand[] = [
  { from: 25, to: 40, label: '25–39 years' },
  { from: 40, to: 60, label: '40–59 years' },
  { from: 60, to: 75, label: '60–74 years' },
];

const active = (motion: MotionId, position: Position, ...cells: readonly (readonly [mean: number, sd: number])[]): NormEntry[] =>
  cells.map(([mean, sd], index) => ({
    motion,
    mode: 'active',
    position,
    sex: 'any',
    ages: BANDS[index] ?? null,
    value: { kind: 'distribution', mean, sd },
    confidence: 'medium-high',
  }));

/** Active motion, 1683 people of both sexes from a US national survey. */
export const ROACH_MILES_1991: NormSet = {
  id: 'roach-miles-1991',
  title: 'Roach & Miles 1991, active motion, both sexes',
  short: 'Roach & Miles 1991',
  source: {
    cite: 'Roach KE, Miles TP. Normal hip and knee active range of motion: the relationship to age. Phys Ther 1991;71:656-665',
    fromMemory: true,
  },
  entries: [
    ...active('hip.flexion', 'supine', [122, 12], [120, 14], [118, 13]),
    ...active('hip.extension', 'prone', [22, 8], [18, 7], [17, 8]),
    ...active('hip.abduction', 'supine', [44, 11], [42, 11], [39, 12]),
    ...active('hip.internalRotation', 'sitting', [33, 7], [31, 8], [30, 7]),
    ...active('hip.externalRotation', 'sitting', [34, 8], [32, 8], [29, 9]),
  ],
};
