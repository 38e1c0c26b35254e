import { MODES, type Digit, type InvolvedSide, type Mode, type MotionId, type Side } from '../terms.js';
import { protocolNamed, type PlanItem } from './items.js';
import { fitInto, type Timed } from './fit.js';
import { NO_TIMES, secondsFor, turnSecondsOf, type RecordedTimes } from './minutes.js';
import { bestOrder, type Ordered } from './order.js';
import { allowedFor, forbiddenWords, type Allowed, NO_LIMITS, type Limits } from '../precaution/index.js';
import { stationFor, type Station } from './station.js';
import { worthOf, type WorthContext } from './worth.js';

/** One measurement of the run sheet, in its place. */
export interface PlanStep {
  readonly protocol: string;
  readonly digit?: Digit;
  readonly side: Side;
  readonly mode: Mode;
  readonly seconds: number;
  readonly provoking?: boolean;
  readonly locked?: boolean;
  readonly keep?: boolean;
  /** Where to stop, by a precaution; past it nothing is measured. */
  readonly stopAt?: number;
  /** To where it goes by itself: by a precaution there is no push at the end. */
  readonly gentle?: true;
}

/** What was left out, and why. */
export interface LeftOut {
  readonly motion: MotionId;
  readonly protocol: string;
  readonly digit?: Digit;
  readonly side: Side;
  readonly mode: Mode;
  readonly reason: 'precaution' | 'time';
  readonly why: string;
}

export interface ExamPlan {
  readonly steps: readonly PlanStep[];
  readonly leftOut: readonly LeftOut[];
  /** Changes of position after the first. */
  readonly turns: number;
  readonly seconds: number;
}

export interface PlanRequest {
  readonly items: readonly PlanItem[];
  readonly involved: InvolvedSide | null;
  /** Left out: there are none. */
  readonly limits?: Limits;
  /** null: no matter how long. */
  readonly minutesAvailable?: number | null;
  readonly trials?: number;
  readonly times?: RecordedTimes;
  readonly before?: Pick<WorthContext, 'measuredBefore' | 'foundBefore'>;
  /** Where the patient is already. */
  readonly from?: Station | null;
}

const KNOW_NOTHING: Pick<WorthContext, 'measuredBefore' | 'foundBefore'> = { measuredBefore: () => false, foundBefore: () => false };

/**
 * The order of an exam, in full: what precautions forbid is out, what they
 * limit stops there; then the fewest and cheapest changes of position, what
 * provokes last, the uninvolved side before the involved one, active before
 * passive. Where the time is short the most valuable choice stays.
 *
 * @throws RangeError for a protocol that the catalogue does not hold
 */
export function planExam(request: PlanRequest): ExamPlan {
  const { items, involved, limits = NO_LIMITS, minutesAvailable = null, trials = 1, times = NO_TIMES, from = null } = request;
  const { before = KNOW_NOTHING } = request;
  const asked = items.map((item) => askedOf(item, limits));
  const forbidden = asked.flatMap(({ item, ways }) => {
    const [first] = ways;
    const isOut = ways.every(({ allowed }) => allowed.kind === 'forbidden');
    return isOut && first?.allowed.kind === 'forbidden' ? [leftOut(item, 'precaution', forbiddenWords(first.allowed))] : [];
  });
  // Where one way is forbidden another may do.
  const open = asked
    .map(({ item, ways }) => ({ item, ways: ways.filter(({ allowed }) => allowed.kind !== 'forbidden') }))
    .filter(({ ways }) => ways.length > 0);
  const ranks = houseOrder(
    open.map(({ item }) => item),
    involved,
  );
  const tasks = open.map(({ item, ways }, i): Timed => {
    return {
      at: [...new Set(ways.map(({ protocol }) => stationOf({ protocol, side: item.side })))],
      late: item.provoking ?? false,
      locked: item.locked ?? false,
      keep: item.keep ?? false,
      rank: ranks[i]!,
      seconds: secondsFor(protocolNamed(ways[0]!.protocol), trials, times),
      worth: worthOf(item, i, open.length, { involved, ...before }),
    };
  });
  const turn = turnSecondsOf(times);
  const budget = minutesAvailable === null ? Infinity : minutesAvailable * 60;
  let ordered: Ordered = bestOrder(tasks, turn, { from });
  const taskSeconds = (kept: readonly { readonly task: number }[]) => kept.reduce((sum, { task }) => sum + tasks[task]!.seconds, 0);
  let dropped: number[] = [];
  if (ordered.cost.seconds + taskSeconds(ordered.steps) > budget) {
    const fitted = fitInto(tasks, budget, turn, from);
    ordered = fitted.ordered;
    dropped = tasks.map((_, i) => i).filter((i) => !fitted.kept.includes(i));
  }
  return {
    steps: ordered.steps.map(({ task, at }) => stepOf(open[task]!, at, tasks[task]!.seconds)),
    leftOut: [...forbidden, ...dropped.map((i) => leftOut(open[i]!.item, 'time', timeWords(open[i]!.item, tasks[i]!, request)))],
    turns: ordered.cost.turns,
    seconds: ordered.cost.seconds + taskSeconds(ordered.steps),
  };
}

