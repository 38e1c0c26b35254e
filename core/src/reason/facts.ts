import { protocolOf } from '../catalogue/index.js';
import type { Finding } from '../finding/index.js';
import type { MeasuredValue } from '../measurement.js';
import type { GradedItem } from '../screen/index.js';
import type { Mode, Side } from '../terms.js';
import type { ItemWay, Way } from './types.js';

/** A value that was measured, with its error. */
export type KnownValue = Pick<MeasuredValue, 'measurement' | 'value' | 'sem'>;

/** What is known about a person on a day, for looking up. */
export interface Facts {
  value(way: Way, side: Side): KnownValue | undefined;
  /** The item as it was graded on this side; or unsided, where it was looked at as a whole. */
  items(way: ItemWay, side: Side): readonly GradedItem[];
  readonly findings: readonly Finding[];
}

const keyOf = (protocol: string, mode: Mode, side: Side): string => `${protocol}|${mode}|${side}`;

/** @param measured readings of one day @param graded items of screens of the same visit */
export function factsOf(measured: readonly KnownValue[], graded: readonly GradedItem[], findings: readonly Finding[]): Facts {
  const values = new Map(measured.map((m) => [keyOf(protocolOf(m.measurement).id, m.measurement.mode, m.measurement.side), m]));
  const byItem = new Map<string, GradedItem[]>();
  for (const one of graded) {
    // An item of a clinic's own screen keeps where it is from in its id.
    const id = one.item.id.includes('.') ? one.item.id : `${one.screen}.${one.item.id}`;
    byItem.set(id, [...(byItem.get(id) ?? []), one]);
  }
  return {
    value: ({ protocol, mode }, side) => values.get(keyOf(protocol, mode, side)),
    items: ({ screen, item, view, with: changes = [] }, side) =>
      (byItem.get(`${screen}.${item}`) ?? []).filter(
        (one) =>
          (view === undefined || one.done.view === view || one.done.view === undefined) &&
          sameChanges(one.done.with ?? [], changes) &&
          (one.side === side || one.side === 'midline' || side === 'midline'),
      ),
    findings,
  };
}

const sameChanges = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((change) => b.includes(change));
