import { max, mean } from 'simple-statistics';
import { kept } from './amount.js';
import { bandAround } from '../error/index.js';
import { itemError } from './error.js';
import type { FaultId } from './faults.js';
import type { PatternId } from './pattern-ids.js';
import type { ItemDone, ItemTry, ScreenDone } from './result.js';
import { linesFault } from './lines.js';
import { everyItem } from './list.js';
import type { Hour, ItemFault, Screen, ScreenItem, Threshold } from './types.js';
import type { MotionId, Side, Unit } from '../terms.js';
import type { ErrorContext } from '../error/own.js';
import type { ItemReason } from './words.js';

export const QUALITIES = ['meets', 'short', 'not judged'] as const;
export type Quality = (typeof QUALITIES)[number];

/** What an item comes to: quality and pain, apart. */
export interface GradedItem {
  readonly screen: string;
  readonly item: ScreenItem;
  readonly done: ItemDone;
  readonly side: Side;
  readonly quality: Quality;
  /** The worst of the tries; null: not asked. */
  readonly pain: number | null;
  readonly painWhere: string;
  readonly value: number | null;
  readonly unit: Unit | null;
  /** Standard error of measurement of the value. */
  readonly sem: number | null;
  readonly threshold: Threshold | null;
  /** Of the try that counts; with those that are noted and are no fault by themselves. */
  readonly faults: readonly FaultId[];
  /** Motions of the missing part of a circle. */
  readonly missing: readonly MotionId[];
  readonly opens: readonly PatternId[];
  readonly reasons: readonly ItemReason[];
}

interface JudgedTry {
  readonly quality: Quality;
  readonly value: number | null;
  readonly faults: readonly FaultId[];
  readonly counted: readonly ItemFault[];
  readonly missing: readonly MotionId[];
  readonly reasons: readonly ItemReason[];
}

/**
 * Grades an item: the better try counts, the worst pain is kept. Quality says
 * nothing of pain and pain nothing of quality; what was not told is not judged.
 */
export function gradeItem(screen: Screen, item: ScreenItem, done: ItemDone, context: ErrorContext = {}): GradedItem {
  const pains = done.tries.flatMap(({ pain }) => (pain === undefined ? [] : [pain]));
  const pain = pains.length > 0 ? max(pains) : null;
  const worst = done.tries.find((one) => one.pain === pain);
  const best = bestOf(item, done);
  const reasons: ItemReason[] = [...best.reasons];
  if (pain !== null && pain > 0) reasons.push({ kind: 'pain', pain, where: worst?.painWhere ?? '' });
  return {
    screen: screen.id,
    item,
    done,
    side: done.side ?? 'midline',
    quality: best.quality,
    pain,
    painWhere: worst?.painWhere ?? '',
    value: best.value,
    unit: item.answered.by === 'amount' ? item.answered.unit : null,
    sem: best.value === null ? null : itemError(item, best.value, context, done.tries),
    threshold: item.threshold,
    faults: best.faults,
    missing: best.missing,
    opens: pain !== null && pain > 0 ? [] : opensOf(item, best),
    reasons,
  };
}

/** Everything of a screen that was done, in the order of the screen's items. What hurts from one view or with one change opens nothing from another. */
export function gradeScreen(screen: Screen, done: ScreenDone, context: ErrorContext = {}): GradedItem[] {
  const graded = everyItem(screen).flatMap((item) =>
    done.items.filter((d) => d.item === item.id).map((d) => gradeItem(screen, item, d, context)),
  );
  const painful = graded.filter(hurts);
  const isHeld = (one: GradedItem) =>
    painful.some(({ item, side }) => item === one.item && (side === one.side || side === 'midline' || one.side === 'midline'));
  return graded.map((one) => (one.opens.length > 0 && isHeld(one) ? { ...one, opens: [] } : one));
}

/** What hurts is a flag, whatever its quality. */
export const hurts = ({ pain }: Pick<GradedItem, 'pain'>): boolean => pain !== null && pain > 0;

const RANK = { meets: 2, short: 1, 'not judged': 0 } as const;

/** The better try; or, where the mean of all counts, all of them as one. */
function bestOf(item: ScreenItem, done: ItemDone): JudgedTry {
  if (done.tries.length === 0)
    return {
      ...NOTHING,
      reasons: [{ kind: 'not-judged', why: done.skipped === undefined ? 'no-try' : 'skipped', said: done.skipped ?? '' }],
    };
  if (item.answered.by === 'amount' && item.answered.counts === 'mean') return judgeTry(item, done, asOne(item, done.tries));
  const judged = done.tries.map((one) => judgeTry(item, done, one));
  const best = judged.reduce((a, b) => (isBetter(item, b, a) ? b : a));
  return judged.length > 1 ? { ...best, reasons: [...best.reasons, { kind: 'tries', of: judged.length, counts: 'best' }] } : best;
}

const NOTHING: JudgedTry = { quality: 'not judged', value: null, faults: [], counted: [], missing: [], reasons: [] };

function isBetter(item: ScreenItem, a: JudgedTry, b: JudgedTry): boolean {
  if (RANK[a.quality] !== RANK[b.quality]) return RANK[a.quality] > RANK[b.quality];
  if (a.value !== null && b.value !== null && a.value !== b.value)
    return item.threshold?.at === 'most' ? a.value < b.value : a.value > b.value;
  return a.counted.length < b.counted.length;
}

