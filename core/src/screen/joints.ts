import { isJoint, motion, protocolOfId } from '../catalogue/index.js';
import type { Joint } from '../terms.js';
import { findItem, findScreen, SCREENS } from './list.js';
import type { ItemOutcome } from './outcome.js';
import type { Screen, ScreenItem } from './types.js';

/** An item by what it came to; an item of a clinic's own screen keeps in its id where it is from. */
export function itemOf(
  { screen, item }: Pick<ItemOutcome, 'screen' | 'item'>,
  screens: readonly Screen[] = SCREENS,
): ScreenItem | undefined {
  const [from, name] = item.includes('.') ? (item.split('.') as [string, string]) : [screen, item];
  const found = findScreen(from, screens);
  return found && findItem(found, name);
}

/** Joints whose movement an item looks at: those that it stands near, and those that it takes to their end. */
export function jointsOfItem({ near, imposes }: ScreenItem): Joint[] {
  const measured = near.map(({ protocol }) => motion(protocolOfId(protocol)!.motion).joint);
  const moved = imposes.flatMap((row) =>
    row.what === 'moves' && row.by === 'measurement' && row.degrees === 'full' ? [row.motion.split('.')[0] as Joint] : [],
  );
  return [...new Set([...measured.filter(isJoint), ...moved])];
}
