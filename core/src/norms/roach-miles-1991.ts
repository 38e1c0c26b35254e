import type { MotionId } from '../terms.js';
import { byBand, years, type Of } from './entry.js';
import type { NormSet } from './types.js';

const BANDS = [years(25, 39), years(40, 59), years(60, 74)];
const active = (motion: MotionId, of: Of, ...cells: readonly (readonly [mean: number, sd: number])[]) =>
  byBand(motion, BANDS, cells, 'medium-high', { mode: 'active', ...of });

/** Active motion, 1683 people of both sexes from a US national survey. */
export const ROACH_MILES_1991: NormSet = {
  id: 'roach-miles-1991',
  title: 'Roach & Miles 1991, active motion, both sexes',
  short: 'Roach & Miles 1991',
  year: 1991,
  where: 'tables by age; pages not recalled',
  source: {
    cite: 'Roach KE, Miles TP. Normal hip and knee active range of motion: the relationship to age. Phys Ther 1991;71:656-665',
    fromMemory: true,
  },
  entries: [
    ...active('hip.flexion', { position: 'supine' }, [122, 12], [120, 14], [118, 13]),
    ...active('hip.extension', { position: 'prone' }, [22, 8], [18, 7], [17, 8]),
    ...active('hip.abduction', { position: 'supine' }, [44, 11], [42, 11], [39, 12]),
    ...active('hip.internalRotation', { position: 'sitting' }, [33, 7], [31, 8], [30, 7]),
    ...active('hip.externalRotation', { position: 'sitting' }, [34, 8], [32, 8], [29, 9]),
    ...active('knee.flexion', {}, [134, 9], [132, 11], [131, 11]),
  ],
};
