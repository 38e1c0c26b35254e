import { measurementKey, type Measurement, type MeasurementKey } from '../assessment.js';
import { protocolName, protocolOf, protocolOfId } from '../catalogue/index.js';
import type { MeasuredValue } from '../measurement.js';
import type { IsoDate, Side } from '../terms.js';
import { dayWords, say } from '../words/say.js';

/** A reading that looks alike but was taken another way, last time or on the other side, and so was not compared. */
export type NotCompared =
  | { readonly when: 'last-visit'; readonly on: IsoDate; readonly protocol: string }
  | { readonly when: 'other-side'; readonly side: Side; readonly protocol: string }
  /** Of a copy that was signed before this was data. */
  | { readonly when: 'signed'; readonly said: string };

/** What was not compared, and why. */
export function notComparedWords(of: NotCompared): string {
  if (of.when === 'signed') return of.said;
  const protocol = protocolOfId(of.protocol);
  const way = protocol ? say(protocolName(protocol)) : of.protocol;
  if (of.when === 'last-visit')
    return say('measured on {day} by another protocol ({way}): not compared, the two measure different things', {
      day: dayWords(of.on),
      way,
    });
  return say(
    of.side === 'left'
      ? 'the left side was measured by another protocol ({way}): not compared, the two measure different things'
      : 'the right side was measured by another protocol ({way}): not compared, the two measure different things',
    { way },
  );
}

type Keyed = ReadonlyMap<MeasurementKey, MeasuredValue>;

/** What a reader would want to compare but must not: the same motion by another protocol, last time or on the other side. */
export function notComparable(
  measured: readonly MeasuredValue[],
  byKey: Keyed,
  previous: { readonly on: string; readonly byKey: Keyed } | undefined,
): ReadonlyMap<MeasurementKey, NotCompared[]> {
  const opposite = { left: 'right', right: 'left', midline: 'midline' } as const;
  const way = ({ motion, mode, digit }: Measurement, side: Measurement['side']): string => `${motion}|${mode}|${digit ?? ''}|${side}`;
  const byWay = (among: Keyed): ReadonlyMap<string, MeasuredValue[]> => {
    const ways = new Map<string, MeasuredValue[]>();
    for (const m of among.values()) {
      const key = way(m.measurement, m.measurement.side);
      const own = ways.get(key);
      if (own) own.push(m);
      else ways.set(key, [m]);
    }
    return ways;
  };
  const [now, then] = [byWay(byKey), previous && byWay(previous.byKey)];
  const alike = (m: MeasuredValue, side: Measurement['side'], among: typeof now | undefined): MeasuredValue[] =>
    among?.get(way(m.measurement, side)) ?? [];
  const idOf = (other: MeasuredValue): string => protocolOf(other.measurement).id;
  return new Map(
    measured.map((m) => {
      const { side } = m.measurement;
      const before = previous && !previous.byKey.has(m.key) ? alike(m, side, then) : [];
      const across =
        side === 'midline' || byKey.has(measurementKey({ ...m.measurement, side: opposite[side] })) ? [] : alike(m, opposite[side], now);
      return [
        m.key,
        [
          ...before.map((other) => ({ when: 'last-visit' as const, on: previous?.on ?? '', protocol: idOf(other) })),
          ...across.map((other) => ({ when: 'other-side' as const, side: opposite[side], protocol: idOf(other) })),
        ],
      ];
    }),
  );
}