/** Place of every item in the house order: motions as chosen, active before passive, the uninvolved side first. */
function houseOrder(items: readonly PlanItem[], involved: InvolvedSide | null): number[] {
  const motions = [...new Set(items.map(wayKey))];
  const sides: readonly Side[] = involved === 'right' ? ['left', 'right', 'midline'] : ['right', 'left', 'midline'];
  const key = (i: number): readonly number[] => {
    const item = items[i]!;
    return [motions.indexOf(wayKey(item)), MODES.indexOf(item.mode), sides.indexOf(item.side), i];
  };
  const order = items
    .map((_, i) => i)
    .sort((a, b) => {
      const [x, y] = [key(a), key(b)];
      const at = x.findIndex((part, p) => part !== y[p]);
      return at < 0 ? 0 : x[at]! - y[at]!;
    });
  const ranks: number[] = [];
  order.forEach((item, place) => (ranks[item] = place));
  return ranks;
}

const wayKey = ({ protocols, digit }: PlanItem): string => `${protocols[0]} ${digit ?? ''}`;

/** An item with what the precautions say of each way it may be measured. */
interface Asked {
  readonly item: PlanItem;
  readonly ways: readonly { readonly protocol: string; readonly allowed: Allowed }[];
}

function askedOf(item: PlanItem, limits: Limits): Asked {
  const { motion: id, side, mode } = item;
  const ways = item.protocols.map((protocol) => ({ protocol, allowed: allowedFor({ protocol, motion: id, side, mode }, limits) }));
  return { item, ways };
}

function stepOf({ item, ways }: Asked, at: Station, seconds: number): PlanStep {
  const { digit, side, mode, provoking, locked, keep } = item;
  const { protocol, allowed } = ways.find((way) => stationOf({ protocol: way.protocol, side }) === at)!;
  return {
    protocol,
    ...(digit ? { digit } : {}),
    side,
    mode,
    seconds,
    ...(provoking ? { provoking } : {}),
    ...(locked ? { locked } : {}),
    ...(keep ? { keep } : {}),
    ...(allowed.kind === 'stop' ? { stopAt: allowed.at } : {}),
    ...(allowed.kind === 'gentle' ? { gentle: true } : {}),
  };
}

function leftOut({ motion: id, digit, side, mode, protocols }: PlanItem, reason: LeftOut['reason'], why: string): LeftOut {
  return { motion: id, protocol: protocols[0]!, ...(digit ? { digit } : {}), side, mode, reason, why };
}

function timeWords(item: PlanItem, task: Timed, { involved, minutesAvailable, before = KNOW_NOTHING }: PlanRequest): string {
  const because = [
    involved !== null && involved !== 'both' && item.side !== 'midline' && item.side !== involved ? 'on the uninvolved side' : '',
    before.foundBefore(item) ? '' : before.measuredBefore(item) ? 'found neither short nor painful last time' : 'not measured last time',
  ].filter(Boolean);
  const minutes = Math.max(0.1, Math.round(task.seconds / 6) / 10);
  return `does not fit into ${minutesAvailable} min: takes ${minutes} min and is worth less than what stays${because.length ? ` (${because.join(', ')})` : ''}`;
}

/** How the patient lies, sits or stands for a step. */
export function stationOf({ protocol, side }: Pick<PlanStep, 'protocol' | 'side'>): Station {
  return stationFor(protocolNamed(protocol).position, side);
}
