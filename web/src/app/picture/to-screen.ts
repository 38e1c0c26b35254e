import {
  finestStep,
  pictureError,
  SCREENS,
  type PictureLengthValue,
  type PictureSet,
  type PictureValue,
  type Screen,
  type ScreenItem,
  type View,
} from '@dial-gauge/core';
import { NOTHING, type Entry } from '../screen/entry';

/** An item of a screen that can take what was read off a picture. */
export interface ScreenTarget {
  readonly key: string;
  readonly words: string;
  readonly screen: Screen;
  readonly item: ScreenItem;
  readonly view: View | null;
  /** What it is told by: the amount, or the lines of shin and trunk. */
  readonly takes: 'deg' | 'cm' | 'lines';
}

/** Landmark sets in which shin and trunk are seen from the side. */
const LINES = { shin: 'shin', trunk: 'trunk' } as const;

/** Every item that a value of this set may go to. */
export function screenTargets(set: PictureSet, screens: readonly Screen[] = SCREENS): ScreenTarget[] {
  const hasLines =
    Object.values(LINES).every((id) => set.angles.some((angle) => angle.id === id)) && set.angles.some(({ id }) => id === 'parallel');
  return screens.flatMap((screen) =>
    screen.items.flatMap((item): ScreenTarget[] => {
      const of = { screen, item, key: `${screen.id}/${item.id}` };
      if (item.answered.by === 'amount' && (item.answered.unit === 'deg' || (item.answered.unit === 'cm' && set.lengths.length > 0)))
        return [{ ...of, words: `${screen.name}: ${item.name}`, view: null, takes: item.answered.unit }];
      // Lines are looked at where trunk and shin may fall apart: at a squat from the side.
      if (hasLines && item.faults.some(({ id, views }) => id === 'trunkFallsForward' && views.includes('side')))
        return [
          { ...of, key: `${of.key}/lines`, words: `${screen.name}: ${item.name}, lines from the side`, view: 'side', takes: 'lines' },
        ];
      return [];
    }),
  );
}

/** What was read, as the item takes it; or what is missing. */
export function entryFrom(
  { takes }: ScreenTarget,
  values: readonly PictureValue[],
  chosen: PictureValue | PictureLengthValue | undefined,
  words: string,
): Entry | string {
  if (takes === 'lines') {
    const [shin, trunk] = [LINES.shin, LINES.trunk].map((id) => values.find(({ angle }) => angle.id === id));
    if (!shin || !trunk) return 'Shin and trunk are not both placed yet.';
    return {
      ...NOTHING,
      shin: String(Math.round(shin.degrees)),
      trunk: String(Math.round(trunk.degrees)),
      picture: { words, error: null },
    };
  }
  if (!chosen) return 'Choose which value it is.';
  const isLength = 'cm' in chosen;
  if (isLength !== (takes === 'cm'))
    return `That item is told in ${takes === 'cm' ? 'centimetres' : 'degrees'}; allowed: a value in those.`;
  const [value, step] = isLength ? [chosen.cm, 0.1] : [chosen.degrees, finestStep('picture')];
  const inSteps = Math.round(Math.round(value / step) * step * 10) / 10;
  return { ...NOTHING, value: String(inSteps), picture: { words, error: Math.round(pictureError(chosen) * 100) / 100 } };
}
