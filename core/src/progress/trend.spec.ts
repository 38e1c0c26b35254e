import fc from 'fast-check';
import { addWeeks } from '../days.js';
import { chanceOfKendall, leastKendall } from './kendall.js';
import { isMoving, plateauOf, projectGoal, recentTrend, trendAt, trendOf, type DatedValue } from './index.js';

const START = '2026-03-02';
const at = (weeks: readonly number[], values: readonly number[], sem = 3): DatedValue[] =>
  weeks.map((week, i) => ({ on: addWeeks(START, week), value: values[i]!, sem }));

describe('robust trend', () => {
  it('agrees with a reference library (scipy 1.17.1, stats.theilslopes): 5 a week through 75', () => {
    const trend = trendOf(at([0, 2, 4, 6, 8], [70, 84, 95, 103, 112]))!;
    expect(trend.perWeek).toBeCloseTo(5, 9);
    // scipy starts at median(y) − slope·median(x) = 75; ours at the median of y − slope·x = 73, which scatter moves less
    expect(trendAt(trend, addWeeks(START, 4))).toBeCloseTo(93, 9);
  });

  it('agrees with it on random visits, three to twelve of them', () => {
    const ROWS: [number[], number[], number][] = [
      [[7, 48, 59], [90, 107, 4], -1.6538461538461537],
      [[8, 24, 28], [10, 81, 19], 0.45],
      [[37, 43, 55, 58], [77, 67, 100, 150], 3.113095238095238],
      [[8, 15, 21, 50], [69, 77, 142, 123], 1.3],
      [[8, 31, 47, 57, 58], [73, 148, 53, 140, 89], 0.006153846153846149],
      [[13, 34, 40, 47, 52, 53], [41, 2, 12, 146, 135, 45], 2.263157894736842],
      [[4, 8, 12, 13, 23, 39, 49], [26, 30, 66, 52, 109, 70, 51], 1.0],
      [[1, 18, 19, 34, 39, 42, 48, 52], [129, 8, 75, 5, 28, 127, 11, 88], 0.025609756097560978],
      [[1, 5, 10, 16, 17, 30, 45, 51, 56], [111, 148, 29, 139, 9, 21, 90, 130, 135], 0.14],
      [[1, 5, 10, 17, 21, 28, 36, 38, 40, 42, 58, 59], [38, 61, 147, 55, 142, 75, 51, 141, 65, 116, 47, 150], 0.4],
    ];
    for (const [weeks, values, slope] of ROWS) expect(trendOf(at(weeks, values))!.perWeek).toBeCloseTo(slope, 9);
  });

  it('has the slope of a published example: −0.056 for five years of cloud seeding (Hollander & Wolfe, from memory; recomputed)', () => {
    expect(trendOf(at([1, 2, 3, 4, 5], [1.26, 1.27, 1.12, 1.16, 1.03], 0.01))!.perWeek).toBeCloseTo(-0.05625, 9);
  });

  it('knows the chance of every Kendall S exactly: counted over all orders', () => {
    const permutations = (values: number[]): number[][] =>
      values.length < 2
        ? [values]
        : values.flatMap((v, i) => permutations([...values.slice(0, i), ...values.slice(i + 1)]).map((rest) => [v, ...rest]));
    for (const n of [3, 4, 5, 6]) {
      const orders = permutations(Array.from({ length: n }, (_, i) => i));
      const sOf = (order: number[]) => order.reduce((sum, a, i) => sum + order.slice(i + 1).reduce((s, b) => s + Math.sign(b - a), 0), 0);
      const all = orders.map(sOf);
      for (let s = 0; s <= (n * (n - 1)) / 2; s++) {
        expect(chanceOfKendall(n, s)).toBeCloseTo(all.filter((x) => x >= s).length / all.length, 12);
      }
    }
    // P(S ≥ 8) = 0.042 and P(S ≥ 10) = 0.0083 for five values, as printed (Hollander & Wolfe, from memory)
    expect(chanceOfKendall(5, 8)).toBeCloseTo(0.042, 3);
    expect(chanceOfKendall(5, 10)).toBeCloseTo(0.0083, 4);
    expect([leastKendall(4, 0.025), leastKendall(5, 0.025), leastKendall(6, 0.025)]).toEqual([undefined, 10, 13]);
  });

  it('has the rank interval of scipy where that is wider than the error (ten visits, theilslopes 1.25 to 2.0 by normal ranks)', () => {
    const trend = trendOf(at([0, 1, 2, 3, 5, 7, 9, 12, 14, 16], [40, 44, 43, 50, 49, 55, 60, 58, 61, 64], 0.1))!;
    expect(trend.perWeek).toBeCloseTo(1.5, 9);
    expect(trend.basis).toBe('error-and-ranks');
    expect(trend.low).toBeLessThanOrEqual(1.25);
    expect(trend.high).toBeGreaterThanOrEqual(2);
    expect(trend.low).toBeGreaterThan(0.9);
    expect(trend.high).toBeLessThan(2.4);
  });

  it('with few visits rests on the measuring error: 1.96·SEM/√Σ(t − t̄)²', () => {
    const trend = trendOf(at([0, 2, 4], [90, 92, 94]))!;
    expect(trend.basis).toBe('error');
    expect(trend.high - trend.perWeek).toBeCloseTo((1.96 * 3) / Math.sqrt(8), 9);
    expect(isMoving(trend)).toBeFalse();
  });

  it('is not turned by one odd visit, and keeps quiet with two', () => {
    const straight = trendOf(at([0, 1, 2, 3, 4, 5], [60, 65, 70, 75, 80, 85]))!;
    const odd = trendOf(at([0, 1, 2, 3, 4, 5], [60, 65, 20, 75, 80, 85]))!;
    expect(odd.perWeek).toBeCloseTo(straight.perWeek, 9);
    expect(odd.high - odd.low).toBeGreaterThan(straight.high - straight.low);
    expect(trendOf(at([0, 1], [60, 65]))).toBeNull();
    expect(trendOf([...at([0, 1], [60, 65]), ...at([1], [66])])).toBeNull();
  });

  it('does not depend on the order of entry, and turns round with the sign', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 120 }), { minLength: 3, maxLength: 10 }), (values) => {
        const points = at(
          values.map((_, i) => i * 2),
          values,
        );
        const one = trendOf(points)!;
        expect(trendOf([...points].reverse())).toEqual(one);
        const mirrored = trendOf(points.map((p) => ({ ...p, value: -p.value })))!;
        expect(mirrored.perWeek).toBeCloseTo(-one.perWeek, 9);
        expect(mirrored.low).toBeCloseTo(-one.high, 9);
        expect(one.low <= one.perWeek && one.perWeek <= one.high).toBeTrue();
      }),
    );
  });
});

