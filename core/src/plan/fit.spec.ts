import * as fc from 'fast-check';
import { fitInto, STEP_SECONDS, type Timed } from './fit.js';
import { bestOrder } from './order.js';
import { assumedTurn, STATIONS, type Station } from './station.js';

const total = (list: readonly number[]) => list.reduce((a, b) => a + b, 0);

/** Every subset, each in its cheapest places: the most that fits. */
function bruteForce(tasks: readonly Timed[], available: number): number {
  let best = -1;
  for (let subset = 0; subset < 1 << tasks.length; subset += 1) {
    const kept = tasks.filter((_, i) => subset & (1 << i));
    if (tasks.some((task, i) => (task.keep || task.locked) && !(subset & (1 << i)))) continue;
    const ways = STATIONS.length;
    let least = Infinity;
    for (let mask = 0; mask < 1 << ways; mask += 1) {
      const within = STATIONS.filter((_, bit) => mask & (1 << bit));
      if (!kept.every((task) => (task.locked ? task.at.slice(0, 1) : task.at).some((at) => within.includes(at)))) continue;
      least = Math.min(least, bestOrder(kept, assumedTurn, { within }).cost.seconds);
    }
    if (least + total(kept.map((task) => task.seconds)) <= available) best = Math.max(best, total(kept.map((task) => task.worth)));
  }
  return best;
}

const someTasks = fc
  .array(
    fc.record({
      at: fc.uniqueArray(fc.constantFrom<Station>('standing', 'supine', 'prone'), { minLength: 1, maxLength: 2 }),
      late: fc.boolean(),
      locked: fc.constantFrom(false, false, true),
      keep: fc.constantFrom(false, false, false, true),
      seconds: fc.integer({ min: 1, max: 12 }).map((n) => n * STEP_SECONDS),
      worth: fc.integer({ min: 1, max: 30 }),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((tasks) => tasks.map((task, rank): Timed => ({ ...task, rank })));

describe('fit into the time', () => {
  it('keeps the most that fits, as looking through every choice does', () => {
    fc.assert(
      fc.property(someTasks, fc.integer({ min: 0, max: 60 }), (tasks, cells) => {
        const available = cells * STEP_SECONDS;
        const found = fitInto(tasks, available, assumedTurn);
        const best = bruteForce(tasks, available);
        const worth = total(found.kept.map((i) => tasks[i]!.worth));
        if (best >= 0) {
          expect(worth).toBe(best);
          expect(found.seconds).toBeLessThanOrEqual(available);
          expect(found.seconds).toBe(found.ordered.cost.seconds + total(found.kept.map((i) => tasks[i]!.seconds)));
        } else {
          // What has to stay is too much by itself: it stays, and nothing else.
          expect(found.kept).toEqual(tasks.map((_, i) => i).filter((i) => tasks[i]!.keep || tasks[i]!.locked));
        }
        expect(found.ordered.steps.map((step) => step.task).sort()).toEqual([...found.kept].sort());
      }),
      { numRuns: 60 },
    );
  });

  it('gives up a turn rather than what lies in one place', () => {
    const task = (at: Station, rank: number, worth: number): Timed => ({
      at: [at],
      late: false,
      locked: false,
      keep: false,
      rank,
      seconds: 60,
      worth,
    });
    const tasks = [task('supine', 0, 10), task('supine', 1, 10), task('prone', 2, 12)];
    expect(fitInto(tasks, 140, assumedTurn).kept).toEqual([0, 1]);
    expect(fitInto(tasks, 60, assumedTurn).kept).toEqual([2]);
  });
});
