import { formatNumber, suffixOf } from '../words/figures.js';
import { findMotion, protocolOfId, regionName } from '../catalogue/index.js';
import type { IsoDate, Mode, MotionId, Side } from '../terms.js';
import type { PrecautionKind } from './kinds.js';

/**
 * What may not be done in this episode, until a day, and who said so. It holds
 * for every way of measuring that does it, to whatever end and on whichever
 * side it is measured. The surgeon's limits win over whatever the program
 * proposes.
 */
export interface Precaution {
  readonly motion: MotionId;
  /** How far, where it is left out. */
  readonly kind?: PrecautionKind;
  /** Only where all of these are done at once with it, on the same limb. */
  readonly with?: readonly MotionId[];
  /** This way of measuring alone. */
  readonly protocol?: string;
  /** Which side; both where it is left out. */
  readonly side?: Side;
  /** Which mode; both where it is left out. */
  readonly mode?: Mode;
  /** Furthest end position allowed, in the motion's unit; of a distance that is better small, the least; of weight, from where bent; null: not at all. */
  readonly limit: number | null;
  /** First day on which it no longer holds; null: until it is lifted. */
  readonly until: IsoDate | null;
  /** Who or what set it: "surgeon, letter of 3 March". */
  readonly source: string;
}

/** Whether a precaution still holds on a day. Without a day every one holds. */
export function holdsOn({ until }: Pick<Precaution, 'until'>, on: IsoDate | null): boolean {
  return until === null || on === null || on < until;
}

/** The precautions that name a measurement itself, whether they still hold or not: what a chart of it shows. */
export function precautionsFor(
  { motion, side, mode }: { readonly motion: MotionId; readonly side: Side; readonly mode: Mode },
  precautions: readonly Precaution[],
): Precaution[] {
  return precautions.filter(
    (by) =>
      by.motion === motion &&
      kindOf(by) === 'range' &&
      !by.with?.length &&
      (by.side === undefined || by.side === side || side === 'midline') &&
      (by.mode === undefined || by.mode === mode),
  );
}

export const kindOf = ({ kind }: Pick<Precaution, 'kind'>): PrecautionKind => kind ?? 'range';

const nameOf = (id: MotionId): string => findMotion(id)?.name.toLowerCase() ?? id;

function what({ motion: id, limit, ...by }: Precaution): string {
  const about = findMotion(id);
  const figure = limit === null ? '' : `${formatNumber(limit)}${about ? suffixOf(about.unit) : ''}`;
  switch (kindOf(by)) {
    case 'range':
      if (limit === null) return notAtAll(by);
      return `${about?.better === 'less' ? 'not below' : 'not past'} ${figure}`;
    case 'end-range':
      return 'not to its end: no push there, nothing that draws or loads it so far';
    case 'against-gravity':
      return 'not by own strength against gravity';
    case 'resisted':
      return 'not against resistance';
    case 'weight': {
      const joint = about ? regionName(about.joint).toLowerCase() : id;
      return limit === null ? `no weight on the ${joint}` : `no weight on the ${joint} at ${figure} or more`;
    }
    case 'single-leg':
      return 'no standing on this leg alone';
  }
}

const notAtAll = (by: Pick<Precaution, 'with'>): string => (by.with?.length ? 'not at once' : 'not to be measured');

/** Precautions that say the same of several motions, each list in its order. */
export function alikePrecautions(precautions: readonly Precaution[]): Precaution[][] {
  const alike = new Map<string, Precaution[]>();
  for (const by of precautions) {
    const { motion: id, ...rest } = by;
    const key = JSON.stringify([
      kindOf(by),
      rest.with,
      rest.protocol,
      rest.side,
      rest.mode,
      rest.limit,
      rest.until,
      rest.source,
      findMotion(id)?.joint,
    ]);
    alike.set(key, [...(alike.get(key) ?? []), by]);
  }
  return [...alike.values()];
}

/** "shoulder: flexion, extension, abduction: not against resistance": the same said of several motions of one joint. */
export function alikeWords(alike: readonly Precaution[]): string {
  const [first] = alike as [Precaution, ...Precaution[]];
  if (alike.length === 1) return precautionWords(first);
  const about = findMotion(first.motion);
  const names = alike.map((by) => (findMotion(by.motion)?.short ?? by.motion).toLowerCase());
  const others = first.with?.length ? ` with ${first.with.map(nameOf).join(' and ')}` : '';
  return `${about ? `${regionName(about.joint).toLowerCase()} ` : ''}${names.join(', ')}${others}${first.mode ? `, ${first.mode}` : ''}: ${what(first)}`;
}

/** "knee flexion, passive: not past 90°" without side and day, whose wording is the screen's. */
export function precautionWords(by: Precaution): string {
  const names = [by.motion, ...(by.with ?? [])].map(nameOf).join(' with ');
  const way = by.protocol ? protocolOfId(by.protocol) : undefined;
  return `${names}${way ? `, ${way.label}` : ''}${by.mode ? `, ${by.mode}` : ''}: ${what(by)}`;
}
