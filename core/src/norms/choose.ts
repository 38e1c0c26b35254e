import { isJoint, motion, type Motion } from '../catalogue/index.js';
import { Z95 } from '../error/sem.js';
import type { Digit, Mode, MotionId, Position, Sex, Side } from '../terms.js';
import type { AgeBand, NormEntry, NormSet } from './types.js';

/** What a norm is wanted for. `age` is in completed years on the day of the assessment. */
export interface NormQuery {
  readonly motion: MotionId;
  readonly mode: Mode;
  readonly position: Position;
  /** Variant of the protocol; null or left out: the usual one. */
  readonly variant?: string | null;
  readonly side?: Side;
  readonly digit?: Digit;
  readonly sex: Sex;
  readonly age: number;
  /** The single readings, where a source counts them otherwise than the protocol. */
  readonly ends?: readonly number[] | undefined;
}

/** What does not fit between a norm and the person or the reading. Empty: it fits. */
export const NORM_FLAGS = ['other-mode', 'other-position', 'other-protocol', 'other-sex', 'nearest-age', 'no-edge'] as const;
export type NormFlag = (typeof NORM_FLAGS)[number];
/** With one of these a norm may be shown, but does not judge and has no vote: every one but the sex, which tables often do not tell apart. */
const BARRING: readonly NormFlag[] = ['other-mode', 'other-position', 'other-protocol', 'nearest-age', 'no-edge'];

/** A figure without an age band is of adults. */
const ADULT = 18;

export interface NormChoice {
  readonly entry: NormEntry;
  readonly flags: readonly NormFlag[];
  /** False when the norm is of another mode, position, protocol or age: it may be shown, it never judges and never counts in an agreement. */
  readonly comparable: boolean;
  /** Whether its figure is of an age band that the person is in. */
  readonly ofTheirAge: boolean;
}

/** What counts first when no entry fits in everything: each weighs more than all that follow. That no edge can be drawn is no question of fit. */
type Misfit = Exclude<NormFlag, 'no-edge'>;
const WEIGHTS = { 'other-mode': 16, 'other-position': 8, 'other-protocol': 4, 'nearest-age': 2, 'other-sex': 1 } as const satisfies Record<
  Misfit,
  number
>;
const MISFITS = Object.keys(WEIGHTS) as Misfit[];

const indexes = new WeakMap<NormSet, ReadonlyMap<MotionId, readonly NormEntry[]>>();

/** Whether a set says anything about a motion. */
export function speaksOf(set: NormSet, motion: MotionId): boolean {
  return entriesOf(set, motion).length > 0;
}

/** Entries of a set by motion; made once for each set. */
function entriesOf(set: NormSet, motion: MotionId): readonly NormEntry[] {
  let index = indexes.get(set);
  if (!index) {
    const byMotion = new Map<MotionId, NormEntry[]>();
    for (const entry of set.entries) byMotion.set(entry.motion, [...(byMotion.get(entry.motion) ?? []), entry]);
    indexes.set(set, (index = byMotion));
  }
  return index.get(motion) ?? [];
}

/** A finger's norms are for index to little finger; a side's for that side alone. */
function isAsked(entry: NormEntry, { side, digit }: NormQuery): boolean {
  if (entry.side !== undefined && side !== undefined && entry.side !== side) return false;
  return entry.digit === undefined ? digit !== THUMB : entry.digit === digit;
}
const THUMB: Digit = 1;

/**
 * The entry of one set that fits best: mode first, then position, protocol,
 * age and sex. Whatever does not fit is flagged; another set is never asked
 * instead.
 *
 * @returns undefined when the set has no value for the motion
 */
export function chooseNorm(set: NormSet, query: NormQuery): NormChoice | undefined {
  let best: NormEntry | undefined;
  let [least, leastGap] = [Infinity, Infinity];
  for (const entry of entriesOf(set, query.motion)) {
    if (!isAsked(entry, query)) continue;
    const misfit = misfitOf(entry, query);
    if (misfit > least) continue;
    const gap = gapOf(entry, query);
    if (misfit === least && gap >= leastGap) continue;
    [best, least, leastGap] = [entry, misfit, gap];
  }
  if (!best) return undefined;
  const flags: NormFlag[] = MISFITS.filter((flag) => (least & WEIGHTS[flag]) !== 0);
  if (hasNoEdge(best)) flags.push('no-edge');
  return {
    entry: best,
    flags,
    comparable: !flags.some((f) => BARRING.includes(f)),
    ofTheirAge: best.ages !== null && yearsOutside(best.ages, query.age) === 0,
  };
}

/**
 * A sample so wide that its lower edge lies below what anybody can show: it
 * would call everybody normal, also who cannot do it at all. Nor is an edge
 * drawn by the spread of a sample that is no bell curve.
 */
function hasNoEdge({ motion: id, value }: Pick<NormEntry, 'motion' | 'value'>): boolean {
  if (value.kind === 'skewed') return true;
  if (value.kind !== 'distribution') return false;
  const { better, limits } = motion(id);
  const spread = Z95 * value.sd;
  if (better === 'less') return value.mean + spread >= limits.max;
  return better === 'more' && value.mean - spread <= leastShown(motion(id));
}

/** What who cannot do it at all would be read as: a direction of a joint as 0, what usually ends near zero or is no angle as less. */
export const leastShown = ({ joint, endsNearZero, limits }: Motion): number =>
  isJoint(joint) && !endsNearZero ? Math.max(limits.min, 0) : limits.min;

/** What does not fit, as a sum of weights. */
function misfitOf(entry: NormEntry, query: NormQuery): number {
  let misfit = 0;
  if (entry.mode !== 'any' && entry.mode !== query.mode) misfit += WEIGHTS['other-mode'];
  if (entry.position !== 'any' && entry.position !== query.position) misfit += WEIGHTS['other-position'];
  if (entry.variant !== 'any' && (entry.variant ?? null) !== (query.variant ?? null)) misfit += WEIGHTS['other-protocol'];
  if (entry.sex !== 'any' && entry.sex !== query.sex) misfit += WEIGHTS['other-sex'];
  if (gapOf(entry, query) > 0) misfit += WEIGHTS['nearest-age'];
  return misfit;
}

/** Years between the person and whom the entry is of. */
function gapOf({ ages }: NormEntry, { age }: NormQuery): number {
  return ages ? yearsOutside(ages, age) : Math.max(0, ADULT - age);
}

/** 0 inside the band; otherwise how far the age lies from its nearer edge. */
function yearsOutside(band: AgeBand, age: number): number {
  if (age < band.from) return band.from - age;
  return age < band.to ? 0 : age - band.to + 1;
}