describe('plateau', () => {
  it('is the longest run of last visits, three weeks or more, without a real change', () => {
    const points = at([1, 2, 3, 4, 6, 8, 10, 12], [62, 74, 83, 90, 98, 104, 106, 106], 4.1);
    const plateau = plateauOf(points)!;
    expect(plateau).toEqual(jasmine.objectContaining({ visits: 4, weeks: 6, from: addWeeks(START, 6) }));
    expect([isMoving(plateau.trend), plateau.isStill]).toEqual([false, false]);
  });

  it('begins after a reading that is really apart from any later one, be it the least or the most of them', () => {
    // SEM 2.5: really apart from 6.9 on. 13 is apart from 5 alone, 2 from 10 alone.
    const runs = (values: number[]) => plateauOf(at([0, 2, 4, 6, 8], values, 2.5))?.visits ?? 0;
    expect(runs([13, 10, 5, 10, 10])).toBe(4);
    expect(runs([2, 5, 10, 5, 5])).toBe(4);
    expect(runs([9, 10, 5, 10, 10])).toBe(5);
  });

  it('stands still only where it is told from moving', () => {
    const weekly = [0, 1, 2, 3, 4, 5, 6, 7, 8];
    expect(plateauOf(at(weekly, [106, 105, 107, 106, 106, 105, 106, 107, 106], 4.1))!.isStill).toBeTrue();
    // A rise of 3.7 a week that error reaches down to nothing is not yet told from standing still, and is no standing still.
    const rising = plateauOf(at([0, 1, 2, 3], [90, 94, 97, 101], 4.1))!;
    expect(rising.trend.perWeek).toBeCloseTo(3.7, 0);
    expect([isMoving(rising.trend), rising.isStill]).toEqual([false, false]);
  });

  it('is none while it goes on, in two visits, or in less than three weeks', () => {
    expect(plateauOf(at([0, 2, 4, 6], [60, 75, 90, 105]))).toBeNull();
    expect(plateauOf(at([0, 6], [90, 90]))).toBeNull();
    expect(plateauOf(at([0, 1, 2], [90, 90, 90]))).toBeNull();
  });
});

describe('the day of a goal', () => {
  const points = at([0, 2, 4, 6], [60, 72, 85, 96], 2);
  const last = points[3]!;
  const trend = recentTrend(points);
  const project = (goal: number) => projectGoal(goal, last, trend, 'knee.flexion');

  it('is where the line meets it, between an earliest and a latest day', () => {
    const found = project(120);
    if (found.kind !== 'on-the-way') return fail(found.kind);
    // 6.08 a week: (120 − 96) / 6.08 ≈ 4 weeks after week 6
    expect(found.on >= addWeeks(START, 9) && found.on <= addWeeks(START, 11))
      .withContext(found.on)
      .toBeTrue();
    expect(found.earliest < found.on && found.latest !== null && found.on < found.latest).toBeTrue();
  });

  it('holds the true day in 95 of 100 courses of a known rate', () => {
    // 5 a week from 50, read with SEM 2 at weeks 0, 2, 4, 6: 110 is reached in week 12.
    let state = 12345;
    const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
    const noise = () => Math.sqrt(-2 * Math.log(random())) * Math.cos(2 * Math.PI * random()) * 2;
    let held = 0;
    let of = 0;
    for (let run = 0; run < 800; run++) {
      const weeks = [0, 2, 4, 6];
      const course = at(
        weeks,
        weeks.map((w) => 50 + 5 * w + noise()),
        2,
      );
      const found = projectGoal(110, course[3]!, recentTrend(course), 'knee.flexion');
      if (found.kind !== 'on-the-way') continue;
      of++;
      const day = addWeeks(START, 12);
      if (found.earliest <= day && (found.latest === null || day <= found.latest)) held++;
    }
    expect(of).toBeGreaterThan(780);
    expect(held / of).toBeGreaterThan(0.93);
  });

  it('is not promised when it is reached, within error, too far, or the other way', () => {
    expect(project(96).kind).toBe('reached');
    expect(project(98).kind).toBe('within-error');
    expect(project(400).kind).toBe('not-in-sight');
    const falling = at([0, 2, 4, 6], [96, 85, 72, 60], 2);
    expect(projectGoal(120, falling[3]!, recentTrend(falling), 'knee.flexion').kind).toBe('not-in-sight');
    expect(projectGoal(120, last, null, 'knee.flexion').kind).toBe('no-trend');
  });

  it('goes down where less is better', () => {
    const floor = at([0, 2, 4, 6], [30, 24, 19, 13], 1);
    const found = projectGoal(2, floor[3]!, recentTrend(floor), 'distance.fingerToFloor');
    expect(found.kind).toBe('on-the-way');
  });
});
