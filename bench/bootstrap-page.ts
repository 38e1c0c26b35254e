/// <reference lib="dom" />
import { seededRandom, type BootstrapResult } from '@dial-gauge/core';
import { jStat } from 'jstat';
import { bcaInterval } from '../core/src/error/bootstrap.js';

/** A study of thirty people read by three examiners, drawn from a seed. */
const random = seededRandom(30);
const table = Array.from({ length: 30 }, () => {
  const person = 60 + 40 * random();
  return [0, 2, -1].map((examiner) => Math.round(person + examiner + 8 * (random() - 0.5)));
});
const SEED = 7;

/** What is used of the library; it ships no types. */
const { mean, sumsqerr } = jStat as unknown as { mean(values: number[]): number; sumsqerr(values: number[]): number };

/** ICC(2,1) with the library's sums of squares. */
function icc(rows: readonly (readonly number[])[]): number {
  const [n, k] = [rows.length, rows[0]!.length];
  const between = (k * sumsqerr(rows.map((row) => mean([...row])))) / (n - 1);
  const ofRaters = n * sumsqerr(rows[0]!.map((_, at) => mean(rows.map((row) => row[at]!))));
  const rest = (sumsqerr(rows.flat()) - between * (n - 1) - ofRaters) / ((n - 1) * (k - 1));
  return (between - rest) / (between + (k - 1) * rest + (k * (ofRaters / (k - 1) - rest)) / n);
}

/** The longest time the page did not draw while something was done. */
async function watched<T>(doing: () => Promise<T>): Promise<{ result: T; took: number; longestGap: number }> {
  let last = performance.now();
  let longestGap = 0;
  let going = true;
  const tick = (now: number): void => {
    longestGap = Math.max(longestGap, now - last);
    last = now;
    if (going) requestAnimationFrame(tick);
  };
  await new Promise(requestAnimationFrame);
  last = performance.now();
  requestAnimationFrame(tick);
  const from = performance.now();
  const result = await doing();
  const took = performance.now() - from;
  await new Promise(requestAnimationFrame);
  going = false;
  return { result, took, longestGap };
}

export async function measure(workerSource: string, resamples: number) {
  const worker = new Worker(URL.createObjectURL(new Blob([workerSource], { type: 'text/javascript' })));
  const inWorker = await watched(
    () =>
      new Promise<BootstrapResult>((resolve) => {
        worker.onmessage = ({ data }: MessageEvent<BootstrapResult>) => resolve(data);
        worker.postMessage({ table, resamples, seed: SEED });
      }),
  );
  worker.terminate();
  const onPage = await watched(async () => {
    await Promise.resolve();
    const draw = seededRandom(SEED);
    const drawn = Float64Array.from({ length: resamples }, () =>
      icc(Array.from({ length: table.length }, () => table[Math.floor(draw() * table.length)]!)),
    );
    return bcaInterval(
      drawn,
      icc(table),
      table.map((_, out) => icc(table.filter((__, at) => at !== out))),
    );
  });
  const [ours, theirs] = [inWorker.result.intervals['2,1'], onPage.result];
  return {
    worker: { took: inWorker.took, longestGap: inWorker.longestGap },
    page: { took: onPage.took, longestGap: onPage.longestGap },
    apart: Math.max(Math.abs(ours.low - theirs.low), Math.abs(ours.high - theirs.high)),
  };
}
