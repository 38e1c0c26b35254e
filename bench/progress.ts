import { NORM_SETS, progressOf } from '@dial-gauge/core';
import { median, quantile } from 'simple-statistics';
import { progressSessions } from './progress-sessions.js';

const FRAME = 1000 / 60;
const RUNS = 200;

/** All that several visits say: series, changes against every visit, trends, plateaus, goals, projections. */
const sessions = progressSessions();
const context = {
  person: { birthDate: '1968-03-14', sex: 'female' },
  normOrder: NORM_SETS,
  involvedSide: 'left',
  operation: { id: 'knee-replacement', on: '2026-06-24' },
} as const;
const times: number[] = [];
let series = progressOf(sessions, context);
for (let run = 0; run < RUNS; run += 1) {
  const from = performance.now();
  series = progressOf(sessions, context);
  times.push(performance.now() - from);
}
const middle = median(times);
console.log(
  `progress of ${sessions.length} visits × ${series.length} motions: median ${middle.toFixed(1)} ms, p95 ${quantile(times, 0.95).toFixed(1)} ms; ` +
    `a frame is ${FRAME.toFixed(1)} ms, so it takes ${(middle / FRAME).toFixed(2)} of one`,
);
