import type { ScreenPlanView, ScreenSettingsView } from '@dial-gauge/contract';
import {
  screensFor,
  SCREENS,
  type GradedItem,
  type Modification,
  type Screen,
  type ScreenItem,
  type ScreenSettings,
  type Side,
  type View,
} from '@dial-gauge/core';

/** An item that is asked for. */
export type ScreenWay = ScreenPlanView['asked'][number];

/** One line of a screen's sheet: an item, from a view, with what is changed about it. */
export interface ScreenStep {
  readonly key: string;
  readonly screen: Screen;
  readonly item: ScreenItem;
  readonly view: View | null;
  readonly with: readonly Modification[];
  /** Why it was added: a fault that asks for it. */
  readonly askedBy: string | null;
}

/** Screens as the clinic has them. */
export const screensOf = (settings: ScreenSettingsView | null): Screen[] =>
  settings ? screensFor(SCREENS, settings as ScreenSettings) : [...SCREENS];

export const stepKey = (screen: string, item: string, view: View | null, changes: readonly string[]): string =>
  [screen, item, view ?? '', [...changes].sort().join('+')].join('/');

const step = (
  screen: Screen,
  item: ScreenItem,
  view: View | null,
  changes: readonly Modification[],
  askedBy: string | null,
): ScreenStep => ({
  key: stepKey(screen.id, item.id, view, changes),
  screen,
  item,
  view,
  with: changes,
  askedBy,
});

/** A fault that was seen with the heels down asks for the same with the heels raised, from the same view. */
const ASKED_CHANGE: Modification = 'heelsRaised';

/**
 * The lines of the chosen screens: every item from each of its views, then
 * what was changed about it, because it was done so or because a fault asks.
 * Of a screen that was not chosen, the items that were asked for.
 */
export function stepsOf(
  chosen: readonly string[],
  screens: readonly Screen[],
  graded: readonly GradedItem[],
  asked: readonly ScreenWay[] = [],
): ScreenStep[] {
  return screensIn(chosen, asked).flatMap((id) => {
    const screen = screens.find((s) => s.id === id);
    if (!screen) return [];
    return screen.items.flatMap((item) => {
      const own = graded.filter((g) => g.screen === id && g.item.id === item.id);
      const wanted = asked
        .filter((way) => way.screen === id && way.item === item.id)
        .map(({ view, with: changes }) => step(screen, item, (view ?? null) as View | null, (changes ?? []) as Modification[], null));
      const views: readonly (View | null)[] = item.views.length > 0 ? item.views : [null];
      const plain = chosen.includes(id) ? views.map((view) => step(screen, item, view, [], null)) : wanted;
      const changed = own
        .filter(({ done }) => done.with?.length)
        .map(({ done }) => step(screen, item, done.view ?? null, done.with!, null));
      const asks = own
        .filter(({ done, opens }) => !done.with?.length && opens.length > 0 && item.modifications.includes(ASKED_CHANGE))
        .map(({ done, faults }) => step(screen, item, done.view ?? null, [ASKED_CHANGE], faults[0] ?? null));
      const all = new Map<string, ScreenStep>();
      for (const one of [...plain, ...asks, ...changed, ...wanted]) if (!all.has(one.key)) all.set(one.key, one);
      return [...all.values()];
    });
  });
}

/** Screens that have a line: those that were chosen, then those of which single items were asked for. */
export const screensIn = (chosen: readonly string[], asked: readonly ScreenWay[]): string[] => [
  ...new Set([...chosen, ...asked.map(({ screen }) => screen)]),
];

/** Sides that are asked of an item, the uninvolved one first. */
export function sidesFor({ sides }: ScreenItem, involved: Side | 'both' | null): readonly Side[] {
  if (sides !== 'each') return ['midline'];
  return involved === 'left' ? ['right', 'left'] : ['left', 'right'];
}

/** Minutes that a screen takes. */
export function screenMinutes({ items }: Screen): number {
  return Math.ceil(
    items.reduce((sum, { minutes, sides, views }) => sum + minutes * (sides === 'each' ? 2 : 1) * Math.max(1, views.length), 0),
  );
}

/** Whether two lists of changes are the same, in whatever order. */
export const same = (a: readonly string[], b: readonly string[]): boolean => a.length === b.length && a.every((one) => b.includes(one));
