import * as fc from 'fast-check';
import { bestOrder, compareCost, COST_PARTS, type OrderCost, type Ordered, type Task } from './order.js';
import { assumedTurn, STATIONS, type Station } from './station.js';

/** What an order costs, said once more in another way: by pairs, and by the stations one after the other. */
function priceOf(tasks: readonly Task[], steps: Ordered['steps'], from: Station | null): OrderCost {
  const stations = steps.map(({ at }) => at);
  const visited = [...(from === null ? [] : [from]), ...stations];
  const changes = visited.slice(1).flatMap((to, i) => (to === visited[i] ? [] : [assumedTurn(visited[i]!, to)]));
  const pairs = steps.flatMap((before, i) =>
    steps.slice(i + 1).map((after) => ({ a: tasks[before.task]!, b: tasks[after.task]!, together: before.at === after.at })),
  );
  return {
    turns: changes.length,
    seconds: changes.reduce((sum, seconds) => sum + seconds, 0),
    unusual: steps.filter(({ task: i, at }) => tasks[i]!.at.indexOf(at) > 0).length,
    late: pairs.filter(({ a, b }) => a.late && !b.late).length,
    entry: from === null && stations.length > 0 ? assumedTurn('standing', stations[0]!) + STATIONS.indexOf(stations[0]!) / 100 : 0,
    rank: pairs.filter(({ a, b, together }) => together && a.rank > b.rank).length,
  };
}

/** Every order and every choice of station, one by one. */
function bruteForce(tasks: readonly Task[], from: Station | null): OrderCost {
  let best: OrderCost | undefined;
  const visit = (left: readonly number[], steps: Ordered['steps']) => {
    if (left.length === 0) {
      const cost = priceOf(tasks, steps, from);
      if (!best || compareCost(cost, best) < 0) best = cost;
      return;
    }
    const nextLocked = left.find((i) => tasks[i]!.locked);
    for (const i of left) {
      const task = tasks[i]!;
      if (task.locked && i !== nextLocked) continue;
      for (const at of task.locked ? task.at.slice(0, 1) : task.at) {
        visit(
          left.filter((other) => other !== i),
          [...steps, { task: i, at }],
        );
      }
    }
  };
  visit(
    tasks.map((_, i) => i),
    [],
  );
  return best!;
}

const someTasks = fc
  .array(
    fc.record({
      at: fc.uniqueArray(fc.constantFrom<Station>('standing', 'sitting', 'supine', 'sidelying-on-left', 'prone'), {
        minLength: 1,
        maxLength: 3,
      }),
      late: fc.boolean(),
      locked: fc.boolean(),
    }),
    { minLength: 1, maxLength: 6 },
  )
  .chain((tasks) =>
    fc
      .shuffledSubarray(
        tasks.map((_, i) => i),
        { minLength: tasks.length },
      )
      .map((ranks) => tasks.map((task, i): Task => ({ ...task, rank: ranks[i]! }))),
  );

const task = (at: Station | readonly Station[], rank: number, more: Partial<Task> = {}): Task => ({
  at: typeof at === 'string' ? [at] : at,
  late: false,
  locked: false,
  rank,
  ...more,
});

