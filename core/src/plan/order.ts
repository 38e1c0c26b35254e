import { STATIONS, type Station, type TurnSeconds } from './station.js';

/** One thing to be put in order. */
export interface Task {
  /** Where it can be done, the usual way first. A locked task is done the usual way. */
  readonly at: readonly Station[];
  /** Provokes pain: goes as late as the turns allow. */
  readonly late: boolean;
  /** Keeps its place among the other locked tasks. */
  readonly locked: boolean;
  /** Its place in the house order: uninvolved before involved, active before passive. No two are alike. */
  readonly rank: number;
}

/** Where a task may be done: a locked one the usual way alone. */
export function placesOf({ at, locked }: Task): readonly Station[] {
  return locked ? at.slice(0, 1) : at;
}

/** What makes one order better than another, compared from left to right; less is better. */
export interface OrderCost {
  /** Changes of position. */
  readonly turns: number;
  /** Seconds these changes take. */
  readonly seconds: number;
  /** Tasks not done the usual way, to save a turn. */
  readonly unusual: number;
  /** Pairs in which something that provokes comes before something that does not. */
  readonly late: number;
  /** Seconds from standing into the first position, then its place from upright to face down. */
  readonly entry: number;
  /** Pairs in one position that stand against the house order. */
  readonly rank: number;
}

export interface Ordered {
  /** Index of the task and where it is done, in order. */
  readonly steps: readonly { readonly task: number; readonly at: Station }[];
  readonly cost: OrderCost;
}

export const COST_PARTS = ['turns', 'seconds', 'unusual', 'late', 'entry', 'rank'] as const satisfies readonly (keyof OrderCost)[];

/** Negative when the first is better. */
export function compareCost(a: OrderCost, b: OrderCost): number {
  for (const part of COST_PARTS) if (a[part] !== b[part]) return a[part] - b[part];
  return 0;
}

/** What entering an exam at a station costs: the way there from standing, and then its place in the list of stations. */
function entryCost(first: Station, seconds: TurnSeconds): number {
  return seconds('standing', first) + STATIONS.indexOf(first) / 100;
}

/** What an order costs. `from` is where the patient is already; null: nobody is on the table yet. */
function costOf(tasks: readonly Task[], steps: Ordered['steps'], seconds: TurnSeconds, from: Station | null = null): OrderCost {
  const cost = { turns: 0, seconds: 0, unusual: 0, late: 0, entry: 0, rank: 0 };
  let at = from;
  steps.forEach((step, i) => {
    const task = tasks[step.task]!;
    if (at !== null && at !== step.at) {
      cost.turns += 1;
      cost.seconds += seconds(at, step.at);
    }
    if (at === null) cost.entry = entryCost(step.at, seconds);
    at = step.at;
    if (step.at !== task.at[0]) cost.unusual += 1;
    for (const before of steps.slice(0, i)) {
      const earlier = tasks[before.task]!;
      if (earlier.late && !task.late) cost.late += 1;
      if (before.at === step.at && earlier.rank > task.rank) cost.rank += 1;
    }
  });
  return cost;
}

/** Free tasks of one station that the best order never parts. */
interface Unit {
  readonly tasks: readonly number[];
  readonly late: boolean;
}

type Pair = readonly [first: number, second: number];
const less = (a: Pair, b: Pair): boolean => a[0] < b[0] || (a[0] === b[0] && a[1] < b[1]);
const plus = (a: Pair, b: Pair): Pair => [a[0] + b[0], a[1] + b[1]];
const NEVER: Pair = [Infinity, Infinity];

/**
 * The best order of an exam: exact, not greedy (where more than twenty thousand
 * choices of position are alike in turns, seconds and the usual way, the last
 * parts of the comparison are bettered task by task instead of looked through). Compared from left to right:
 * fewest changes of position, the cheapest, the usual way of measuring, what
 * provokes last, upright before lying, the house order. Locked tasks keep
 * their order whatever it costs.
 *
 * Two sweeps of dynamic programming. The first finds, for every set of
 * stations, the least turns and seconds through them with the locked tasks in
 * their order. The second walks only along those best ways and places the
 * tasks; free tasks of one station stand in the order of (provoking, rank),
 * since changing two of them back is never worse, so that only how far each
 * station has got need be remembered.
 *
 * @param within only these stations are used, where given
 * @throws RangeError for a task that can be done nowhere
 */
