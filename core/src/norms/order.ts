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

/** Ages at which a figure without an age band is taken as it stands. @see common practice, no source */
const GROWN = { from: 20, through: 60 } as const;

/** Outside them a set that has the person's own age band goes before those that have none, whatever the order. */
const ageGoesFirst = (age: number): boolean => age < GROWN.from || age > GROWN.through;

/**
 * The comparison that judges: of the first set of an order with a comparable
 * value; of the young and the old first those that are of their age.
 *
 * @param places where each set stands in the order
 */
export function judging(
  places: ReadonlyMap<string, number>,
  comparisons: readonly NormComparison[],
  age: number,
): NormComparison | undefined {
  const first = (asked: readonly NormComparison[]): NormComparison | undefined => {
    let best: NormComparison | undefined;
    let at = Infinity;
    for (const comparison of asked) {
      const place = places.get(comparison.set);
      if (!comparison.comparable || place === undefined || place >= at) continue;
      [best, at] = [comparison, place];
    }
    return best;
  };
  return (ageGoesFirst(age) ? first(comparisons.filter(({ ofTheirAge }) => ofTheirAge)) : undefined) ?? first(comparisons);
}

/** The set that judges, before anything has been read, by the same rule; and where it expects people. */
export function judgingSet(
  order: readonly NormSet[],
  query: NormQuery,
): { readonly set: NormSet; readonly band: ExpectedBand } | undefined {
  const found = order.flatMap((set) => {
    const choice = chooseNorm(set, query);
    return choice?.comparable ? [{ set, band: bandOf(choice.entry.value), ofTheirAge: choice.ofTheirAge }] : [];
  });
  const judges = (ageGoesFirst(query.age) ? found.find(({ ofTheirAge }) => ofTheirAge) : undefined) ?? found[0];
  return judges && { set: judges.set, band: judges.band };
}

/** The same with a value held against it. */
export function judgingNorm(order: readonly NormSet[], query: NormQuery, value: number, sem: number): NormComparison | undefined {
  const found = judgingSet(order, query);
  return found && compareWithNorm(found.set, query, value, sem);
}
