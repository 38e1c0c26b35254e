/// <reference lib="webworker" />
import { bootstrap, seededRandom } from '@dial-gauge/core';
import type { BootstrapMessage, BootstrapRequest } from './bootstrap-messages';

const say = (message: BootstrapMessage) => postMessage(message);

addEventListener('message', ({ data: { table, resamples, seed } }: MessageEvent<BootstrapRequest>) => {
  try {
    const run = bootstrap(table, resamples, seededRandom(seed));
    for (let step = run.next(); ; step = run.next()) {
      if (step.done) return say({ result: step.value });
      say({ done: step.value });
    }
  } catch (error) {
    say({ problem: error instanceof Error ? error.message : String(error) });
  }
});