export function bestOrder(
  tasks: readonly Task[],
  seconds: TurnSeconds,
  { from = null, within = STATIONS }: { from?: Station | null; within?: readonly Station[] } = {},
): Ordered {
  if (tasks.length === 0) return { steps: [], cost: costOf(tasks, [], seconds) };
  const open = tasks.map((task) => placesOf(task).filter((at) => within.includes(at)));
  if (open.some((at) => at.length === 0)) throw new RangeError('a task can be done nowhere');
  const ordered = (at: readonly Station[]): Ordered => {
    const steps = walk(tasks, at, seconds, from);
    return { steps, cost: costOf(tasks, steps, seconds, from) };
  };
  const found = assignments(tasks, open, seconds, from).map((choice) => bestChoice(choice, tasks.length, ordered));
  return found.reduce(better);
}

const better = (a: Ordered, b: Ordered): Ordered => (compareCost(b.cost, a.cost) < 0 ? b : a);

/** Where each task may be done with a set of stations; most have one place. All of these are best in turns, seconds and the usual way. */
type Choice = readonly (readonly Station[])[];

/** So many tasks are placed at most to look through every choice of stations; beyond, a choice is bettered task by task. */
const LOOKED_THROUGH = 20_000;

/** The best of every choice: where a task goes decides what provokes before what, and the house order. */
function bestChoice(choice: Choice, tasks: number, ordered: (at: readonly Station[]) => Ordered): Ordered {
  const stations = new Set(choice.flat()).size;
  const isWhole = (at: readonly Station[]): boolean => new Set(at).size === stations;
  const ways = choice.reduce((product, at) => product * at.length, 1);
  if (ways * tasks <= LOOKED_THROUGH) return eachOf(choice).filter(isWhole).map(ordered).reduce(better);
  let at = eachOf(choice.map((places) => places.slice(0, 1)))[0]!;
  let best = ordered(at);
  for (let changed = true; changed;) {
    changed = false;
    choice.forEach((places, task) => {
      for (const place of places) {
        const other = at.map((own, i) => (i === task ? place : own));
        if (place === at[task] || !isWhole(other)) continue;
        const found = ordered(other);
        if (compareCost(found.cost, best.cost) >= 0) continue;
        [best, at, changed] = [found, other, true];
      }
    });
  }
  return best;
}

/** Every way of taking one place of each. */
function eachOf(choice: Choice): Station[][] {
  return choice.reduce<Station[][]>((all, places) => all.flatMap((at) => places.map((place) => [...at, place])), [[]]);
}

/** Where each task may be done: every set of stations that is best in turns, seconds and the usual way. */
function assignments(tasks: readonly Task[], open: readonly (readonly Station[])[], seconds: TurnSeconds, from: Station | null): Choice[] {
  const stations = STATIONS.filter((station) => open.some((at) => at.includes(station)));
  const needed = tasks.map((_, i) => stations.reduce((mask, s, bit) => (open[i]!.includes(s) ? mask | (1 << bit) : mask), 0));
  const chain = tasks.flatMap((task, i) => (task.locked ? [open[i]![0]!] : []));
  let least: readonly [...Pair, number] = [...NEVER, Infinity];
  let found: Choice[] = [];
  for (let mask = 1; mask < 1 << stations.length; mask += 1) {
    if (needed.some((need) => (need & mask) === 0)) continue;
    const used = stations.filter((_, bit) => mask & (1 << bit));
    const way = leastTurns(used, chain, seconds);
    const total = way.total(from);
    // The usual way where its station is used; otherwise whichever of the others.
    const choice = open.map((at, i) =>
      used.includes(tasks[i]!.at[0]!) && at.includes(tasks[i]!.at[0]!)
        ? [tasks[i]!.at[0]!]
        : at.filter((station) => used.includes(station)),
    );
    const cost = [...total, choice.filter(([at], i) => at !== tasks[i]!.at[0]).length] as const;
    const against = less(total, [least[0], least[1]]) ? -1 : less([least[0], least[1]], total) ? 1 : cost[2] - least[2];
    if (against < 0) {
      least = cost;
      found = [];
    }
    if (against <= 0 && canUseAll(choice, used)) found.push(choice);
  }
  return found;
}

