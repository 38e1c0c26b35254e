import { motion, protocolOfId } from '../catalogue/index.js';
import { errorOf } from '../error/index.js';
import type { AnswerId, Facts, Look, Question } from '../reason/index.js';
import { factsOf, reasonAbout, type Breakdown, type Choosing, type Reasoned } from '../reason/index.js';
import { limited } from './limits.js';
import { findItem, findScreen, gradeItem, type FaultId, type GradedItem, type ItemTry } from '../screen/index.js';
import type { EndFeel, Side } from '../terms.js';
import type { ItemWay, Way } from '../reason/types.js';
import type { KnownValue } from '../reason/facts.js';

/** What is known in a test: values and items, added one by one. */
export interface MadeFacts {
  readonly values: readonly KnownValue[];
  readonly items: readonly GradedItem[];
}
export const NOTHING_KNOWN: MadeFacts = { values: [], items: [] };
export const factsFrom = ({ values, items }: MadeFacts): Facts => factsOf(values, items, []);

/** A way of measuring read as so much. */
export function valueOf({ protocol: id, mode }: Way, side: Side, value: number, endFeel?: EndFeel): KnownValue {
  const protocol = protocolOfId(id)!;
  const instrument = protocol.instruments[0]!;
  const sided = motion(protocol.motion).sides === 'midline' ? 'midline' : side;
  return {
    value,
    sem: errorOf({ motion: protocol.motion, instrument, protocol: id, value }).sem,
    measurement: {
      motion: protocol.motion,
      side: sided,
      mode,
      position: protocol.position,
      protocol: id,
      instrument,
      trials: [],
      ...(endFeel ? { endFeel } : {}),
    },
  };
}

/** An item of a screen with one try. */
export function itemOf({ screen: id, item: name, view, with: changes }: ItemWay, side: Side, one: ItemTry): GradedItem {
  const screen = findScreen(id)!;
  const item = findItem(screen, name)!;
  const at = item.sides === 'none' ? 'midline' : side;
  return gradeItem(screen, item, {
    item: name,
    ...(view ? { view } : {}),
    ...(changes?.length ? { with: changes } : {}),
    side: at,
    tries: [one],
  });
}

const fault = (of: ItemWay, side: Side, faults: readonly FaultId[]): GradedItem => itemOf(of, side, { faults });

/** What has to be seen for a question to be answered so, on one side. */
export function madeFor(look: Look, answer: AnswerId, side: Side): MadeFacts {
  switch (look.look) {
    case 'value':
    case 'gain':
    case 'endFeel':
    case 'otherSide':
      return { values: measuredFor(look, answer, side), items: [] };
    case 'itemGain':
    case 'clears':
    case 'fault':
    case 'item':
      return { values: [], items: seenFor(look, answer, side) };
    case 'finding':
      return NOTHING_KNOWN;
  }
}

type LookBy<K extends Look['look']> = Extract<Look, { look: K }>;

function measuredFor(look: LookBy<'value' | 'gain' | 'endFeel' | 'otherSide'>, answer: AnswerId, side: Side): KnownValue[] {
  switch (look.look) {
    case 'value':
      return [valueOf(look.ways[0]!, side, answer === 'below' ? look.cut.below - 40 : look.cut.from + 40)];
    case 'gain': {
      const [from, to] = look.pairs[0]!;
      return [valueOf(from, side, 20), valueOf(to, side, answer === 'gains' ? 60 : 20)];
    }
    case 'endFeel':
      return [valueOf(look.ways[0]!, side, 100, answer as EndFeel)];
    case 'otherSide': {
      const other = side === 'left' ? 'right' : 'left';
      return [valueOf(look.ways[0]!, side, answer === 'less' ? 50 : 200), valueOf(look.ways[0]!, other, 200)];
    }
  }
}

function seenFor(look: LookBy<'itemGain' | 'clears' | 'fault' | 'item'>, answer: AnswerId, side: Side): GradedItem[] {
  switch (look.look) {
    case 'itemGain': {
      const changed = { ...look.of, with: [look.change] };
      return [itemOf(look.of, side, { value: -30 }), itemOf(changed, side, { value: answer === 'gains' ? 10 : -30 })];
    }
    case 'clears': {
      const changed = { ...look.of, with: [look.change] };
      return [fault(look.of, side, look.fault), fault(changed, side, answer === 'stays' ? look.fault : [])];
    }
    case 'fault':
      return [fault(look.of[0]!, side, answer === 'seen' ? look.fault : [])];
    case 'item':
      return [itemOf(look.of[0]!, side, tryOf(look.of[0]!, answer === 'meets'))];
  }
}

function tryOf({ screen, item: name }: ItemWay, meets: boolean): ItemTry {
  const { answered } = findItem(findScreen(screen)!, name)!;
  if (answered.by === 'choice') return { answer: answered.choices.find((choice) => choice.meets === meets)!.id };
  return { meets };
}

/** Every answer of a question, each by itself. */
export const answersOf = ({ answers }: Question): AnswerId[] => answers.flatMap(({ answer }) => answer);

/** Both together; what was known before stays as it was. */
export const known = (a: MadeFacts, b: MadeFacts): MadeFacts => {
  const has = (v: KnownValue) =>
    a.values.some(
      (w) =>
        w.measurement.protocol === v.measurement.protocol &&
        w.measurement.side === v.measurement.side &&
        w.measurement.mode === v.measurement.mode,
    );
  return { values: [...a.values, ...b.values.filter((v) => !has(v))], items: [...a.items, ...b.items] };
};

/** Nothing is limited, and nobody has said how the person lies. */
export const FREE: Choosing = { limits: limited([], '2026-11-20'), station: null };

/** What stands of a pattern on a side, by what is known. */
export const about = (breakdown: Breakdown, facts: MadeFacts, side: Side = 'left', choosing = FREE): Reasoned =>
  reasonAbout(breakdown, side, factsFrom(facts), choosing);
