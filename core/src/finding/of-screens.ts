import { bandAround } from '../error/sem.js';
import {
  amountWords,
  itemName,
  itemOf,
  itemReasonWords,
  jointsOfItem,
  painAdvice,
  sidesOf,
  wayOfItem,
  whyShort,
  type ItemOutcome,
  type Screen,
  type Sides,
} from '../screen/index.js';
import type { Joint, Side } from '../terms.js';
import { dayWords, say, upper } from '../words/say.js';
import { FROM_THE_GROUND, jointsApart } from './body.js';
import { compare, type RankContext } from './rank.js';
import { DEFAULT_RANKING } from './rankings.js';
import { STAGE_PLACES, type FindingStage } from './stages.js';
import type { Mark, Said } from './types.js';

/** One item, from one view and with what was changed about it, on the sides on which it was done. */
interface OneWay {
  readonly left?: ItemOutcome;
  readonly right?: ItemOutcome;
  readonly midline?: ItemOutcome;
}

interface FoundItem {
  /** What it is about; of both sides where they say the same. */
  readonly outcomes: readonly ItemOutcome[];
  readonly sides?: Sides;
}

interface ItemKind {
  readonly stage: FindingStage;
  readonly mark: Mark;
  readonly find: (way: OneWay) => readonly FoundItem[];
  readonly verdict: (found: FoundItem) => string;
  readonly advice?: () => string;
}

const all = ({ left, right, midline }: OneWay): ItemOutcome[] => [left, right, midline].filter((one) => one !== undefined);
const isPainful = ({ pain }: ItemOutcome): boolean => pain !== null && pain > 0;
/** Short, and not painful: what may be worked on. */
const isShort = (one: ItemOutcome): boolean => one.quality === 'short' && !isPainful(one);

/** Which side gives less: by the amount where it tells the sides apart, else by which one alone is short. */
function asymmetry({ left, right }: OneWay): { readonly lesser: ItemOutcome; readonly sides?: Sides } | null {
  if (!left || !right) return null;
  const sides = sidesOf(left, right) ?? undefined;
  if (sides?.real && left.threshold) {
    const lesser = sides.difference > 0 === (left.threshold.at === 'least') ? right : left;
    return { lesser, sides };
  }
  if (left.quality === right.quality || [left, right].some(({ quality }) => quality === 'not judged')) return null;
  return { lesser: left.quality === 'short' ? left : right, ...(sides ? { sides } : {}) };
}

const OTHER: Readonly<Record<Side, string>> = { left: 'right', right: 'left', midline: '' };

/** What the items of screens say, each kind in one place: how it is found, where it is read, its words. */
export const ITEM_KINDS = {
  'item-hurts': {
    stage: 'pain',
    mark: 'pain',
    find: (way) => all(way).flatMap((one) => (isPainful(one) ? [{ outcomes: [one] }] : [])),
    verdict: ({ outcomes: [one] }) =>
      one!.painWhere
        ? say('hurts, {amount}', { amount: say('{pain} of 10, {where}', { pain: one!.pain!, where: one!.painWhere }) })
        : say('hurts, {amount}', { amount: say('{pain} of 10', { pain: one!.pain! }) }),
    advice: painAdvice,
  },
  'item-one-sided': {
    stage: 'screen',
    mark: 'sides',
    find: (way) => {
      const found = asymmetry(way);
      return found && !isPainful(found.lesser) ? [{ outcomes: [found.lesser], ...(found.sides ? { sides: found.sides } : {}) }] : [];
    },
    verdict: ({ outcomes: [one], sides }) => {
      const other = say(OTHER[one!.side]);
      const why = one!.quality === 'short' ? whyShort(one!) : '';
      if (!sides?.real) return why ? say('short on this side alone: {why}', { why }) : say('short on this side alone');
      const size = amountWords(Math.round(Math.abs(sides.difference) * 10) / 10, one!.unit!);
      return say(one!.threshold?.at === 'most' ? '{size} more left over than on the {other} side' : '{size} less than the {other} side', {
        size,
        other,
      });
    },
  },
  'item-short': {
    stage: 'screen',
    mark: 'gap',
    find: (way) => {
      if (asymmetry(way)) return [];
      const short = all(way).filter(isShort);
      return short.length > 0 ? [{ outcomes: short }] : [];
    },
    verdict: ({ outcomes }) => {
      const why = [...new Set(outcomes.map(whyShort))].filter(Boolean).join(' · ');
      return why ? say('short: {why}', { why }) : say('short');
    },
  },
  'item-changed': {
    stage: 'change',
    mark: 'change',
    find: (way) =>
      all(way).flatMap((one) => (one.before?.change === 'better' || one.before?.change === 'worse' ? [{ outcomes: [one] }] : [])),
    verdict: ({ outcomes: [one] }) => {
      const { before, value, unit } = one!;
      const words = before!.change === 'better' ? say('better than last time') : say('worse than last time');
      return before!.value !== null && value !== null && unit !== null
        ? `${words}: ${amountWords(before!.value, unit)} → ${amountWords(value, unit)}`
        : words;
    },
  },
} satisfies Readonly<Record<string, ItemKind>>;

