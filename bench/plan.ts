import { EXAM_SETS, itemsOfSheet, planExam, type PlanItem, type PlanRequest } from '@dial-gauge/core';
import { median, quantile } from 'simple-statistics';

const ROUNDS = 200;

/** Sixty measurements from all ready sets, over five positions and both sides. */
const all = [...new Map(EXAM_SETS.flatMap((set) => itemsOfSheet(set.items)).map((item) => [JSON.stringify(item), item])).values()];
const sixty: readonly PlanItem[] = all.filter((_, i) => i % Math.floor(all.length / 60) === 0).slice(0, 60);
const worse = sixty.map((item, i) => ({ ...item, locked: i % 5 === 0, provoking: i % 7 === 0 }));

const CASES: readonly (readonly [name: string, request: PlanRequest])[] = [
  ['as chosen', { items: sixty, involved: 'left' }],
  ['fitted into 20 minutes', { items: sixty, involved: 'left', minutesAvailable: 20 }],
  ['12 locked out of order, 9 provoking', { items: worse, involved: 'left' }],
  ['the same, fitted into 20 minutes', { items: worse, involved: 'left', minutesAvailable: 20 }],
];

for (const [name, request] of CASES) {
  const times: number[] = [];
  let plan = planExam(request);
  for (let round = 0; round < ROUNDS; round += 1) {
    const from = performance.now();
    plan = planExam(request);
    times.push(performance.now() - from);
  }
  console.log(
    `plan of ${request.items.length} measurements, ${name}: median ${median(times).toFixed(1)} ms, p95 ${quantile(times, 0.95).toFixed(1)} ms ` +
      `(${plan.steps.length} kept, ${plan.turns} turns, ${Math.ceil(plan.seconds / 60)} min)`,
  );
}
