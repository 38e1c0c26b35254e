import fc from 'fast-check';
import { limitsOfAgreement, reliability, seededRandom, StudyError, withinSubjectSd } from './index.js';
import { SHROUT_FLEISS } from '../testing/shrout-fleiss.js';
import jstat from 'jstat';
import { fQuantile, noncentralTQuantile, normalQuantile, normalShare, tQuantile } from './distributions.js';
import { ICC_FORMS, iccWord } from './icc.js';

describe('reliability, Shrout & Fleiss 1979', () => {
  const found = reliability(SHROUT_FLEISS);

  it('has the mean squares of the paper: 11.24, 6.26, 32.49, 1.02', () => {
    const { bms, wms, jms, ems } = found.variance;
    expect([bms, wms, jms, ems].map((ms) => Math.round(ms * 1e4) / 1e4)).toEqual([11.2417, 6.2639, 32.4861, 1.0194]);
  });

  // Values .17 .29 .71 .44 .62 .91 as printed; intervals recomputed by script from the printed formulas
  const ROWS = {
    '1,1': [0.1657, -0.133, 0.723],
    '2,1': [0.2898, 0.019, 0.761],
    '3,1': [0.7148, 0.342, 0.946],
    '1,k': [0.4428, -0.884, 0.912],
    '2,k': [0.6201, 0.071, 0.927],
    '3,k': [0.9093, 0.676, 0.986],
  } as const;
  for (const form of ICC_FORMS) {
    it(`ICC(${form}) is ${ROWS[form][0]}, ${ROWS[form][1]} to ${ROWS[form][2]}`, () => {
      const { value, low, high } = found.icc[form];
      expect(Math.abs(value - ROWS[form][0])).toBeLessThan(5.1e-5);
      expect(Math.abs(low - ROWS[form][1])).toBeLessThan(5.1e-4);
      expect(Math.abs(high - ROWS[form][2])).toBeLessThan(5.1e-4);
    });
  }

  it('has the errors 2.503 and 1.010', () => {
    expect(found.sem.agreement).toBeCloseTo(2.503, 3);
    expect(found.sem.consistency).toBeCloseTo(1.01, 3);
    expect(found.mdc95.agreement).toBeCloseTo(1.96 * Math.SQRT2 * found.sem.agreement, 12);
  });

  it('is spoken of by the lower end of its interval', () => {
    expect(ICC_FORMS.map((form) => iccWord(found.icc[form]))).toEqual(['poor', 'poor', 'poor', 'poor', 'poor', 'moderate']);
    expect([iccWord({ low: 0.8 }), iccWord({ low: 0.95 })]).toEqual(['good', 'excellent']);
  });
});

describe('reliability of any study', () => {
  /** Subjects 15° apart, read within 10° of what they are: some studies good, some poor. */
  const table = fc
    .tuple(fc.integer({ min: 3, max: 12 }), fc.integer({ min: 2, max: 5 }))
    .chain(([n, k]) =>
      fc.array(fc.array(fc.integer({ min: -10, max: 10 }), { minLength: k, maxLength: k }), { minLength: n, maxLength: n }),
    )
    .map((rows) => rows.map((row, at) => row.map((noise) => 15 * at + noise)));

  it('lies inside its interval, and does not change when every reading is shifted', () => {
    fc.assert(
      fc.property(table, (rows) => {
        const found = reliability(rows);
        const moved = reliability(rows.map((row) => row.map((value) => value + 30)));
        for (const form of ICC_FORMS) {
          const { value, low, high } = found.icc[form];
          expect(low <= value + 1e-9 && value <= high + 1e-9)
            .withContext(`${form} ${low} ${value} ${high} ${JSON.stringify(rows)}`)
            .toBeTrue();
          expect(moved.icc[form].value).toBeCloseTo(value, 6);
        }
      }),
      { numRuns: 200 },
    );
  });

  it('is perfect where the repeats agree', () => {
    const found = reliability([
      [10, 10],
      [20, 20],
      [34, 34],
    ]);
    for (const form of ICC_FORMS) expect(found.icc[form]).toEqual({ value: 1, low: 1, high: 1 });
    expect(found.sem).toEqual({ agreement: 0, consistency: 0 });
  });

  it('names the cell that is missing, and what is too small', () => {
    const at = (rows: number[][]): unknown => {
      try {
        reliability(rows);
        return 'counted';
      } catch (error) {
        return error instanceof StudyError ? [error.cell, error.message] : error;
      }
    };
    expect(
      at([
        [1, 2],
        [2, NaN],
        [3, 4],
      ]),
    ).toEqual([{ row: 1, column: 1 }, 'is missing; allowed: a number in every cell']);
    expect(
      at([
        [1, 2],
        [2, 3, 4],
        [3, 4],
      ]),
    ).toEqual([{ row: 1, column: 2 }, jasmine.stringContaining('one too many')]);
    expect(
      at([
        [1, 2],
        [2, 3],
      ]),
    ).toEqual([null, 'has 2 subjects; allowed: 3 or more']);
    expect(at([[1], [2], [3]])).toEqual([null, 'has 1 readings a subject; allowed: 2 or more']);
    expect(
      at([
        [1, 3],
        [2, 2],
        [3, 1],
      ]),
    ).toEqual([null, jasmine.stringContaining('the same mean')]);
    expect(
      at([
        [101, 175, 107, 3],
        [54, 61, 172, 56],
        [78, 157, 5, 97],
      ]),
    ).toEqual([null, jasmine.stringContaining('far more than the subjects')]);
  });
});

