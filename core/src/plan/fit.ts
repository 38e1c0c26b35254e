import { bestOrder, placesOf, type Ordered, type Task } from './order.js';
import { STATIONS, type Station, type TurnSeconds } from './station.js';

/** One thing that takes time and is worth something. */
export interface Timed extends Task {
  readonly seconds: number;
  readonly worth: number;
  /** Stays in whatever time there is. */
  readonly keep: boolean;
}

export interface Fitted {
  /** Indices of what stays. */
  readonly kept: readonly number[];
  readonly ordered: Ordered;
  /** Of the tasks and the turns together. */
  readonly seconds: number;
}

/** Time is counted in these: fine enough beside a patient, coarse enough to look through every choice. */
export const STEP_SECONDS = 2;
const cells = (seconds: number): number => Math.ceil(seconds / STEP_SECONDS);

/**
 * The most valuable choice of tasks that fits the time, turns counted; among
 * equals the one with fewer turns, then the shorter. Exact: for every set of
 * stations a 0/1 knapsack over what can be done there. Locked tasks and those
 * to keep always stay; when they alone are too much, nothing else does.
 */
export function fitInto(tasks: readonly Timed[], available: number, turn: TurnSeconds, from: Station | null = null): Fitted {
  const stays = tasks.map((task) => task.keep || task.locked);
  const stations = STATIONS.filter((station) => tasks.some((task) => task.at.includes(station)));
  const all = tasks.map((_, i) => i);
  let best: (Fitted & { readonly worth: number }) | undefined;
  for (let mask = 0; mask < 1 << stations.length; mask += 1) {
    const within = stations.filter((_, bit) => mask & (1 << bit));
    const doable = (i: number) => placesOf(tasks[i]!).some((at) => within.includes(at));
    const must = all.filter((i) => stays[i]);
    if (must.some((i) => !doable(i))) continue;
    const choice = all.filter((i) => !stays[i] && doable(i));
    const bound = sum(choice, (i) => tasks[i]!.worth) + sum(must, (i) => tasks[i]!.worth);
    if (best && bound < best.worth) continue;
    // The way through these stations: one stand-in for each, and the locked tasks in their order.
    const standIns = within.map((at, i): Task => ({ at: [at], late: false, locked: false, rank: tasks.length + i }));
    const locked = all.filter((i) => tasks[i]!.locked).map((i): Task => ({ ...tasks[i]!, rank: i }));
    const turning = bestOrder([...standIns, ...locked], turn, { from }).cost.seconds;
    const room = available - turning - sum(must, (i) => cells(tasks[i]!.seconds) * STEP_SECONDS);
    const chosen = room < 0 ? [] : knapsack(choice, tasks, Math.floor(room / STEP_SECONDS));
    const kept = [...must, ...chosen].sort((a, b) => a - b);
    const worth = sum(kept, (i) => tasks[i]!.worth);
    if (best && worth < best.worth) continue;
    const order = bestOrder(
      kept.map((i) => tasks[i]!),
      turn,
      { from, within },
    );
    const ordered = { ...order, steps: order.steps.map(({ task, at }) => ({ task: kept[task]!, at })) };
    const seconds = order.cost.seconds + sum(kept, (i) => tasks[i]!.seconds);
    const better =
      !best ||
      worth > best.worth ||
      ordered.cost.turns < best.ordered.cost.turns ||
      (ordered.cost.turns === best.ordered.cost.turns && seconds < best.seconds);
    if (better) best = { kept, ordered, seconds, worth };
  }
  if (!best) throw new RangeError('a task can be done nowhere');
  return { kept: best.kept, ordered: best.ordered, seconds: best.seconds };
}

/** 0/1 knapsack: the worthiest choice within so many cells, and of those the shortest. */
function knapsack(choice: readonly number[], tasks: readonly Timed[], room: number): number[] {
  const weight = choice.map((i) => cells(tasks[i]!.seconds));
  if (sum(choice, (_, k) => weight[k]!) <= room) return [...choice];
  let worth = new Float64Array(room + 1);
  const taken: Uint8Array[] = [];
  choice.forEach((i, k) => {
    const next = Float64Array.from(worth);
    const took = new Uint8Array(room + 1);
    for (let c = weight[k]!; c <= room; c += 1) {
      const with1 = worth[c - weight[k]!]! + tasks[i]!.worth;
      if (with1 > next[c]!) {
        next[c] = with1;
        took[c] = 1;
      }
    }
    worth = next;
    taken.push(took);
  });
  let cell = worth.indexOf(worth[room]!);
  const chosen: number[] = [];
  for (let k = choice.length - 1; k >= 0; k -= 1) {
    if (!taken[k]![cell]) continue;
    chosen.push(choice[k]!);
    cell -= weight[k]!;
  }
  return chosen;
}

function sum<T>(list: readonly T[], of: (item: T, index: number) => number): number {
  return list.reduce((total, item, index) => total + of(item, index), 0);
}
