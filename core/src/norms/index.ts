import { AAOS_1965 } from './aaos-1965.js';
import { AMA_GUIDES_4 } from './ama-guides.js';
import { BOONE_AZEN_1979 } from './boone-azen-1979.js';
import { COMMON_PRACTICE_NORMS } from './common-practice.js';
import { ROAAS_ANDERSSON_1982 } from './roaas-andersson-1982.js';
import { ROACH_MILES_1991 } from './roach-miles-1991.js';
import type { NormSet } from './types.js';

export { ageOn } from './age.js';
export { chooseNorm, type NormChoice, type NormFlag, type NormQuery } from './choose.js';
export { agreement, compareWithNorm, expectedBand, type Agreement, type ExpectedBand, type NormComparison } from './compare.js';
export type { AgeBand, NormEntry, NormSet, NormValue } from './types.js';

export const NORM_SETS: readonly NormSet[] = [
  AAOS_1965,
  AMA_GUIDES_4,
  BOONE_AZEN_1979,
  ROAAS_ANDERSSON_1982,
  ROACH_MILES_1991,
  COMMON_PRACTICE_NORMS,
];

export const DEFAULT_NORM_SET = BOONE_AZEN_1979.id;

/** The set of an id, or undefined. */
export function findNormSet(id: string): NormSet | undefined {
  return NORM_SETS.find((set) => set.id === id);
}
