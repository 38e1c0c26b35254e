import fc from 'fast-check';
import { blindedOrder, seededRandom } from './index.js';

describe('the order of a study', () => {
  it('reads everybody once a round, by every rater once, and nobody twice in a row', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 3, max: 20 }),
        fc.integer({ min: 2, max: 5 }),
        fc.integer(),
        fc.constantFrom('raters', 'repeats' as const),
        (n, k, seed, kind) => {
          const order = blindedOrder(n, k, kind as 'raters' | 'repeats', seededRandom(seed));
          expect(new Set(order.map((turn) => `${turn.subject} ${turn.rater}`)).size).toBe(n * k);
          for (let round = 0; round < k; round++) {
            expect(new Set(order.slice(round * n, (round + 1) * n).map((turn) => turn.subject)).size).toBe(n);
          }
          order.slice(1).forEach((turn, at) => expect(turn.subject).not.toBe(order[at]!.subject));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is another one every time', () => {
    const of = (seed: number) =>
      blindedOrder(12, 2, 'repeats', seededRandom(seed))
        .map((turn) => turn.subject)
        .join();
    expect(of(1)).not.toBe(of(2));
  });
});
