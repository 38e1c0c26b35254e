import {
  itemFindings,
  itemName,
  itemOf,
  jointsOfItem,
  SPINE_REGIONS,
  type ItemFinding,
  type ItemOutcome,
  type Joint,
  type Side,
} from '@dial-gauge/core';
import type { JointMark, JointState } from './body-map';

/** Heaviest first: what is drawn where items say several things of a joint. */
const WEIGHT = ['pain', 'one-sided', 'short', 'not-judged', 'fine'] as const satisfies readonly JointState[];
type ItemState = (typeof WEIGHT)[number];
const WORDS: Readonly<Record<ItemState, string>> = {
  pain: 'hurts',
  'one-sided': 'less than the other side',
  short: 'short',
  'not-judged': 'not judged',
  fine: 'meets',
};
const OF_KIND: Readonly<Partial<Record<ItemFinding['kind'], ItemState>>> = {
  'item-hurts': 'pain',
  'item-one-sided': 'one-sided',
  'item-short': 'short',
};
const SPINE: readonly Joint[] = SPINE_REGIONS;

/** Joints that the items of screens look at, by the heaviest of what was found there. */
export function itemMarks(outcomes: readonly ItemOutcome[]): JointMark[] {
  const found = itemFindings(outcomes);
  const marks = new Map<string, JointMark & { readonly state: ItemState }>();
  for (const one of outcomes) {
    const states = found.flatMap((f) => (f.outcomes.includes(one) && OF_KIND[f.kind] ? [OF_KIND[f.kind]!] : []));
    const plain = one.quality === 'not judged' ? 'not-judged' : one.quality === 'meets' ? 'fine' : 'short';
    const state = WEIGHT.find((s) => s === plain || states.includes(s))!;
    for (const [joint, side] of placesOf(one)) {
      const key = `${joint} ${side}`;
      const before = marks.get(key);
      if (!before || WEIGHT.indexOf(state) < WEIGHT.indexOf(before.state))
        marks.set(key, { joint, side, state, words: `${WORDS[state]}, ${itemName(one)}` });
    }
  }
  return [...marks.values()];
}

/** Where an item is drawn; nowhere for one that this version does not know. */
function placesOf(one: ItemOutcome): (readonly [Joint, Side])[] {
  const item = itemOf(one);
  return (item ? jointsOfItem(item) : []).flatMap((joint) => {
    if (SPINE.includes(joint)) return [[joint, 'midline'] as const];
    const sides: readonly Side[] = one.side === 'midline' ? ['left', 'right'] : [one.side];
    return sides.map((side) => [joint, side] as const);
  });
}

const HEAVY: readonly JointState[] = ['pain', 'again', 'one-sided', 'short', 'beyond'];

/** What was measured at each joint, and what items of screens add to it; nothing is called fine that was not measured. */
export function withItems(measured: readonly JointMark[], items: readonly JointMark[]): JointMark[] {
  const heavy = items.filter(({ state }) => HEAVY.includes(state));
  const at = (all: readonly JointMark[], { joint, side }: JointMark) => all.find((m) => m.joint === joint && m.side === side);
  const joined = measured.map((mark): JointMark => {
    const item = at(heavy, mark);
    if (!item) return mark;
    const isHeavier = !HEAVY.includes(mark.state) || HEAVY.indexOf(item.state) < HEAVY.indexOf(mark.state);
    return {
      ...mark,
      state: isHeavier ? item.state : mark.state,
      words: [mark.words, `on the screen ${item.words}`].filter(Boolean).join('; '),
    };
  });
  return [...joined, ...heavy.filter((item) => !at(measured, item)).map((item) => ({ ...item, words: `on the screen ${item.words}` }))];
}
