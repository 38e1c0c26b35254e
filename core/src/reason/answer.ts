import { motion, protocolOfId } from '../catalogue/index.js';
import { bandAround, mdcOfDifference } from '../error/index.js';
import type { FaultId, GradedItem } from '../screen/index.js';
import type { EndFeel, MotionId, Side, Unit } from '../terms.js';
import type { Facts, KnownValue } from './facts.js';
import type { AnswerId, Cut, Look, Question, Way } from './types.js';

/** How a question stands on one side: what was looked at, and what it comes to. */
export interface Answered {
  readonly side: Side;
  /** Null: looked at, and it decides nothing. */
  readonly answer: AnswerId | null;
  readonly figure: Figure | null;
  /** What was measured to answer it. */
  readonly motion?: MotionId;
}

/** The figures behind an answer. */
export type Figure =
  | { readonly kind: 'value'; readonly value: number; readonly band: number; readonly cut: Cut }
  | {
      readonly kind: 'gain';
      readonly from: number;
      readonly to: number;
      readonly gain: number;
      readonly mdc: number;
      readonly least: number;
      readonly unit: Unit;
    }
  | { readonly kind: 'other-side'; readonly value: number; readonly other: number; readonly mdc: number; readonly unit: Unit }
  /** A reading that a neighbour helped along: what it comes to is not what it is of. */
  | { readonly kind: 'helped'; readonly motion: MotionId }
  | { readonly kind: 'faults'; readonly seen: readonly FaultId[] }
  | { readonly kind: 'item'; readonly value: number | null; readonly unit: Unit | null }
  | { readonly kind: 'end-feel'; readonly endFeel: EndFeel };

/** Limbs that are asked about: both, where the pattern was seen as a whole. */
export const limbsOf = (side: Side): readonly Side[] => (side === 'midline' ? ['left', 'right'] : [side]);

/** Sides on which a way of measuring is read, for a pattern of this side. */
export function sidesOf({ protocol }: Way, side: Side): readonly Side[] {
  const { sides } = motion(protocolOfId(protocol)!.motion);
  return sides === 'midline' ? ['midline'] : limbsOf(side);
}

/** Every answer that is there: one, or one a side where the pattern was seen as a whole. */
export function answersTo({ look }: Question, facts: Facts, side: Side): Answered[] {
  switch (look.look) {
    case 'value':
      return perSide(look.ways, side, (way, at) => {
        const known = facts.value(way, at);
        return known && (helped(at, known) ?? againstCut(known, cutOf(look, way), at));
      });
    case 'gain':
      return limbsOf(side).flatMap((at) => first(look.pairs, ([from, to]) => gained(facts, from, to, look.least, at)) ?? []);
    case 'itemGain':
      return limbsOf(side).flatMap((at) => itemGained(look, facts, at) ?? []);
    case 'otherSide':
      return limbsOf(side).flatMap((at) => first(look.ways, (way) => besideOther(facts, way, look.share, at)) ?? []);
    case 'clears':
      return clears(look, facts, side);
    case 'fault': {
      const items = look.of.flatMap((of) => facts.items(of, side)).filter(wasLookedAt);
      if (items.length === 0) return [];
      const seen = look.fault.filter((fault) => items.some(({ faults }) => faults.includes(fault)));
      return [{ side, answer: seen.length > 0 ? 'seen' : 'not-seen', figure: { kind: 'faults', seen } }];
    }
    case 'item':
      return look.of
        .flatMap((of) => facts.items(of, side))
        .filter(({ quality }) => quality !== 'not judged')
        .map((one) => ({ side: one.side, answer: itemAnswer(one), figure: { kind: 'item' as const, value: one.value, unit: one.unit } }));
    case 'endFeel':
      return perSide(look.ways, side, (way, at) => {
        const endFeel = facts.value(way, at)?.measurement.endFeel;
        return endFeel && { side: at, answer: endFeel, figure: { kind: 'end-feel', endFeel }, ...measuredBy(way) };
      });
    case 'finding':
      return facts.findings.some(
        (f) =>
          look.kinds.includes(f.kind) &&
          look.motions.includes(f.motion) &&
          (look.mode === undefined || f.mode === look.mode) &&
          limbsOf(side).includes(f.side),
      )
        ? [{ side, answer: 'found', figure: null }]
        : [];
  }
}

type ValueLook = Extract<Look, { look: 'value' }>;

/** Where a way of measuring is cut in two. */
export const cutOf = ({ cut, otherCuts = {} }: ValueLook, { protocol }: Way): Cut => otherCuts[protocol] ?? cut;

/** Every way of a question with its cut. */
export const cutsOf = (look: ValueLook): { readonly way: Way; readonly cut: Cut }[] =>
  look.ways.map((way) => ({ way, cut: cutOf(look, way) }));