function asOne(item: ScreenItem, tries: readonly ItemTry[]): ItemTry {
  const values = tries.flatMap((one) => kept(item, one) ?? []);
  const faults = tries.some((one) => one.faults) ? [...new Set(tries.flatMap((one) => one.faults ?? []))] : undefined;
  const pictured = tries.flatMap(({ picture }) => picture ?? []);
  const told = tries.map((one) => one.meets).filter((meets) => typeof meets === 'boolean');
  return {
    ...(values.length > 0 ? { value: mean(values) } : {}),
    ...(faults ? { faults } : {}),
    ...(told.length > 0 ? { meets: told.every(Boolean) } : {}),
    ...(pictured.length > 0 ? { picture: { words: '', error: Math.max(...pictured.map(({ error }) => error ?? 0)) } } : {}),
  };
}

/** Looked at from a named view for each of its faults, and none seen. */
const isLookedThrough = ({ answered: by, views }: ScreenItem, { view }: ItemDone, { faults }: ItemTry): boolean =>
  by.by === 'look' && by.noFaults === true && faults !== undefined && (view !== undefined || views.length === 0);

function judgeTry(item: ScreenItem, done: ItemDone, one: ItemTry): JudgedTry {
  const faults = [...new Set([...(one.faults ?? []), ...linesFault(one.lines)])];
  const known = faults.flatMap((id) => item.faults.find((fault) => fault.id === id) ?? []);
  const counted = known.filter((fault) => fault.counts && !fault.notWith?.some((change) => done.with?.includes(change)));
  const value = kept(item, one);
  const seen = { value, faults, counted, missing: missingOf(item, one) };
  const reasons: ItemReason[] = [];
  const said = answered(item, one, value, reasons);
  if (counted.length > 0) reasons.push({ kind: 'faults', faults: counted.map(({ id }) => id), view: done.view ?? null });
  const noted = faults.filter((id) => !counted.some((fault) => fault.id === id));
  if (noted.length > 0) reasons.push({ kind: 'noted', faults: noted, with: done.with ?? [] });
  if (counted.length > 0) return { ...seen, quality: 'short', reasons };
  if (said !== null) return { ...seen, quality: said ? 'meets' : 'short', reasons };
  if (isLookedThrough(item, done, one)) {
    reasons.push({ kind: 'none-seen', view: done.view ?? null });
    return { ...seen, quality: 'meets', reasons };
  }
  reasons.push({ kind: 'not-judged', why: value === null ? 'not-told' : 'no-threshold', said: '' });
  return { ...seen, quality: 'not judged', reasons };
}

/** What number, circle, muscles, choice or examiner say; null where none of them says anything. */
function answered(item: ScreenItem, one: ItemTry, value: number | null, reasons: ItemReason[]): boolean | null {
  const { threshold } = item;
  if (value !== null && threshold) {
    const meets = threshold.at === 'least' ? value >= threshold.value : value <= threshold.value;
    reasons.push({
      kind: 'amount',
      value,
      threshold,
      meets,
      within: Math.abs(value - threshold.value) <= bandAround(itemError(item, value, undefined, [one])),
    });
    return meets;
  }
  if (item.answered.by === 'circle' && one.sector !== undefined) {
    reasons.push({ kind: 'circle', sector: one.sector, missing: missingOf(item, one) });
    return one.sector === null;
  }
  if (item.answered.by === 'felt' && one.felt) {
    const { wanted, unwanted } = item.answered;
    const wrong = one.felt.filter((muscle) => unwanted.includes(muscle));
    const right = one.felt.filter((muscle) => wanted.includes(muscle));
    reasons.push({ kind: 'felt', right, wrong });
    return wrong.length === 0 && right.length > 0;
  }
  if (item.answered.by === 'choice' && one.answer !== undefined) {
    const choice = item.answered.choices.find(({ id }) => id === one.answer);
    if (choice) reasons.push({ kind: 'choice', label: choice.label });
    return choice?.meets ?? null;
  }
  if (typeof one.meets !== 'boolean') return null;
  reasons.push({ kind: 'told', meets: one.meets });
  return one.meets;
}

/** Hours from one on to another, round past twelve. */
export function hoursOf(from: Hour, to: Hour): Hour[] {
  const count = ((to - from + 12) % 12) + 1;
  return Array.from({ length: count }, (_, step) => (((from - 1 + step) % 12) + 1) as Hour);
}

/** The motions that a missing part of a circle stands for: those at the middle of it, and those that it holds most of. */
function missingOf(item: ScreenItem, { sector }: ItemTry): MotionId[] {
  if (item.answered.by !== 'circle' || !sector) return [];
  const { hours } = item.answered;
  const cut = hoursOf(sector.from, sector.to);
  const counted = new Map<MotionId, number>();
  for (const hour of cut) for (const motion of hours[hour]) counted.set(motion, (counted.get(motion) ?? 0) + 1);
  const most = Math.max(0, ...counted.values());
  return [...counted].filter(([, count]) => count === most).map(([motion]) => motion);
}

function opensOf(item: ScreenItem, { quality, faults, counted }: JudgedTry): PatternId[] {
  const asked = item.faults.filter((fault) => faults.includes(fault.id) && (!fault.counts || counted.includes(fault)));
  const own = asked.flatMap(({ opens }) => opens ?? []);
  const whole = quality === 'short' && own.length === 0 && item.opens ? [item.opens] : [];
  return [...new Set([...own, ...whole])];
}