export type ItemFindingKind = keyof typeof ITEM_KINDS;
const KINDS_OF_ITEMS = Object.entries(ITEM_KINDS) as readonly (readonly [ItemFindingKind, ItemKind])[];

/** What an item of a screen says beside what was measured: data; words are made when it is read. */
export interface ItemFinding extends FoundItem {
  readonly kind: ItemFindingKind;
  readonly stage: FindingStage;
  readonly mark: Mark;
  /** Joints that the item looks at. */
  readonly joints: readonly Joint[];
}

/**
 * What the items of the screens of a visit say, in the order in which they are
 * read: pain, then what falls short by the clinic's rule, a difference between
 * the sides before a loss on both, then what changed. What was not judged says
 * nothing here; it is counted by `silentItems`.
 */
export function itemFindings(outcomes: readonly ItemOutcome[], context: RankContext = {}, screens?: readonly Screen[]): ItemFinding[] {
  const ways = new Map<string, { left?: ItemOutcome; right?: ItemOutcome; midline?: ItemOutcome }>();
  for (const one of outcomes) {
    const key = wayOfItem(one);
    const way = ways.get(key) ?? {};
    way[one.side] = one;
    ways.set(key, way);
  }
  const found = KINDS_OF_ITEMS.flatMap(([kind, { stage, mark, find }]) =>
    [...ways.values()].flatMap((way) =>
      find(way).map((f): ItemFinding => {
        const item = itemOf(f.outcomes[0]!, screens);
        return { ...f, kind, stage, mark, joints: item ? jointsOfItem(item) : [] };
      }),
    ),
  );
  return found
    .map((finding, at) => ({ finding, keys: [...keysOf(finding, context), at] }))
    .sort((a, b) => compare(a.keys, b.keys))
    .map(({ finding }) => finding);
}

const STAGES_OF_ITEMS: readonly FindingStage[] = ['pain', 'screen', 'change'];

/** The worst pain first; what is short by the rule of the clinic, then the sides before both, then the farthest from its threshold. */
function keysOf({ kind, stage, outcomes, joints }: ItemFinding, { ranking = DEFAULT_RANKING, complaintAt }: RankContext): number[] {
  const at = STAGES_OF_ITEMS.indexOf(stage);
  const [one] = outcomes;
  if (stage === 'pain') return [at, -one!.pain!, 0, 0];
  if (stage !== 'screen') return [at, 0, 0, 0];
  return [at, whereIn(joints, ranking, complaintAt), kind === 'item-one-sided' ? 0 : 1, -Math.max(...outcomes.map(timesOf))];
}

function whereIn(joints: readonly Joint[], ranking: RankContext['ranking'], complaintAt: Joint | undefined): number {
  const least = (of: (joint: Joint) => number) => (joints.length > 0 ? Math.min(...joints.map(of)) : Number.MAX_SAFE_INTEGER);
  if (ranking === 'ground-up') return least((joint) => FROM_THE_GROUND.indexOf(joint));
  if (ranking === 'nearest-complaint' && complaintAt) return least((joint) => jointsApart(complaintAt, joint));
  return 0;
}

/** How far an amount is from where it meets, in errors of a single reading. */
function timesOf({ value, threshold, sem }: ItemOutcome): number {
  return value === null || !threshold || !sem ? 0 : Math.abs(value - threshold.value) / bandAround(sem);
}

/** Items of which nothing is said, with why. */
export const silentItems = (outcomes: readonly ItemOutcome[]): readonly ItemOutcome[] =>
  outcomes.filter(({ quality }) => quality === 'not judged');

/** Which side of the map an item belongs to; midline where it is one of both. */
export const sideOfItem = ({ outcomes }: Pick<ItemFinding, 'outcomes'>): Side => (outcomes.length === 1 ? outcomes[0]!.side : 'midline');

/** An item's finding in the language that is spoken. */
export function saidOfItem(finding: ItemFinding): Said {
  const kind: ItemKind = ITEM_KINDS[finding.kind];
  const [one] = finding.outcomes;
  const verdict = kind.verdict(finding);
  const { sides } = finding;
  const because = finding.outcomes.flatMap((outcome) => {
    const reasons = outcome.reasons.map(itemReasonWords);
    return finding.outcomes.length > 1 ? reasons.map((words) => `${say(outcome.side)}: ${words}`) : reasons;
  });
  const between = sides
    ? [
        say('left − right = {difference}; error of the difference ± {mdc}', {
          difference: amountWords(Math.round(sides.difference * 10) / 10, one!.unit!),
          mdc: amountWords(Math.round(sides.mdc95 * 10) / 10, one!.unit!),
        }),
      ]
    : [];
  const before = finding.stage === 'change' && one!.before ? [say('compared with {day}', { day: dayWords(one!.before.on) })] : [];
  return {
    subject: upper(itemName({ ...one!, side: finding.outcomes.length > 1 ? 'midline' : one!.side })),
    verdict,
    brief: verdict,
    because: [...because, ...between, ...before, ...(kind.advice ? [kind.advice()] : [])],
    place: say(STAGE_PLACES[finding.stage]),
  };
}
