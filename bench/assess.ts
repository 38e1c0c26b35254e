import { assess, hipRunSheet, type Assessment, type Measurement } from '@dial-gauge/core';
import { median, quantile } from 'simple-statistics';

const RUNS = 3_000;

/** A whole hip exam: six motions, both sides, active and passive, three trials each, with the visit before. */
const exam = (shift: number): Measurement[] =>
  hipRunSheet('both').flatMap((block) =>
    block.rows.flatMap((row, index) =>
      row.sides.map((side) => ({
        ...row,
        side,
        instrument: 'goniometer' as const,
        trials: [0, 1, 2].map((trial) => ({ end: 20 + index * 3 + trial + shift })),
        pain: index % 5 === 0 ? 3 : 0,
      })),
    ),
  );

const assessment: Assessment = {
  person: { birthDate: '1968-03-14', sex: 'female' },
  assessedOn: '2026-11-20',
  involvedSide: 'both',
  measurements: exam(0),
  previous: { assessedOn: '2026-10-20', measurements: exam(-6) },
};

for (let i = 0; i < 300; i += 1) assess(assessment);
const times: number[] = [];
let findings = 0;
for (let i = 0; i < RUNS; i += 1) {
  const start = performance.now();
  findings = assess(assessment).findings.length;
  times.push(performance.now() - start);
}
console.log(
  `assess(), ${assessment.measurements.length} measurements × 3 trials with a visit before, ${findings} findings: ` +
    `median ${(median(times) * 1000).toFixed(0)} µs, p95 ${(quantile(times, 0.95) * 1000).toFixed(0)} µs over ${RUNS} runs`,
);