/** Whether some choice leaves none of the stations without a task: otherwise fewer would do. */
function canUseAll(choice: Choice, used: readonly Station[]): boolean {
  const matched = new Map<number, Station>();
  const place = (station: Station, tried: Set<number>): boolean =>
    choice.some((places, task) => {
      if (!places.includes(station) || tried.has(task)) return false;
      tried.add(task);
      const holds = matched.get(task);
      if (holds !== undefined && !place(holds, tried)) return false;
      matched.set(task, station);
      return true;
    });
  return used.every((station) => place(station, new Set()));
}

interface Way {
  /** Turns and seconds still needed at a station, with some stations unfinished and so many locked tasks done. */
  readonly rest: (at: Station, unfinished: number, done: number) => Pair;
  /** Turns and seconds from the start. */
  readonly total: (from: Station | null) => Pair;
}

/** The least turns, then seconds, that see every station and the chain of locked tasks in its order. */
function leastTurns(stations: readonly Station[], chain: readonly Station[], seconds: TurnSeconds): Way {
  const bit = (station: Station) => 1 << stations.indexOf(station);
  const cost = STATIONS.map((a) => stations.map((b) => seconds(a, b)));
  const memo = new Map<number, Pair>();
  const arrive = (at: Station, unfinished: number, done: number): Pair => {
    let k = done;
    while (k < chain.length && chain[k] === at) k += 1;
    return rest(at, unfinished & ~bit(at), k);
  };
  const rest = (at: Station, unfinished: number, done: number): Pair => {
    if (unfinished === 0 && done === chain.length) return [0, 0];
    const key = (done * 256 + unfinished) * 8 + STATIONS.indexOf(at);
    const known = memo.get(key);
    if (known) return known;
    let least = NEVER;
    stations.forEach((to, t) => {
      // A turn that finishes nothing is never needed.
      if (to === at || !(unfinished & (1 << t) || chain[done] === to)) return;
      const next = plus([1, cost[STATIONS.indexOf(at)]![t]!], arrive(to, unfinished, done));
      if (less(next, least)) least = next;
    });
    memo.set(key, least);
    return least;
  };
  const all = (1 << stations.length) - 1;
  return {
    rest: (at, unfinished, done) => arrive(at, unfinished | bit(at), done),
    total: (from) => {
      if (from !== null && stations.includes(from)) return arrive(from, all, 0);
      const first = stations.map((to) => plus(from === null ? [0, 0] : [1, seconds(from, to)], arrive(to, all, 0)));
      return first.reduce((a, b) => (less(b, a) ? b : a), NEVER);
    },
  };
}