describe('best order', () => {
  it('is as good as the best of all orders, compared one by one', () => {
    fc.assert(
      fc.property(someTasks, fc.constantFrom<Station | null>(null, null, 'supine', 'standing'), (tasks, from) => {
        const { cost, steps } = bestOrder(tasks, assumedTurn, { from });
        expect(steps.map((step) => step.task).sort()).toEqual(tasks.map((_, i) => i).sort());
        expect(cost).toEqual(priceOf(tasks, steps, from));
        expect(COST_PARTS.map((part) => cost[part])).toEqual(COST_PARTS.map((part) => bruteForce(tasks, from)[part]));
      }),
      { numRuns: 400 },
    );
  });

  it('is as good where much is locked among what is free, in few positions', () => {
    const few = fc
      .array(fc.record({ at: fc.constantFrom<Station>('supine', 'prone', 'sitting'), late: fc.boolean(), locked: fc.boolean() }), {
        minLength: 4,
        maxLength: 7,
      })
      .chain((tasks) =>
        fc
          .shuffledSubarray([...tasks.keys()], { minLength: tasks.length })
          .map((ranks) => tasks.map((t, i): Task => ({ ...t, at: [t.at], rank: ranks[i]! }))),
      );
    fc.assert(
      fc.property(few, fc.constantFrom<Station | null>(null, 'prone'), (tasks, from) => {
        const { cost, steps } = bestOrder(tasks, assumedTurn, { from });
        expect(cost).toEqual(priceOf(tasks, steps, from));
        expect(COST_PARTS.map((part) => cost[part])).toEqual(COST_PARTS.map((part) => bruteForce(tasks, from)[part]));
      }),
      { numRuns: 250 },
    );
  });

  it('keeps the order of what is locked, and does everything somewhere it can be done', () => {
    fc.assert(
      fc.property(someTasks, (tasks) => {
        const { steps } = bestOrder(tasks, assumedTurn);
        const locked = steps.map((step) => step.task).filter((i) => tasks[i]!.locked);
        expect(locked).toEqual([...locked].sort((a, b) => a - b));
        expect(steps.every((step) => tasks[step.task]!.at.includes(step.at))).toBeTrue();
      }),
    );
  });

  it('costs the same whichever order the tasks came in, where none is locked', () => {
    fc.assert(
      fc.property(someTasks, (tasks) => {
        const free = tasks.map((t) => ({ ...t, locked: false }));
        expect(bestOrder([...free].reverse(), assumedTurn).cost).toEqual(bestOrder(free, assumedTurn).cost);
      }),
    );
  });

  it('goes from upright to face down, and puts what provokes last where that costs no turn', () => {
    const places = (tasks: Task[]) => bestOrder(tasks, assumedTurn).steps.map((step) => step.at);
    expect(places([task('prone', 0), task('supine', 1), task('standing', 2)])).toEqual(['standing', 'supine', 'prone']);
    expect(places([task('supine', 0, { late: true }), task('prone', 1)])).toEqual(['prone', 'supine']);
    expect(places([task('supine', 0, { late: true }), task('prone', 1, { late: true }), task('supine', 2)])).toEqual([
      'supine',
      'supine',
      'prone',
    ]);
  });

  it('chooses the position that saves a turn, and the usual one where it saves none', () => {
    const { steps, cost } = bestOrder([task('prone', 0), task(['supine', 'prone'], 1)], assumedTurn);
    expect(steps.map((step) => step.at)).toEqual(['prone', 'prone']);
    expect(cost.turns).toBe(0);
    expect(bestOrder([task(['sitting', 'supine'], 0)], assumedTurn).steps[0]!.at).toBe('sitting');
  });

  it('betters a choice that is too large to look through: no single change of place makes it better', () => {
    const places: readonly Station[] = ['prone', 'standing', 'sitting'];
    const many = Array.from({ length: 16 }, (_, at) => task(places, at + 2, { late: at % 3 === 0 }));
    const tasks = [task('standing', 0), task('sitting', 1), ...many];
    const best = bestOrder(tasks, assumedTurn);
    expect([best.cost.turns, best.cost.unusual]).toEqual([1, 16]);
    const at = new Map(best.steps.map((step) => [step.task, step.at]));
    for (const one of many.keys())
      for (const other of ['standing', 'sitting'] as const) {
        // Moved by itself, and the rest left where it is.
        const moved = tasks.map((own, i) => (i < 2 ? own : { ...own, at: ['prone', i === one + 2 ? other : at.get(i)!] as const }));
        expect(compareCost(bestOrder(moved, assumedTurn).cost, best.cost))
          .withContext(`task ${one} ${other}`)
          .toBeGreaterThanOrEqual(0);
      }
  });

  it('takes another turn for a locked order, and no more than one', () => {
    const tasks = [
      task('prone', 0, { locked: true }),
      task('supine', 1, { locked: true }),
      task('prone', 2, { locked: true }),
      task('supine', 3),
    ];
    const { steps, cost } = bestOrder(tasks, assumedTurn);
    expect(steps.map((step) => step.task)).toEqual([0, 1, 3, 2]);
    expect(cost.turns).toBe(2);
  });

  it('turns from where the patient is', () => {
    const { cost } = bestOrder([task('supine', 0), task('prone', 1)], assumedTurn, { from: 'prone' });
    expect(cost.turns).toBe(1);
    expect(cost.entry).toBe(0);
  });

  it('takes the same time either way, never nothing between two stations', () => {
    for (const a of STATIONS) {
      for (const b of STATIONS) {
        expect(assumedTurn(a, b)).withContext(`${a} ${b}`).toBe(assumedTurn(b, a));
        expect(assumedTurn(a, b) === 0).toBe(a === b);
      }
    }
  });
});