describe('limits of agreement, Bland & Altman 1986', () => {
  // Lancet 1986;i:307-310: peak flow by a large and a mini meter, l/min (data from memory, arithmetic recomputed)
  const LARGE = [494, 395, 516, 434, 476, 557, 413, 442, 650, 433, 417, 656, 267, 478, 178, 423, 427];
  const LARGE_AGAIN = [490, 397, 512, 401, 470, 611, 415, 431, 638, 429, 420, 633, 275, 492, 165, 372, 421];
  const MINI = [512, 430, 520, 428, 500, 600, 364, 380, 658, 445, 432, 626, 260, 477, 259, 350, 451];
  const MINI_AGAIN = [525, 415, 508, 444, 500, 625, 460, 390, 642, 432, 420, 605, 227, 467, 268, 370, 443];
  const near = (value: number, printed: number, digits = 0.051) =>
    expect(Math.abs(value - printed))
      .withContext(`${value} ${printed}`)
      .toBeLessThan(digits);

  it('bias −2.1 (−22.0 to 17.8), SD 38.8, limits with 2 SD −79.6 to 75.4', () => {
    const found = limitsOfAgreement(LARGE, MINI, 2);
    near(found.bias.value, -2.12, 0.006);
    near(found.bias.low, -22);
    near(found.bias.high, 17.8);
    near(found.sd, 38.77, 0.006);
    near(found.lower.value, -79.6, 0.07);
    near(found.upper.value, 75.4, 0.07);
    // The paper's −114.3 to −45.1 and 40.9 to 110.0 are its large-sample approximation, the same to both sides: with 17
    // pairs the outer end lies further away.
    expect(found.lower.low).toBeLessThan(-114.3);
    expect(found.upper.high).toBeGreaterThan(110);
    near(found.bias.value - found.lower.low, found.upper.high - found.bias.value, 1e-9);
  });

  it('have intervals that miss on each side as often as they say, however few the pairs', () => {
    const random = seededRandom(7);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    for (const n of [4, 10, 30, 140]) {
      const runs = n > 100 ? 600 : 1500;
      const factors = limitsOfAgreement(
        Array.from({ length: n }, (_, i) => i % 3),
        new Array<number>(n).fill(0),
      );
      const far = (factors.upper.high - factors.bias.value) / factors.sd;
      const near = (factors.upper.low - factors.bias.value) / factors.sd;
      let [below, above] = [0, 0];
      for (let run = 0; run < runs; run++) {
        const sample = Array.from({ length: n }, normal);
        const mean = sample.reduce((a, b) => a + b) / n;
        const sd = Math.sqrt(sample.reduce((sum, x) => sum + (x - mean) ** 2, 0) / (n - 1));
        if (mean + far * sd < 1.96) below += 1;
        if (mean + near * sd > 1.96) above += 1;
      }
      // Nominal 2.5 %; three standard errors of so many runs.
      const allowed = 3 * Math.sqrt((0.025 * 0.975) / runs);
      for (const missed of [below, above])
        expect(Math.abs(missed / runs - 0.025))
          .withContext(`${n} pairs`)
          .toBeLessThan(allowed);
    }
  });

  it('are put together for many pairs as they are exact for few', () => {
    const at = (n: number) => {
      const { bias, sd, upper } = limitsOfAgreement(
        Array.from({ length: n }, (_, i) => i % 3),
        new Array<number>(n).fill(0),
      );
      return [upper.low, upper.high].map((end) => (end - bias.value) / sd);
    };
    const [exact, composed] = [at(100), at(101)];
    exact.forEach((factor, i) => expect(Math.abs(factor - composed[i]!)).toBeLessThan(0.012));
  });

  it('with 1.96 SD −78.1 to 73.9', () => {
    const { lower, upper, points } = limitsOfAgreement(LARGE, MINI);
    near(lower.value, -78.1);
    near(upper.value, 73.9);
    expect(points[14]).toEqual({ mean: 218.5, difference: -81 });
  });

  it('within-subject SD 15.3 and 19.9', () => {
    near(withinSubjectSd(LARGE, LARGE_AGAIN), 15.31, 0.006);
    near(withinSubjectSd(MINI, MINI_AGAIN), 19.91, 0.006);
  });

  it('need three pairs, and take three', () => {
    expect(() => limitsOfAgreement([1, 2], [1, 3])).toThrowError(RangeError, /3 or more/);
    expect(limitsOfAgreement([1, 2, 4], [1, 3, 3]).bias.value).toBeCloseTo(0, 9);
  });

  it('refuses columns that cannot be paired', () => {
    expect(() => limitsOfAgreement([1, 2, 3], [1, 2])).toThrowError(/3 and 2/);
    expect(() => limitsOfAgreement([1, 2], [1, 2])).toThrowError(/3 or more/);
  });
});

