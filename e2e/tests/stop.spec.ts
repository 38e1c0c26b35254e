import { setTimeout as wait } from 'node:timers/promises';
import { expect, test } from '../fixtures';

test('a server that is told to stop says so first and answers meanwhile: behind a balancer nobody is cut off', async ({ stack }) => {
  const second = await stack.serve({ DIAL_GAUGE_DRAIN: '2' });
  const seen = { answered: 0, cut: 0 };
  /** As a balancer has it: whoever is not ready is sent nothing any more. */
  let isIn = true;
  const balancer = (async () => {
    for (let looked = 0; looked < 300 && isIn; looked += 1) {
      isIn = (await fetch(`${second.url}/readyz`)).status === 200;
      await wait(100);
    }
  })();
  /** One after another over kept connections, as a browser does. */
  const ask = async () => {
    for (let asked = 0; asked < 20_000 && isIn; asked += 1) {
      const answer = await fetch(`${second.url}/api/session`).catch(() => null);
      await answer?.text();
      if (answer) seen.answered += 1;
      else seen.cut += 1;
    }
  };
  const asking = Promise.all(Array.from({ length: 8 }, ask));
  await expect.poll(() => seen.answered).toBeGreaterThan(50);
  const stopped = second.stop();
  await balancer;
  expect(isIn).toBe(false);
  // It has said that it ends, and answers still.
  const last = await fetch(`${second.url}/api/session`);
  expect([last.status, last.headers.get('connection')]).toEqual([401, 'close']);
  await asking;
  await stopped;
  expect(seen.cut).toBe(0);
  await expect(fetch(second.url)).rejects.toThrow();
});
