import { FLOOR_PATH } from './floor-path.js';
import { HIP_SIX_WAYS } from './hip-six-ways.js';
import { JOINT_CIRCLES } from './joint-circles.js';
import { LOADING_READINESS } from './loading-readiness.js';
import { PATTERN_SCREEN } from './patterns.js';
import { POSTURE } from './posture.js';
import { QUICK_MARKERS } from './quick-markers.js';
import { SQUAT_CHECK } from './squat-check.js';
import { TABLE_EXAM } from './table-exam.js';
import type { Screen, ScreenItem } from './types.js';

/** Every screen of the program. One more is a file of data and a line here. */
export const SCREENS: readonly Screen[] = [
  PATTERN_SCREEN,
  LOADING_READINESS,
  SQUAT_CHECK,
  JOINT_CIRCLES,
  HIP_SIX_WAYS,
  TABLE_EXAM,
  POSTURE,
  FLOOR_PATH,
  QUICK_MARKERS,
];

export function findScreen(id: string, screens: readonly Screen[] = SCREENS): Screen | undefined {
  return screens.find((screen) => screen.id === id);
}

/** An item of a screen, also one that is asked no more. */
export function findItem(screen: Screen, id: string): ScreenItem | undefined {
  return everyItem(screen).find((item) => item.id === id);
}

/** The items of a screen, then those that are asked no more. */
export const everyItem = ({ items, former }: Pick<Screen, 'items' | 'former'>): readonly ScreenItem[] => [...items, ...former];