describe('distribution functions', () => {
  it('F agrees with a reference library (scipy 1.17.1, stats.f.ppf), whole degrees of freedom and not', () => {
    const ROWS = [
      [0.975, 5, 18, 3.381967805875243],
      [0.975, 18, 5, 6.361883204654352],
      [0.975, 5, 15, 3.5764153492790607],
      [0.975, 15, 5, 6.427728167078779],
      [0.975, 5, 4.785, 7.498880528274082],
      [0.975, 4.785, 5, 7.190768047291414],
      [0.975, 11, 11, 3.473699051085808],
      [0.975, 29, 58, 1.8333132198653699],
      [0.975, 2.3, 60.7, 3.7056470837686017],
      [0.025, 3, 7, 0.06837889693755993],
    ] as const;
    for (const [p, df1, df2, printed] of ROWS) expect(fQuantile(p, df1, df2) / printed).toBeCloseTo(1, 7);
  });

  it('t agrees with it too (stats.t.ppf), and with the printed table: 12.706, 4.303, 2.571, 2.120', () => {
    const ROWS = [
      [1, 12.706204736174694],
      [2, 4.302652729749462],
      [5, 2.5705818356363146],
      [16, 2.1199052992212546],
      [29, 2.045229642132703],
      [3.5, 2.9400886379827282],
    ] as const;
    for (const [df, printed] of ROWS) expect(tQuantile(0.975, df) / printed).toBeCloseTo(1, 7);
  });

  it('the noncentral t quantile undoes its distribution function, also far out with few degrees of freedom', () => {
    for (const [p, df, ncp] of [
      [0.5, 20, 2],
      [0.975, 3, 4],
      [0.9999, 2, 5],
      [0.025, 8, 0],
    ] as const) {
      const q = noncentralTQuantile(p, df, ncp);
      expect(jstat.jStat.noncentralt.cdf(q, df, ncp))
        .withContext(`${p} ${df} ${ncp}`)
        .toBeCloseTo(p, 6);
    }
    expect(noncentralTQuantile(0.9999, 2, 5))
      .withContext('beyond the first stretch that is looked at')
      .toBeGreaterThan(45);
  });

  it('the normal one and its quantile undo each other', () => {
    expect(normalShare(1.96)).toBeCloseTo(0.9750021, 6);
    for (const p of [0.001, 0.025, 0.31, 0.5, 0.975]) expect(normalShare(normalQuantile(p))).toBeCloseTo(p, 7);
  });
});
