import type { IsoDate } from '../terms.js';
import type { Screen, ScreenItem } from './types.js';

/** An item of a screen: `patterns.toeTouch`. */
export type ItemId = `${string}.${string}`;
export const itemId = (screen: string, item: string): ItemId => `${screen}.${item}`;

/** A screen that a clinic put together from items of others. */
export interface OwnScreen {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly purpose: string;
  readonly items: readonly ItemId[];
}

/** What a clinic changed about the screens, from a day on. Never altered: a change is another one, so that old results keep their meaning. */
export interface ScreenSettings {
  readonly since: IsoDate;
  /** Thresholds of its own, in the item's unit. */
  readonly thresholds: Readonly<Record<ItemId, number>>;
  readonly hidden: readonly ItemId[];
  readonly own: readonly OwnScreen[];
}

export const NO_SETTINGS: ScreenSettings = { since: '0001-01-01', thresholds: {}, hidden: [], own: [] };

/** The screens as a clinic uses them. An item of an own screen keeps where it is from in its id: `patterns.toeTouch`. */
export function screensFor(screens: readonly Screen[], settings: ScreenSettings = NO_SETTINGS): Screen[] {
  const changed = screens.map((screen) => ({
    ...screen,
    items: screen.items.map((item) => withThreshold(screen.id, item, settings)),
    former: screen.former.map((item) => withThreshold(screen.id, item, settings)),
  }));
  const own = settings.own.map(({ items, ...screen }) => {
    // One of a pair stands by itself here, whether or not the other one was picked.
    const own = ([id, item]: readonly [ItemId, ScreenItem]): ScreenItem => ({ ...item, id, orElse: null, formerly: null });
    const asked = items.flatMap((id) =>
      byId(changed, 'items').filter(([one, { formerly }]) => one === id || (formerly !== null && itemId(screenOf(one), formerly) === id)),
    );
    return {
      ...screen,
      items: asked.map(own),
      former: byId(changed, 'former')
        .filter(([id]) => items.includes(id))
        .map(own),
    };
  });
  return [...changed.map((screen) => ({ ...screen, items: screen.items.filter((item) => !isHidden(screen.id, item, settings)) })), ...own];
}

/** What was hidden stays so where it is asked in another way now. */
const isHidden = (screen: string, { id, formerly }: ScreenItem, { hidden }: ScreenSettings): boolean =>
  hidden.includes(itemId(screen, id)) || (formerly !== null && hidden.includes(itemId(screen, formerly)));

const screenOf = (id: ItemId): string => id.slice(0, id.indexOf('.'));

const byId = (screens: readonly Screen[], of: 'items' | 'former'): (readonly [ItemId, ScreenItem])[] =>
  screens.flatMap((screen) => screen[of].map((item) => [itemId(screen.id, item.id), item] as const));

function withThreshold(screen: string, item: ScreenItem, { thresholds }: ScreenSettings): ScreenItem {
  const value = thresholds[itemId(screen, item.id)];
  if (value === undefined || !item.threshold) return item;
  return { ...item, threshold: { ...item.threshold, value, source: { cite: 'this clinic', fromMemory: false } } };
}

/** The settings that held on a day: the last ones since then or before. */
export function settingsOn(all: readonly ScreenSettings[], on: IsoDate): ScreenSettings {
  const held = all.filter(({ since }) => since <= on).sort((a, b) => (a.since < b.since ? -1 : 1));
  return held[held.length - 1] ?? NO_SETTINGS;
}
