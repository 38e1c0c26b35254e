import { AAOS_1965 } from './aaos-1965.js';
import { AMA_GUIDES_4 } from './ama-guides.js';
import { BOONE_AZEN_1979 } from './boone-azen-1979.js';
import { COMMON_PRACTICE_NORMS } from './common-practice.js';
import {
  DIGIOVANNI_2002,
  DOWNEY_1991,
  HAND_AND_TOE,
  HARVEY_1998,
  KONOR_2012,
  REESE_BANDY_2003,
  SIMONEAU_1998,
  WALKER_1984,
  YOUDAS_2005,
} from './limbs.js';
import { RIKLI_JONES_1999, SPRINGER_2007 } from './reach-and-balance.js';
import { ROAAS_ANDERSSON_1982 } from './roaas-andersson-1982.js';
import { ROACH_MILES_1991 } from './roach-miles-1991.js';
import { SOUCIE_2011 } from './soucie-2011.js';
import { ADRICHEM_KORST_1973, FITZGERALD_1983, HALL_2004, JENKINSON_1994, MOLL_WRIGHT_1971, NG_2001, YOUDAS_1992 } from './spine.js';
import type { MotionId } from '../terms.js';
import { speaksOf } from './choose.js';
import type { NormSet } from './types.js';

/** Every set that comes with the program: the general ones first, then those of single regions, by year. */
export const NORM_SETS: readonly NormSet[] = [
  AAOS_1965,
  AMA_GUIDES_4,
  BOONE_AZEN_1979,
  SOUCIE_2011,
  ROAAS_ANDERSSON_1982,
  ROACH_MILES_1991,
  COMMON_PRACTICE_NORMS,
  WALKER_1984,
  DOWNEY_1991,
  SIMONEAU_1998,
  KONOR_2012,
  YOUDAS_2005,
  HARVEY_1998,
  REESE_BANDY_2003,
  DIGIOVANNI_2002,
  ...HAND_AND_TOE,
  YOUDAS_1992,
  HALL_2004,
  FITZGERALD_1983,
  NG_2001,
  MOLL_WRIGHT_1971,
  ADRICHEM_KORST_1973,
  JENKINSON_1994,
  RIKLI_JONES_1999,
  SPRINGER_2007,
];

export const DEFAULT_NORM_SET = BOONE_AZEN_1979.id;

/** General samples with their spread are asked before handbook figures; means without a spread and sets of one region after both. */
const ASKED_FIRST = [DEFAULT_NORM_SET, ROAAS_ANDERSSON_1982.id, ROACH_MILES_1991.id];
const ASKED_LAST = [COMMON_PRACTICE_NORMS.id];

/** In which order sets are asked where a clinic says nothing: the first with a comparable value judges. */
export const DEFAULT_NORM_ORDER: readonly string[] = [
  ...ASKED_FIRST,
  ...NORM_SETS.map((set) => set.id).filter((id) => !ASKED_FIRST.includes(id) && !ASKED_LAST.includes(id)),
  ...ASKED_LAST,
];

const speaking = new Map<MotionId, readonly NormSet[]>();

/** The sets of the program that say anything about a motion, in their order. */
export function setsFor(motion: MotionId): readonly NormSet[] {
  let found = speaking.get(motion);
  if (!found) speaking.set(motion, (found = NORM_SETS.filter((set) => speaksOf(set, motion))));
  return found;
}

/**
 * The set of an id, or undefined.
 *
 * @param own sets of the clinic beside those that come with the program
 */
export function findNormSet(id: string, own: readonly NormSet[] = []): NormSet | undefined {
  return BY_ID.get(id) ?? own.find((set) => set.id === id);
}

const BY_ID: ReadonlyMap<string, NormSet> = new Map(NORM_SETS.map((set) => [set.id, set]));
