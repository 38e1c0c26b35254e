import { toKept } from '../angle/units.js';
import type { ItemTry } from './result.js';
import type { ScreenItem } from './types.js';

/** The amount of a try in the item's unit; null where there is none. */
export function kept(item: ScreenItem, { value, unit }: ItemTry): number | null {
  if (value === undefined || item.answered.by !== 'amount') return null;
  const { unit: own } = item.answered;
  return unit === undefined || unit === own || own === 'yesNo' ? value : toKept(value, unit);
}
