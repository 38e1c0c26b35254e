import type { ScreenPlanView, ScreenSettingsView } from '@dial-gauge/contract';
import {
  everyItem,
  screensFor,
  SCREENS,
  STANCES,
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

/** How the items were done the time before: of two that are done in place of each other which one, and in which stance. */
export interface LastTime {
  readonly screen: string;
  readonly item: string;
  readonly with?: readonly string[];
}

/** Of two items that are done in place of each other, the one that is asked: what was done or asked today, then what was done the last time. */
function isItsTurn(
  screen: Screen,
  item: ScreenItem,
  today: readonly { screen: string; item: string }[],
  before: readonly LastTime[],
): boolean {
  if (item.orElse === null) return true;
  const has = (of: readonly { screen: string; item: string }[], id: string | null): boolean =>
    of.some((one) => one.screen === screen.id && one.item === id);
  if (has(today, item.id)) return true;
  if (has(today, item.orElse)) return false;
  if (has(before, item.id)) return true;
  if (has(before, item.orElse)) return false;
  return screen.items.findIndex(({ id }) => id === item.id) < screen.items.findIndex(({ id }) => id === item.orElse);
}

/** What was changed about an item the last time it was done. */
const lastWith = (screen: Screen, item: ScreenItem, before: readonly LastTime[]): readonly string[] =>
  before.filter((one) => one.screen === screen.id && one.item === item.id).at(-1)?.with ?? [];

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
  before: readonly LastTime[] = [],
): ScreenStep[] {
  return screensIn(chosen, asked).flatMap((id) => {
    const screen = screens.find((s) => s.id === id);
    if (!screen) return [];
    const today = [...graded.map((g) => ({ screen: g.screen, item: g.item.id })), ...asked];
    return everyItem(screen).flatMap((item) => {
      const own = graded.filter((g) => g.screen === id && g.item.id === item.id);
      const isAsked = chosen.includes(id) && screen.items.includes(item) && isItsTurn(screen, item, today, before);
      const wanted = asked
        .filter((way) => way.screen === id && way.item === item.id)
        .map(({ view, with: changes }) => step(screen, item, (view ?? null) as View | null, (changes ?? []) as Modification[], null));
      const views: readonly (View | null)[] = item.views.length > 0 ? item.views : [null];
      const stood = own[0]?.done.with ?? (own.length > 0 ? [] : wanted.at(-1)?.with) ?? lastWith(screen, item, before);
      const stance = item.modifications.filter((one) => STANCES.includes(one) && stood.includes(one));
      const plain = isAsked ? views.map((view) => step(screen, item, view, stance, null)) : wanted;
      const changed = own
        .filter(({ done }) => done.with?.length || !screen.items.includes(item))
        .map(({ done }) => step(screen, item, done.view ?? null, done.with ?? [], null));
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
export function screenMinutes(screen: Screen): number {
  return Math.ceil(
    screen.items
      .filter((item) => isItsTurn(screen, item, [], []))
      .reduce((sum, { minutes, sides, views }) => sum + minutes * (sides === 'each' ? 2 : 1) * Math.max(1, views.length), 0),
  );
}

/** Whether two lists of changes are the same, in whatever order. */
export const same = (a: readonly string[], b: readonly string[]): boolean => a.length === b.length && a.every((one) => b.includes(one));
