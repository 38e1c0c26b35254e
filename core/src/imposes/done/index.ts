import { ANKLE } from './ankle.js';
import { HAND } from './hand.js';
import { HIP_CONTROL } from './hip-control.js';
import { HIP_RANGE } from './hip-range.js';
import { INSTEAD } from './instead.js';
import { KNEE } from './knee.js';
import { PATTERNS } from './patterns.js';
import { SHOULDER } from './shoulder.js';
import { SPINE } from './spine.js';
import { SCREEN_FLOOR_PATH } from './screen-floor-path.js';
import { SCREEN_HIP_SIX_WAYS } from './screen-hip-six-ways.js';
import { SCREEN_JOINT_CIRCLES } from './screen-joint-circles.js';
import { SCREEN_LOADING_READINESS } from './screen-loading-readiness.js';
import { SCREEN_PATTERNS } from './screen-patterns.js';
import { SCREEN_POSTURE } from './screen-posture.js';
import { SCREEN_QUICK_MARKERS } from './screen-quick-markers.js';
import { SCREEN_SQUAT_CHECK } from './screen-squat-check.js';
import { SCREEN_TABLE_EXAM } from './screen-table-exam.js';
import { SCREEN_TABLE_LIFTS } from './screen-table-lifts.js';
import { allTraits, type DoneTo, type DoneTrait } from '../traits.js';
import type { Imposition } from '../types.js';
import { rowsOf } from './read.js';
import type { Demands } from './types.js';

const DECLARED: Readonly<Record<string, Demands>> = {
  ...ANKLE,
  ...HAND,
  ...HIP_CONTROL,
  ...HIP_RANGE,
  ...INSTEAD,
  ...KNEE,
  ...PATTERNS,
  ...SHOULDER,
  ...SPINE,
  ...SCREEN_FLOOR_PATH,
  ...SCREEN_HIP_SIX_WAYS,
  ...SCREEN_JOINT_CIRCLES,
  ...SCREEN_LOADING_READINESS,
  ...SCREEN_PATTERNS,
  ...SCREEN_POSTURE,
  ...SCREEN_QUICK_MARKERS,
  ...SCREEN_SQUAT_CHECK,
  ...SCREEN_TABLE_EXAM,
  ...SCREEN_TABLE_LIFTS,
};

/** What an exercise or an item does to the body, and what it asks of the whole person. */
interface Demanded {
  readonly imposes: readonly Imposition[];
  readonly traits: ReadonlySet<DoneTrait>;
}

/**
 * @param id of an exercise, or of an item as "patterns.squat"
 * @throws RangeError where nothing is declared: nothing would hold it to a limit
 */
export function demandsOf(id: string, position: DoneTo['position'], mode: DoneTo['mode']): Demanded {
  const declared = DECLARED[id];
  if (!declared) throw new RangeError(`${id} does not declare what it does to the body`);
  const imposes = rowsOf(id, declared);
  if (imposes.length === 0) throw new RangeError(`${id} declares nothing that it does to the body`);
  return { imposes, traits: allTraits(declared.traits, { rows: imposes, position, mode }) };
}

/** Every id in the tables. One that no exercise, item or advice has is a mistake. */
export const DEMANDED_IDS: readonly string[] = Object.keys(DECLARED);