/** Places the tasks along the ways that take the least turns and seconds. */
function walk(tasks: readonly Task[], at: readonly Station[], seconds: TurnSeconds, from: Station | null): Ordered['steps'] {
  const stations = STATIONS.filter((station) => at.includes(station));
  const chain = tasks.map((_, i) => i).filter((i) => tasks[i]!.locked);
  const way = leastTurns(
    stations,
    chain.map((i) => at[i]!),
    seconds,
  );
  const units = stations.map((station) => unitsAt(station, tasks, at));
  const bits = (taken: readonly number[]) => taken.reduce((mask, n, s) => (n < units[s]!.length ? mask | (1 << s) : mask), 0);

  interface State {
    readonly here: number;
    readonly done: number;
    readonly taken: readonly number[];
  }
  interface Best {
    readonly cost: Pair;
    readonly next: State | null;
    readonly placed: readonly number[];
  }
  const memo = new Map<string, Best>();

  // How many that provoke are done when so many locked tasks, or units of a station, are.
  const lateInChain = prefix(chain.map((i) => Number(tasks[i]!.late)));
  const lateInUnits = units.map((own) => prefix(own.map((unit) => (unit.late ? unit.tasks.length : 0))));
  const against = new Map<number, number>();

  /** Pairs that putting these now sets against (provoking, house order), counted with what came before. */
  const pay = (placed: readonly number[], { here, done, taken }: State): Pair => {
    if (placed.length === 0) return [0, 0];
    const lateBefore = taken.reduce((sum, n, s) => sum + lateInUnits[s]![n]!, lateInChain[done]!);
    const late = lateBefore * placed.filter((i) => !tasks[i]!.late).length;
    // The house order holds within a station: what other stations have done does not matter.
    const key = ((here * 512 + done) * 512 + taken[here]!) * 512 + placed[0]!;
    let rank = against.get(key);
    if (rank === undefined) {
      const ownChain = chain.slice(0, done).filter((i) => at[i] === stations[here]);
      const before = [...ownChain, ...units[here]!.slice(0, taken[here]).flatMap((unit) => unit.tasks)];
      rank = placed.reduce((sum, i) => sum + before.filter((b) => tasks[b]!.rank > tasks[i]!.rank).length, 0);
      against.set(key, rank);
    }
    return [late, rank];
  };

  const solve = (state: State): Best => {
    const { here, done, taken } = state;
    const key = `${here} ${done} ${taken.join(' ')}`;
    const known = memo.get(key);
    if (known) return known;
    const station = stations[here]!;
    let best: Best = { cost: bits(taken) === 0 && done === chain.length ? [0, 0] : NEVER, next: null, placed: [] };
    const consider = (next: State, placed: readonly number[]) => {
      const rest = solve(next);
      const cost = plus(pay(placed, state), rest.cost);
      if (less(cost, best.cost)) best = { cost, next, placed };
    };
    const unit = units[here]![taken[here]!];
    const least = way.rest(station, bits(taken), done);
    if (unit) consider({ here, done, taken: taken.map((n, s) => (s === here ? n + 1 : n)) }, unit.tasks);
    const locked = chain[done];
    if (locked !== undefined && at[locked] === station) consider({ here, done: done + 1, taken }, [locked]);
    stations.forEach((to, t) => {
      if (t === here) return;
      const turned = plus([1, seconds(station, to)], way.rest(to, bits(taken), done));
      if (turned[0] === least[0] && turned[1] === least[1]) consider({ here: t, done, taken }, []);
    });
    memo.set(key, best);
    return best;
  };

  const none = stations.map(() => 0);
  const starts = stations
    .map((station, here) => {
      const total = way.rest(station, bits(none), 0);
      const first: Pair = from === null || from === station ? total : plus([1, seconds(from, station)], total);
      return { here, first, entry: from === null ? entryCost(station, seconds) : 0 };
    })
    .filter(({ first }, _, all) => !all.some((other) => less(other.first, first)))
    .map((start) => ({ ...start, state: { here: start.here, done: 0, taken: none } }))
    .map((start) => ({ ...start, cost: solve(start.state).cost }));
  const best = starts.reduce((a, b) => {
    const order = b.cost[0] - a.cost[0] || b.entry - a.entry || b.cost[1] - a.cost[1];
    return order < 0 ? b : a;
  });
  const steps: { task: number; at: Station }[] = [];
  for (let state: State | null = best.state; state;) {
    const { next, placed }: Best = solve(state);
    for (const task of placed) steps.push({ task, at: stations[state.here]! });
    state = next;
  }
  return steps;
}

/** Sums of the first 0, 1, 2 … numbers. */
function prefix(numbers: readonly number[]): number[] {
  const sums = [0];
  for (const n of numbers) sums.push(sums[sums.length - 1]! + n);
  return sums;
}

/** The free tasks of a station in (provoking, rank), together where no locked task of the station stands between them. */
function unitsAt(station: Station, tasks: readonly Task[], at: readonly Station[]): Unit[] {
  const here = tasks.map((_, i) => i).filter((i) => at[i] === station);
  const cuts = here.filter((i) => tasks[i]!.locked).map((i) => tasks[i]!.rank);
  const gap = (i: number) => cuts.filter((rank) => rank < tasks[i]!.rank).length;
  const free = here
    .filter((i) => !tasks[i]!.locked)
    .sort((a, b) => Number(tasks[a]!.late) - Number(tasks[b]!.late) || tasks[a]!.rank - tasks[b]!.rank);
  const units: { tasks: number[]; late: boolean; gap: number }[] = [];
  for (const i of free) {
    const last = units[units.length - 1];
    if (last?.late === tasks[i]!.late && last.gap === gap(i)) last.tasks.push(i);
    else units.push({ tasks: [i], late: tasks[i]!.late, gap: gap(i) });
  }
  return units;
}
