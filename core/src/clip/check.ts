import { formatFixed } from '../words/figures.js';
import { checkItem, findItem, findScreen, SCREENS, type ItemProblem, type Screen, type ScreenItem, type View } from '../screen/index.js';
import { MOST_TO_WORK_ON, type ClipMark, type ClipReview } from './types.js';

/** In the order of time; of two at one moment the one that was made first. */
export const inTime = (marks: readonly ClipMark[]): ClipMark[] => [...marks].sort((a, b) => a.t - b.t);

/** Whatever of a review does not hold, with where and what is allowed. */
export function checkReview({ marks, view }: ClipReview, screens: readonly Screen[] = SCREENS): ItemProblem[] {
  const problems: ItemProblem[] = [];
  const work = marks.filter(({ tells }) => tells === 'work').length;
  if (work > MOST_TO_WORK_ON)
    problems.push({
      path: ['marks'],
      message: `names ${work} things to work on; allowed: up to ${MOST_TO_WORK_ON}, more are too many at once`,
    });
  const seen = new Set<string>();
  marks.forEach((mark, at) => {
    const refuse = (field: string, message: string) => problems.push({ path: ['marks', at, field], message });
    if (seen.has(mark.id)) refuse('id', 'stands twice; allowed: an id of its own for each mark');
    seen.add(mark.id);
    if (mark.shows === null) {
      if (mark.words.trim() === '') refuse('words', 'are missing; allowed: words, or an item of a screen');
      return;
    }
    const { screen, item, fault } = mark.shows;
    const found = markedItem(mark, screens);
    // A strength is the item done well: a fault is none.
    if (mark.tells === 'strength' && fault !== null) refuse('shows', 'names a fault as a strength; allowed: the item alone');
    const [wrong] = checkItem(
      screen,
      {
        item,
        ...(found?.views.length ? { view } : {}),
        ...(mark.side === 'midline' ? {} : { side: mark.side }),
        tries: [{ faults: fault === null ? [] : [fault] }],
      },
      screens,
    );
    if (wrong) refuse(wrong.path.includes('side') ? 'side' : 'shows', wrong.message);
  });
  return problems;
}

export function markedItem({ shows }: Pick<ClipMark, 'shows'>, screens: readonly Screen[] = SCREENS): ScreenItem | undefined {
  const screen = shows && findScreen(shows.screen, screens);
  return screen ? findItem(screen, shows.item) : undefined;
}

/** Items that can be looked at from a view: those that have no views, and those that have this one. */
export function itemsSeenFrom(view: View, screens: readonly Screen[] = SCREENS): { readonly screen: Screen; readonly item: ScreenItem }[] {
  return screens.flatMap((screen) =>
    screen.items.filter(({ views }) => views.length === 0 || views.includes(view)).map((item) => ({ screen, item })),
  );
}

export const momentWords = (t: number): string => `${formatFixed(t, 1)} s`;
