import fc from 'fast-check';
import { chanceOfKendall, leastKendall } from './kendall.js';
import { countedSlopes, madeSlopes, slopesOf, type At } from './slopes.js';
import { plateauOf, trendOf, type DatedValue } from './trend.js';

const point = fc.record({ week: fc.integer({ min: 0, max: 30 }), value: fc.integer({ min: -40, max: 140 }) });

describe('ranked slopes', () => {
  it('are those of the worked trend', () => {
    const slopes = slopesOf([70, 84, 95, 103, 112].map((value, at) => ({ week: 2 * at, value })));
    expect([slopes.count, slopes.at(0), slopes.at(9)]).toEqual([10, 4, 7]);
  });

  it('are the same counted as made, also with readings of one day', () => {
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 24 }), (points) => {
        const inOrder = [...points].sort((a, b) => a.week - b.week);
        const [made, counted] = [madeSlopes(inOrder), countedSlopes(inOrder)];
        expect(counted.count).toBe(made.count);
        for (let rank = 0; rank < made.count; rank++) expect(counted.at(rank)).toBeCloseTo(made.at(rank), 4);
      }),
      { numRuns: 200 },
    );
  });

  it('are the same counted as made where many readings of one day say the same', () => {
    const near = fc.record({ week: fc.integer({ min: 0, max: 3 }), value: fc.integer({ min: 0, max: 2 }) });
    fc.assert(
      fc.property(fc.array(near, { minLength: 3, maxLength: 14 }), (points) => {
        const inOrder = [...points].sort((a, b) => a.week - b.week);
        fc.pre(new Set(inOrder.map(({ week }) => week)).size > 1);
        const [made, counted] = [madeSlopes(inOrder), countedSlopes(inOrder)];
        for (const steep of [-2.1, -0.7, -0.01, 0.01, 0.7, 2.1]) if (counted.atMost(steep) !== made.atMost(steep)) return false;
        return counted.count === made.count;
      }),
      { numRuns: 300 },
    );
  });

  it('are in the order of their ranks, in whatever order those are asked for', () => {
    const slopeOf = ([a, b]: readonly [At, At]) => (b.value - a.value) / (b.week - a.week);
    fc.assert(
      fc.property(fc.array(point, { minLength: 3, maxLength: 16 }), fc.array(fc.nat(119), { maxLength: 12 }), (points, ranks) => {
        const inOrder = [...points].sort((a, b) => a.week - b.week);
        const pairs = inOrder.flatMap((a, i) => inOrder.slice(i + 1).map((b) => [a, b] as const));
        const sorted = pairs
          .filter(([a, b]) => b.week > a.week)
          .map(slopeOf)
          .sort((a, b) => a - b);
        const made = madeSlopes(inOrder);
        expect(made.count).toBe(sorted.length);
        for (const rank of ranks.filter((of) => of < sorted.length)) {
          expect(made.at(rank)).toBe(sorted[rank]!);
          // Between the slopes there can be: on one, either way of counting may round.
          const steep = rank / 7 - 5.0123;
          expect(made.atMost(steep)).toBe(sorted.filter((slope) => slope <= steep).length);
          expect(countedSlopes(inOrder).atMost(steep)).toBe(made.atMost(steep));
        }
      }),
      { numRuns: 200 },
    );
  });

  it('of very many readings are counted, not made', () => {
    const many = Array.from({ length: 3000 }, (_, at) => ({ week: at, value: 0.5 * at + ((at * 7919) % 13) }));
    const slopes = slopesOf(many);
    expect(slopes.count).toBe((3000 * 2999) / 2);
    expect(slopes.at(Math.floor(slopes.count / 2))).toBeCloseTo(0.5, 3);
  });
});

describe('Kendall’s S of many values', () => {
  it('is as good as normal where that is taken for it', () => {
    for (const n of [120, 121, 140, 150]) {
      const least = leastKendall(n, 0.025)!;
      expect(chanceOfKendall(n, least)).withContext(`n ${n}`).toBeLessThanOrEqual(0.0252);
      expect(chanceOfKendall(n, least - 4))
        .withContext(`n ${n}`)
        .toBeGreaterThan(0.025);
    }
  });

  it('is that of the printed variance, n(n − 1)(2n + 5)/18 (Kendall 1938, from memory)', () => {
    for (const n of [120, 200, 301]) {
      const sd = Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
      expect(Math.abs(leastKendall(n, 0.025)! - (1 + 1.959964 * sd)))
        .withContext(`n ${n}`)
        .toBeLessThanOrEqual(2 + sd / 500);
    }
  });

  it('sums to one', () => {
    for (const n of [2, 5, 30, 90]) expect(chanceOfKendall(n, (-n * (n - 1)) / 2)).toBeCloseTo(1, 9);
  });
});

describe('standing still, over many visits', () => {
  const visits = (count: number, value: (at: number) => number): DatedValue[] =>
    Array.from({ length: count }, (_, at) => ({
      on: new Date(Date.UTC(2000, 0, 1 + 7 * at)).toISOString().slice(0, 10),
      value: value(at),
      sem: 3,
    }));

  it('is found over hundreds, and the trend with it', () => {
    const noise = (at: number) => ((at * 7919) % 5) - 2;
    const points = visits(400, (at) => (at < 200 ? at * 0.5 : 100) + noise(at));
    const plateau = plateauOf(points)!;
    expect(plateau.visits).toBeGreaterThan(190);
    expect(plateau.visits).toBeLessThan(215);
    expect(trendOf(points)!.perWeek).toBeGreaterThan(0.2);
  });

  it('is none while it moves', () => {
    expect(plateauOf(visits(300, (at) => at * 0.9))?.visits ?? 0).toBeLessThan(10);
  });
});
