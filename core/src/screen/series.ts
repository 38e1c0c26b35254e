import type { ErrorContext } from '../error/own.js';
import type { IsoDate, Side, Unit } from '../terms.js';
import type { FaultId } from './faults.js';
import { gradeItem, type GradedItem, type Quality } from './grade.js';
import { beforeOf, gradedScreens, wayOf, type ItemBefore } from './outcome.js';
import type { ScreenDone } from './result.js';
import type { Modification, Screen, View } from './types.js';

/** The screens of one visit, with the screens as the clinic had them on its day. */
export interface ScreenDay {
  /** Index of the visit. */
  readonly visit: number;
  readonly on: IsoDate;
  readonly done: readonly ScreenDone[];
  readonly screens: readonly Screen[];
}

/** What an item came to at one visit, by what held on its day. */
export interface ItemPoint {
  readonly visit: number;
  readonly on: IsoDate;
  readonly quality: Quality;
  readonly value: number | null;
  readonly pain: number | null;
  readonly faults: readonly FaultId[];
  /** From where it met then, in its unit; null where nothing of that kind is asked. */
  readonly threshold: number | null;
}

/** One item on one side, from one view and with what was changed about it, over the visits. */
export interface ItemSeries {
  readonly key: string;
  readonly screen: string;
  readonly item: string;
  readonly name: string;
  readonly side: Side;
  readonly view: View | null;
  readonly with: readonly Modification[];
  readonly unit: Unit | null;
  /** Oldest first, one a visit. */
  readonly points: readonly ItemPoint[];
  /** The last point against the first and the one before it, both by what holds now; null where there is none. */
  readonly sinceFirst: ItemBefore | null;
  readonly sinceLast: ItemBefore | null;
  /** Whether the visit from which one looks back has it. */
  readonly isCurrent: boolean;
}

interface At {
  readonly day: ScreenDay;
  readonly graded: GradedItem;
}

/**
 * Every item that was screened over the visits, in the order in which the items
 * were first met. Old results keep what held on their day; a change is told by
 * what holds at the last time, so that another threshold makes nobody better.
 *
 * @param days oldest first
 * @param visit index of the visit from which one looks back
 */
export function seriesOfItems(days: readonly ScreenDay[], visit: number, context: ErrorContext = {}): ItemSeries[] {
  const ways = new Map<string, At[]>();
  for (const day of days)
    for (const graded of gradedScreens(day.done, context, day.screens)) {
      const key = wayOf(graded);
      const way = ways.get(key);
      if (way) way.push({ day, graded });
      else ways.set(key, [{ day, graded }]);
    }
  return [...ways].map(([key, all]) => {
    const now = all[all.length - 1]!;
    const { screen, item, side, done, unit } = now.graded;
    const [first, previous] = [all[0]!, all[all.length - 2]];
    return {
      key,
      screen,
      item: item.id,
      name: item.name,
      side,
      view: done.view ?? null,
      with: done.with ?? [],
      unit,
      points: all.map(pointOf),
      sinceFirst: first === now ? null : changeSince(now, first, context),
      sinceLast: previous ? changeSince(now, previous, context) : null,
      isCurrent: now.day.visit === visit,
    };
  });
}

function pointOf({ day: { visit, on }, graded: { quality, value, pain, faults, threshold } }: At): ItemPoint {
  return { visit, on, quality, value, pain, faults, threshold: threshold?.value ?? null };
}

function changeSince(now: At, then: At, context: ErrorContext): ItemBefore {
  const screen = now.day.screens.find(({ id }) => id === now.graded.screen)!;
  return beforeOf(now.graded, gradeItem(screen, now.graded.item, then.graded.done, context), then.day.on);
}
