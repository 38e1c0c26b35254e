import type { PatternId } from '../screen/index.js';
import { ARM_AND_SPINE_BREAKDOWNS } from './arm-and-spine.js';
import { LEG_BREAKDOWNS } from './leg.js';
import { LEG_LENGTH_BREAKDOWNS } from './leg-length.js';
import { SQUAT_BREAKDOWNS } from './squat.js';
import type { Breakdown } from './types.js';

/** What could limit each pattern. */
export const BREAKDOWNS: readonly Breakdown[] = [
  ...SQUAT_BREAKDOWNS,
  ...LEG_LENGTH_BREAKDOWNS,
  ...LEG_BREAKDOWNS,
  ...ARM_AND_SPINE_BREAKDOWNS,
];

const byPattern = new Map(BREAKDOWNS.map((breakdown) => [breakdown.pattern, breakdown]));

/** @throws RangeError for a pattern without one */
export function breakdownOf(pattern: PatternId): Breakdown {
  const found = byPattern.get(pattern);
  if (!found) throw new RangeError(`no breakdown of "${pattern}"`);
  return found;
}