function first<T, R>(all: readonly T[], pick: (one: T) => R | undefined): R | undefined {
  for (const one of all) {
    const picked = pick(one);
    if (picked !== undefined) return picked;
  }
  return undefined;
}

function perSide(ways: readonly Way[], side: Side, read: (way: Way, at: Side) => Answered | undefined): Answered[] {
  const sides = [...new Set(ways.flatMap((way) => sidesOf(way, side)))];
  return sides.flatMap((at) => first(ways, (way) => read(way, at)) ?? []);
}

const measuredBy = ({ protocol }: Way) => ({ motion: protocolOfId(protocol)!.motion });

/** A reading that was helped along decides nothing. */
function helped(side: Side, ...known: readonly KnownValue[]): Answered | undefined {
  const one = known.find(({ measurement }) => (measurement.substitutions?.length ?? 0) > 0)?.measurement.motion;
  return one && { side, answer: null, figure: { kind: 'helped', motion: one }, motion: one };
}

/** A value inside its error of the cut decides nothing. */
function againstCut({ value, sem, measurement }: KnownValue, cut: Cut, side: Side): Answered {
  const band = bandAround(sem);
  const answer = value < cut.below - band ? 'below' : value >= cut.from + band ? 'from' : null;
  return { side, answer, figure: { kind: 'value', value, band, cut }, motion: measurement.motion };
}

/** More by so much and by more than its error; no more than its error; or neither, which decides nothing. */
function told(gain: number, mdc: number, least: number): AnswerId | null {
  if (gain >= least && gain > mdc) return 'gains';
  return gain <= mdc && gain < least ? 'same' : null;
}

function gained(facts: Facts, from: Way, to: Way, least: number, side: Side): Answered | undefined {
  const [a, b] = [facts.value(from, side), facts.value(to, side)];
  if (!a || !b) return undefined;
  const spoilt = helped(side, a, b);
  if (spoilt) return spoilt;
  const gain = b.value - a.value;
  const mdc = mdcOfDifference(a.sem, b.sem);
  return {
    side,
    answer: told(gain, mdc, least),
    figure: { kind: 'gain', from: a.value, to: b.value, gain, mdc, least, unit: motion(a.measurement.motion).unit },
    motion: b.measurement.motion,
  };
}

function itemGained(look: Extract<Look, { look: 'itemGain' }>, facts: Facts, side: Side): Answered | undefined {
  const amountOf = (changes: readonly (typeof look.change)[]) =>
    facts.items({ ...look.of, with: changes }, side).find((one) => one.value !== null && one.side === side);
  const [plain, changed] = [amountOf([]), amountOf([look.change])];
  if (!plain || !changed) return undefined;
  const [from, to] = [plain.value!, changed.value!];
  const mdc = mdcOfDifference(plain.sem!, changed.sem!);
  return {
    side,
    answer: told(to - from, mdc, look.least),
    figure: { kind: 'gain', from, to, gain: to - from, mdc, least: look.least, unit: plain.unit! },
  };
}

const OTHER = { left: 'right', right: 'left', midline: 'midline' } as const;

function besideOther(facts: Facts, way: Way, share: number, side: Side): Answered | undefined {
  const [here, there] = [facts.value(way, side), facts.value(way, OTHER[side])];
  if (!here || !there) return undefined;
  const spoilt = helped(side, here, there);
  if (spoilt) return spoilt;
  const mdc = Math.max(mdcOfDifference(here.sem, there.sem), share * there.value);
  const less = there.value - here.value;
  return {
    side,
    answer: less > mdc ? 'less' : 'alike',
    figure: { kind: 'other-side', value: here.value, other: there.value, mdc, unit: motion(here.measurement.motion).unit },
    motion: here.measurement.motion,
  };
}

const wasLookedAt = ({ done, quality, faults }: GradedItem): boolean =>
  faults.length > 0 || quality !== 'not judged' || done.tries.some((one) => one.faults !== undefined);

const itemAnswer = ({ quality }: GradedItem): AnswerId => (quality === 'meets' ? 'meets' : 'short');

/** A fault that was there without the change, and with it is gone or not. */
function clears({ of, fault, change }: Extract<Look, { look: 'clears' }>, facts: Facts, side: Side): Answered[] {
  const seenIn = (changes: readonly (typeof change)[]) => {
    const items = facts.items({ ...of, with: changes }, side).filter(wasLookedAt);
    return items.length === 0 ? null : fault.filter((id) => items.some(({ faults }) => faults.includes(id)));
  };
  const [without, changed] = [seenIn([]), seenIn([change])];
  if (without === null || changed === null || without.length === 0) return [];
  const stay = without.filter((id) => changed.includes(id));
  return [{ side, answer: stay.length > 0 ? 'stays' : 'clears', figure: { kind: 'faults', seen: stay } }];
}
