import { expect, test } from '../fixtures';

test('a server that is told to stop cuts nobody off: whoever was heard is answered', async ({ stack }) => {
  const second = await stack.serve({ DIAL_GAUGE_DRAIN: '1' });
  const seen = { answered: 0, refused: 0, cut: 0 };
  let isOver = false;
  /** One after another over kept connections, as a browser does, until nobody listens any more. */
  const ask = async () => {
    for (let asked = 0; asked < 20_000 && !isOver; asked += 1) {
      try {
        const answer = await fetch(`${second.url}/api/session`);
        await answer.text();
        seen.answered += 1;
      } catch (error) {
        const { code } = (error as { cause?: { code?: string } }).cause ?? {};
        if (code === 'ECONNREFUSED') {
          seen.refused += 1;
          return;
        }
        seen.cut += 1;
      }
    }
  };
  const asking = Promise.all(Array.from({ length: 8 }, ask));
  await expect.poll(() => seen.answered).toBeGreaterThan(50);
  expect(await (await fetch(`${second.url}/readyz`)).text()).toBe('ready\n');
  const before = seen.answered;
  const stopped = second.stop();
  await expect.poll(async () => (await fetch(`${second.url}/readyz`)).status).toBe(503);
  await stopped;
  isOver = true;
  await asking;
  expect(seen.cut).toBe(0);
  // While it said that it would end it still answered.
  expect(seen.answered).toBeGreaterThan(before + 50);
});
