import { SHROUT_FLEISS } from '../testing/shrout-fleiss.js';
import { bcaInterval } from './bootstrap.js';
import { bootstrap, bootstrapAtOnce, ICC_FORMS, reliability, seededRandom } from './index.js';

describe('bootstrap', () => {
  it('gives intervals that hold the coefficient and come out the same from the same seed', () => {
    const [one, again] = [1, 2].map(() => bootstrapAtOnce(SHROUT_FLEISS, 2000, seededRandom(7)));
    expect(one).toEqual(again!);
    const found = reliability(SHROUT_FLEISS);
    for (const form of ICC_FORMS) {
      const { low, high } = one!.intervals[form];
      expect(low <= found.icc[form].value && found.icc[form].value <= high)
        .withContext(form)
        .toBeTrue();
    }
    expect(one!.used).toBeGreaterThan(1990);
  });

  it('tells how far it is after every so many, and no oftener', () => {
    const told: number[] = [];
    const work = bootstrap(SHROUT_FLEISS, 10, seededRandom(7), 4);
    let step = work.next();
    for (; !step.done; step = work.next()) told.push(step.value);
    expect(told).toEqual([4, 8]);
    expect(step.value.used).toBe(10);
  });

  it('counts a resample as the table it stands for', () => {
    // A random source that picks every subject once: the resample is the study itself.
    let at = 0;
    const inOrder = () => (at++ % 6) / 6 + 0.01;
    const { intervals } = bootstrapAtOnce(SHROUT_FLEISS, 1, inOrder);
    const found = reliability(SHROUT_FLEISS);
    for (const form of ICC_FORMS) expect(intervals[form].low).toBeCloseTo(found.icc[form].value, 9);
    expect(intervals.agreement.low).toBeCloseTo(found.sem.agreement, 9);
  });

  it('accelerates by what the study says with each subject left out, told a second time from whole tables', () => {
    const again = seededRandom(11);
    const n = SHROUT_FLEISS.length;
    const resampled = Array.from({ length: 400 }, () => Array.from({ length: n }, () => SHROUT_FLEISS[Math.floor(again() * n)]!));
    const of = (rows: typeof resampled) =>
      rows.flatMap((table) => {
        try {
          return [reliability(table).icc['2,1'].value];
        } catch {
          return [];
        }
      });
    const without = SHROUT_FLEISS.map((_, out) => SHROUT_FLEISS.filter((__, at) => at !== out));
    const { intervals, used } = bootstrapAtOnce(SHROUT_FLEISS, 400, seededRandom(11));
    const drawn = of(resampled);
    expect(used).toBe(drawn.length);
    const observed = reliability(SHROUT_FLEISS).icc['2,1'].value;
    const told = bcaInterval(Float64Array.from(drawn), observed, of(without));
    expect(intervals['2,1'].low).toBeCloseTo(told.low, 9);
    expect(intervals['2,1'].high).toBeCloseTo(told.high, 9);
    // It is not the plain interval of the draws.
    const plain = bcaInterval(Float64Array.from(drawn), observed, []);
    expect(Math.abs(plain.low - told.low) + Math.abs(plain.high - told.high)).toBeGreaterThan(0.001);
  });

  it('leaves nobody out of three: two subjects say nothing', () => {
    const three = SHROUT_FLEISS.slice(0, 3);
    const again = seededRandom(5);
    const drawn = Array.from({ length: 60 }, () => Array.from({ length: 3 }, () => three[Math.floor(again() * 3)]!)).flatMap((table) => {
      try {
        return [reliability(table).icc['1,1'].value];
      } catch {
        return [];
      }
    });
    const { intervals } = bootstrapAtOnce(three, 60, seededRandom(5));
    const told = bcaInterval(Float64Array.from(drawn), reliability(three).icc['1,1'].value, []);
    expect([intervals['1,1'].low, intervals['1,1'].high]).toEqual([jasmine.any(Number), jasmine.any(Number)]);
    expect(intervals['1,1'].low).toBeCloseTo(told.low, 9);
    expect(intervals['1,1'].high).toBeCloseTo(told.high, 9);
  });

  it('agrees with a reference library (scipy 1.17.1, stats.bootstrap, BCa, 20 000 resamples of ICC(2,1)) within its own noise', () => {
    const study = [
      [42, 44],
      [55, 53],
      [61, 66],
      [38, 37],
      [70, 71],
      [49, 52],
      [58, 55],
      [64, 67],
      [45, 43],
      [52, 57],
      [67, 63],
      [40, 44],
    ];
    const { low, high } = bootstrapAtOnce(study, 20000, seededRandom(3)).intervals['2,1'];
    expect(Math.abs(low - 0.9133)).toBeLessThan(0.01);
    expect(Math.abs(high - 0.985)).toBeLessThan(0.005);
  });

  it('corrects for bias and skew: on a sample without either, the plain percentiles stand', () => {
    const drawn = Float64Array.from({ length: 1001 }, (_, i) => i);
    const { low, high } = bcaInterval(drawn, 500, [499, 500, 501]);
    expect(low).toBeCloseTo(25, -1);
    expect(high).toBeCloseTo(975, -1);
  });
});
