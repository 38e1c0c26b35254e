import { chooseNorm, type NormQuery } from './choose.js';
import { bandOf, compareWithNorm, type ExpectedBand, type NormComparison } from './compare.js';
import { DEFAULT_NORM_ORDER, NORM_SETS } from './sets.js';
import type { NormSet } from './types.js';

/**
 * An order of sets with every installed one in it: those that it does not
 * name come after, the clinic's own at the end, so that a set that is new is
 * asked last, and judges nothing that another one judged before.
 */
export function wholeOrder(first: readonly string[], own: readonly NormSet[] = []): string[] {
  const installed = new Set([...NORM_SETS, ...own].map((set) => set.id));
  const all = [...first, ...DEFAULT_NORM_ORDER, ...own.map((set) => set.id)];
  return [...new Set(all)].filter((id) => installed.has(id));
}

/** The comparison that judges: of the first set of an order with a comparable value. `places`: where each set stands in it. */
export function judging(places: ReadonlyMap<string, number>, comparisons: readonly NormComparison[]): NormComparison | undefined {
  let first: NormComparison | undefined;
  let at = Infinity;
  for (const comparison of comparisons) {
    const place = places.get(comparison.set);
    if (!comparison.comparable || place === undefined || place >= at) continue;
    [first, at] = [comparison, place];
  }
  return first;
}

/** The first set of an order with a comparable value, before anything has been read; and where it expects people. */
export function judgingSet(
  order: readonly NormSet[],
  query: NormQuery,
): { readonly set: NormSet; readonly band: ExpectedBand } | undefined {
  for (const set of order) {
    const choice = chooseNorm(set, query);
    if (choice?.comparable) return { set, band: bandOf(choice.entry.value) };
  }
  return undefined;
}

/** The same with a value held against it. */
export function judgingNorm(order: readonly NormSet[], query: NormQuery, value: number, sem: number): NormComparison | undefined {
  const found = judgingSet(order, query);
  return found && compareWithNorm(found.set, query, value, sem);
}
