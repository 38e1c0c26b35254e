import { protocolOfId } from '../catalogue/index.js';
import { allowedDoing, allowedFor, type Limits } from '../precaution/index.js';
import { NO_TIMES, secondsFor, turnSecondsOf, type RecordedTimes } from '../plan/minutes.js';
import { stationFor, type Station } from '../plan/station.js';
import { findItem, findScreen, SCREENS, type Screen } from '../screen/index.js';
import type { Mode, Position, Side } from '../terms.js';
import { cutOf, limbsOf, sidesOf } from './answer.js';
import type { Facts } from './facts.js';
import type { ItemWay, Look, Question, Way } from './types.js';

interface Timed {
  readonly side: Side;
  readonly mode: Mode;
  readonly position: Position;
  /** With the turn that it takes to get there. */
  readonly seconds: number;
  /** Until the question is answered: some are answered by two tests together. */
  readonly secondsToAnswer: number;
  /** Those that answer it together, this one among them; left out where it answers alone. */
  readonly together?: readonly Test[];
}

/** Something to be done next: a measurement, or an item of a screen. */
export type Test =
  (Timed & { readonly kind: 'measurement'; readonly way: Way }) | (Timed & { readonly kind: 'item'; readonly of: ItemWay });

/** What tests are chosen under. */
export interface Choosing {
  readonly limits: Limits;
  /** Where the patient stands, sits or lies now. */
  readonly station: Station | null;
  readonly times?: RecordedTimes;
  readonly screens?: readonly Screen[];
}

/** The least value that would still answer: a reading that has to stop before it cannot tell. */
const reach = (look: Look, way: Way): number | null => (look.look === 'value' ? cutOf(look, way).from : null);

/**
 * What can still be done to answer a question on a side: what was measured is
 * not measured again, what is forbidden is not proposed, and what has to stop
 * before it could tell is left alone.
 */
export function testsFor({ look }: Question, facts: Facts, side: Side, choosing: Choosing): Test[] {
  const at = (way: Way, on: Side) => measurement(way, on, facts, choosing, reach(look, way));
  const oneOf = (ways: readonly Way[]) =>
    ways.flatMap((way) => sidesOf(way, side).flatMap((on) => (ways.some((w) => facts.value(w, on)) ? [] : (at(way, on) ?? []))));
  switch (look.look) {
    case 'value':
    case 'endFeel':
      return oneOf(look.ways);
    case 'finding':
      return oneOf(look.toFind);
    case 'otherSide':
      return look.ways.some((way) => BOTH.every((on) => facts.value(way, on)))
        ? []
        : look.ways.flatMap((way) => together(BOTH, choosing, (on) => done(facts.value(way, on), at(way, on))));
    case 'gain':
      return limbsOf(side).flatMap((on) => {
        const sided = (way: Way): Side => (sidesOf(way, on)[0] === 'midline' ? 'midline' : on);
        const known = (way: Way) => facts.value(way, sided(way));
        return look.pairs.some((pair) => pair.every(known))
          ? []
          : look.pairs.flatMap((pair) => together(pair, choosing, (way) => done(known(way), at(way, sided(way)))));
      });
    case 'itemGain':
    case 'clears': {
      const plain: ItemWay = { ...look.of, with: [] };
      return limbsOrWhole(look.of, side, choosing).flatMap((on) =>
        together([plain, { ...look.of, with: [look.change] }], choosing, (of) =>
          done(facts.items(of, on)[0], item(of, on, facts, choosing)),
        ),
      );
    }
    case 'fault':
    case 'item':
      return look.of.flatMap((of) =>
        limbsOrWhole(of, side, choosing).flatMap((on) =>
          look.of.some((one) => facts.items(one, on).length > 0) ? [] : (item(of, on, facts, choosing) ?? []),
        ),
      );
  }
}

/** What to do to answer a question: of the tests that can, those that take the least time. */
export function quickestOf(tests: readonly Test[]): readonly Test[] {
  const [first, ...rest] = tests;
  if (!first) return [];
  const best = rest.reduce((a, b) => (b.secondsToAnswer < a.secondsToAnswer ? b : a), first);
  return best.together ?? [best];
}

const BOTH = ['left', 'right'] as const;

type Step = 'done' | Test | undefined;
const done = (known: unknown, test: Test | undefined): Step => (known ? 'done' : test);

/** Tests that answer a question only together: those that are still missing, if none of them is forbidden. */
function together<T>(all: readonly T[], choosing: Choosing, stepOf: (one: T) => Step): Test[] {
  const steps = all.map(stepOf);
  if (steps.includes(undefined)) return [];
  const missing = steps.filter((step): step is Test => step !== 'done');
  const secondsToAnswer = secondsOneAfterAnother(missing, choosing);
  const whole = missing.map((test) => ({ ...test, secondsToAnswer }));
  return whole.map((test) => (whole.length > 1 ? { ...test, together: whole } : test));
}

/** Each by itself, with the turns from one to the next: a turn that serves both is taken once. */
function secondsOneAfterAnother(tests: readonly Test[], { station, times = NO_TIMES }: Choosing): number {
  const turn = (from: Station | null, to: Station): number => (from ? turnSecondsOf(times)(from, to) : 0);
  const at = tests.map((test) => stationFor(test.position, test.side));
  return tests.reduce((sum, test, i) => sum + test.seconds - turn(station, at[i]!) + turn(at[i - 1] ?? station, at[i]!), 0);
}

/** Sides on which an item is done, for a pattern of this side. */
function limbsOrWhole(of: ItemWay, side: Side, { screens = SCREENS }: Choosing): readonly Side[] {
  const screen = findScreen(of.screen, screens);
  const found = screen && findItem(screen, of.item);
  if (!found) return [];
  return found.sides === 'each' ? limbsOf(side) : [found.sides === 'none' ? 'midline' : side];
}

function measurement(
  way: Way,
  side: Side,
  facts: Facts,
  { limits, station, times = NO_TIMES }: Choosing,
  wanted: number | null,
): Test | undefined {
  if (facts.value(way, side)) return undefined;
  const protocol = protocolOfId(way.protocol)!;
  const allowed = allowedFor({ protocol: protocol.id, motion: protocol.motion, side, mode: way.mode }, limits);
  // Stopped short, or kept from its end: what would be read is not what is asked.
  if (allowed.kind === 'forbidden' || allowed.kind === 'gentle') return undefined;
  if (allowed.kind === 'stop' && (wanted === null || allowed.at < wanted)) return undefined;
  const to = stationFor(protocol.position, side);
  const seconds = secondsFor(protocol, 1, times) + (station ? turnSecondsOf(times)(station, to) : 0);
  return { kind: 'measurement', way, side, mode: way.mode, position: protocol.position, seconds, secondsToAnswer: seconds };
}

function item(of: ItemWay, side: Side, facts: Facts, { limits, station, times, screens = SCREENS }: Choosing): Test | undefined {
  const screen = findScreen(of.screen, screens);
  const found = screen?.items.find(({ id }) => id === of.item);
  if (!found || facts.items(of, side).length > 0) return undefined;
  if (allowedDoing(found, side, limits).kind !== 'free') return undefined;
  const to = stationFor(found.position, side);
  const seconds = found.minutes * 60 + (station ? turnSecondsOf(times)(station, to) : 0);
  return { kind: 'item', of, side, mode: found.mode, position: found.position, seconds, secondsToAnswer: seconds };
}
