import { motion, protocolOfId } from '../catalogue/index.js';
import { mdcOfDifference } from '../error/index.js';
import type { ErrorContext } from '../error/own.js';
import type { IsoDate, MotionId, Side, Unit } from '../terms.js';
import type { FaultId } from './faults.js';
import { gradeScreen, type GradedItem, type Quality } from './grade.js';
import { findScreen, SCREENS } from './list.js';
import type { PatternId } from './pattern-ids.js';
import type { ScreenDone } from './result.js';
import type { Modification, Screen, ScreenItem, Threshold, View } from './types.js';
import type { ItemReason } from './words.js';

/** What an item was the last time it was done the same way, and whether that is a change. */
export interface ItemBefore {
  readonly on: IsoDate;
  readonly quality: Quality;
  readonly value: number | null;
  readonly pain: number | null;
  /** By the item's own error where there are two amounts; otherwise by quality. */
  readonly change: 'better' | 'worse' | 'same' | 'not told';
  readonly mdc95: number | null;
}

/** What an item came to, without the item itself: as it is kept, sent and signed. */
export interface ItemOutcome {
  readonly screen: string;
  readonly item: string;
  readonly name: string;
  readonly chain: ScreenItem['chain'];
  readonly side: Side;
  readonly view: View | null;
  readonly with: readonly Modification[];
  readonly quality: Quality;
  readonly pain: number | null;
  readonly painWhere: string;
  readonly value: number | null;
  readonly unit: Unit | null;
  readonly sem: number | null;
  readonly threshold: Threshold | null;
  readonly faults: readonly FaultId[];
  readonly missing: readonly MotionId[];
  readonly opens: readonly PatternId[];
  readonly reasons: readonly ItemReason[];
  readonly before: ItemBefore | null;
}

/** Graded items of all screens of a day. What this version does not know is left out. */
export function gradedScreens(done: readonly ScreenDone[], context: ErrorContext = {}, screens: readonly Screen[] = SCREENS): GradedItem[] {
  return done.flatMap((one) => {
    const screen = findScreen(one.screen, screens);
    return screen ? gradeScreen(screen, one, context) : [];
  });
}

/** Screens of a day against those of a day before. */
export function screenOutcomes(
  done: readonly ScreenDone[],
  before: readonly ScreenDone[] = [],
  context: ErrorContext = {},
  screens: readonly Screen[] = SCREENS,
): ItemOutcome[] {
  const then = before.flatMap((one) => gradedScreens([one], context, screens).map((graded) => ({ on: one.screenedOn, graded })));
  return gradedScreens(done, context, screens).map((graded) => {
    const last = then.filter((other) => wayOf(other.graded) === wayOf(graded)).at(-1);
    return outcomeOf(graded, last ? beforeOf(graded, last.graded, last.on) : null);
  });
}

/** The same item, view and changes, whichever side: in which order changes were named says nothing. */
export const wayOfItem = ({
  screen,
  item,
  view,
  with: changes = [],
}: {
  readonly screen: string;
  readonly item: string;
  readonly view?: string | null | undefined;
  readonly with?: readonly string[] | undefined;
}): string => [screen, item, view ?? '', ...[...changes].sort()].join(' ');

/** The same item, side, view and changes: what may be held against each other over time. */
export const wayOf = ({ screen, item, done, side }: GradedItem): string =>
  `${side} ${wayOfItem({ screen, item: item.id, view: done.view, with: done.with })}`;

function outcomeOf(g: GradedItem, before: ItemBefore | null): ItemOutcome {
  const { screen, item, done, side, quality, pain, painWhere, value, unit, sem, threshold, faults, missing, opens, reasons } = g;
  return {
    screen,
    item: item.id,
    name: item.name,
    chain: item.chain,
    side,
    view: done.view ?? null,
    with: done.with ?? [],
    quality,
    pain,
    painWhere,
    value,
    unit,
    sem,
    threshold,
    faults,
    missing,
    opens,
    reasons,
    before,
  };
}

/** Which way an item's amount is good. */
function betterOf({ threshold, near }: ScreenItem): 'more' | 'less' | 'neither' {
  if (threshold) return threshold.at === 'least' ? 'more' : 'less';
  const protocol = near[0] && protocolOfId(near[0].protocol);
  return protocol ? motion(protocol.motion).better : 'more';
}

/** What lies between two times of one way: by the item's own error where both have an amount, else by quality. */
export function beforeOf(now: GradedItem, then: GradedItem, on: IsoDate): ItemBefore {
  const mdc = now.sem === null || then.sem === null ? null : mdcOfDifference(now.sem, then.sem);
  return { on, quality: then.quality, value: then.value, pain: then.pain, change: changeOf(now, then, mdc), mdc95: mdc };
}

function changeOf(now: GradedItem, then: GradedItem, mdc: number | null): ItemBefore['change'] {
  if (now.value !== null && then.value !== null && mdc !== null) {
    const more = now.value - then.value;
    const better = betterOf(now.item);
    if (Math.abs(more) <= mdc || better === 'neither') return 'same';
    return more > 0 === (better === 'more') ? 'better' : 'worse';
  }
  if (now.quality === 'not judged' || then.quality === 'not judged') return 'not told';
  if (now.quality === then.quality) return 'same';
  return now.quality === 'meets' ? 'better' : 'worse';
}
