import { mdcOfDifference } from '../error/index.js';
import type { Unit } from '../terms.js';
import type { GradedItem } from './grade.js';
import type { ItemOutcome } from './outcome.js';

type Amount = Pick<ItemOutcome, 'value' | 'sem' | 'unit'>;

/** What lies between the sides of an item that has an amount, held against the error of a difference. */
export interface Sides {
  readonly difference: number;
  readonly mdc95: number;
  readonly real: boolean;
}

/** Left less right of an item with an amount; null where there is none to compare. */
export function sidesOf(left: Amount | undefined, right: Amount | undefined): Sides | null {
  if (!left || !right || left.value === null || right.value === null) return null;
  if (left.sem === null || right.sem === null || left.unit !== right.unit) return null;
  const difference = left.value - right.value;
  const mdc = mdcOfDifference(left.sem, right.sem);
  return { difference, mdc95: mdc, real: Math.abs(difference) > mdc };
}

const sameWay = (a: GradedItem, b: GradedItem): boolean =>
  a.item === b.item && a.done.view === b.done.view && (a.done.with ?? []).join() === (b.done.with ?? []).join();

/** Left less right of one item. */
export interface SideDifference extends Sides {
  readonly screen: string;
  readonly item: GradedItem['item'];
  readonly left: GradedItem;
  readonly right: GradedItem;
  readonly unit: Unit;
}

/** Items with an amount on both sides. */
export function sideDifferences(graded: readonly GradedItem[]): SideDifference[] {
  return graded.flatMap((left) => {
    if (left.side !== 'left' || left.unit === null) return [];
    const right = graded.find((other) => other.side === 'right' && other.value !== null && sameWay(left, other));
    const sides = sidesOf(left, right);
    return right && sides ? [{ screen: left.screen, item: left.item, left, right, unit: left.unit, ...sides }] : [];
  });
}

/** Items that meet on one side and not on the other, where no amount tells them apart. */
export function oneSided(graded: readonly GradedItem[]): GradedItem[] {
  return graded.filter(
    (one) =>
      one.quality === 'short' &&
      one.side !== 'midline' &&
      graded.some((other) => other.quality === 'meets' && other.side !== 'midline' && other.side !== one.side && sameWay(one, other)),
  );
}
