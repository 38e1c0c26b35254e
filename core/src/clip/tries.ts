import { say } from '../words/say.js';
import { SCREENS, type FaultId, type ItemTry, type Screen, type View } from '../screen/index.js';
import type { Side } from '../terms.js';
import { inTime, markedItem, momentWords } from './check.js';
import type { ClipMark, ClipReview, Sureness } from './types.js';

/** A try of an item, as a clip shows it. */
export interface ClipTry {
  readonly screen: string;
  readonly item: string;
  readonly view: View | null;
  readonly side: Side;
  readonly try: ItemTry;
}

const RANK: Readonly<Record<Sureness, number>> = { unsure: 0, likely: 1, sure: 2 };

/**
 * What a review says of items of screens: one try an item and side, with all
 * faults that were marked at it. What one cannot be sure of from this view, and
 * what could not be seen, is none of it. An item is said to be without faults
 * only where it was marked as a strength.
 */
export function triesIn({ view, marks, file }: ClipReview, screens: readonly Screen[] = SCREENS): ClipTry[] {
  const told = inTime(marks).filter(({ shows, sure, tells }) => shows !== null && sure !== 'unsure' && tells !== 'unseen');
  const groups = new Map<string, ClipMark[]>();
  for (const mark of told) {
    const key = `${mark.shows!.screen} ${mark.shows!.item} ${mark.side}`;
    groups.set(key, [...(groups.get(key) ?? []), mark]);
  }
  return [...groups.values()].flatMap((own) => {
    const { screen, item: id } = own[0]!.shows!;
    const item = markedItem(own[0]!, screens);
    if (!item) return [];
    const faults = [...new Set(own.flatMap(({ shows }) => (shows!.fault === null ? [] : [shows!.fault])))] as FaultId[];
    const isStrength = own.some(({ tells }) => tells === 'strength');
    const looksForFaults = item.answered.by === 'look' && item.answered.noFaults === true;
    const isLook = item.answered.by === 'look';
    // Nothing marked at it that a screen keeps: only "seen in a clip" is no try.
    if (faults.length === 0 && !(isStrength && isLook)) return [];
    const least = own.reduce<Sureness>((least, { sure }) => (RANK[sure] < RANK[least] ? sure : least), 'sure');
    const at = own.map(({ t }) => momentWords(t)).join(', ');
    const words = say('clip {file} at {at}, {sure}', { file, at, sure: say(least) }).slice(0, 120);
    return [
      {
        screen,
        item: id,
        view: item.views.length > 0 ? view : null,
        side: own[0]!.side,
        try: {
          ...(faults.length > 0 || looksForFaults ? { faults } : {}),
          ...(faults.length === 0 && isLook && !looksForFaults ? { meets: true } : {}),
          picture: { words, error: null },
        },
      },
    ];
  });
}
