import type { MotionId } from '../terms.js';
import { BOONE_AZEN_1979 } from './boone-azen-1979.js';
import { agreement, ageOn, chooseNorm, compareWithNorm, findNormSet, NORM_SETS, type NormSet } from './index.js';

const HIP: readonly MotionId[] = [
  'hip.flexion',
  'hip.extension',
  'hip.abduction',
  'hip.adduction',
  'hip.internalRotation',
  'hip.externalRotation',
];
const woman = { sex: 'female', age: 42 } as const;

describe('age on the day', () => {
  it('turns on the birthday', () => {
    expect(ageOn('1984-05-02', '2026-05-01')).toBe(41);
    expect(ageOn('1984-05-02', '2026-05-02')).toBe(42);
    expect(ageOn('2004-02-29', '2025-02-28')).toBe(20);
    expect(ageOn('2004-02-29', '2025-03-01')).toBe(21);
  });
  it('refuses a day before the birth', () => {
    expect(() => ageOn('2026-01-02', '2026-01-01')).toThrowError(/before the birth/);
  });
});

describe('norm sets', () => {
  it('have a source and unique ids', () => {
    expect(new Set(NORM_SETS.map((s) => s.id)).size).toBe(NORM_SETS.length);
    for (const set of NORM_SETS) expect(set.source.cite.length).toBeGreaterThan(10);
  });

  it('never hold two entries for the same question', () => {
    for (const set of NORM_SETS) {
      const keys = set.entries.map((e) => [e.motion, e.mode, e.position, e.sex, e.ages?.label].join());
      expect(new Set(keys).size).withContext(set.id).toBe(keys.length);
    }
  });

  // AAOS 1965 figures entered a second time, apart from the data file (from memory)
  it('agree with a second entry: AAOS 1965', () => {
    expect(
      HIP.map((m) => compareWithNorm(need('aaos-1965'), { motion: m, mode: 'passive', position: 'supine', ...woman }, 0, 3)?.expected),
    ).toEqual([120, 30, 45, 30, 45, 45]);
  });

  // Whole-sample row of Boone & Azen 1979 (n = 109; 53 up to 19 y, 56 from 20 y), from memory
  it('Boone & Azen: the two age groups average to the printed whole-sample mean and pool to its SD', () => {
    const whole = [
      [122.3, 6.1],
      [9.8, 6.8],
      [45.9, 9.3],
      [26.9, 4.1],
      [47.3, 6.0],
      [47.2, 6.3],
    ] as const;
    HIP.forEach((motion, i) => {
      const [young, adult] = BOONE_AZEN_1979.entries.filter((e) => e.motion === motion).map((e) => e.value);
      if (young?.kind !== 'distribution' || adult?.kind !== 'distribution') throw new Error('expected two samples');
      expect(Math.abs((53 * young.mean + 56 * adult.mean) / 109 - whole[i]![0]))
        .withContext(motion)
        .toBeLessThan(0.11);
      // Pooled about the whole mean, as the sample SD of all 109 is.
      const m = (53 * young.mean + 56 * adult.mean) / 109;
      const ss = 52 * young.sd ** 2 + 55 * adult.sd ** 2 + 53 * (young.mean - m) ** 2 + 56 * (adult.mean - m) ** 2;
      const within = Math.sqrt((52 * young.sd ** 2 + 55 * adult.sd ** 2) / 107);
      const total = Math.sqrt(ss / 108);
      const printed = whole[i]![1];
      expect(Math.min(Math.abs(within - printed), Math.abs(total - printed)))
        .withContext(motion)
        .toBeLessThan(0.15);
    });
  });
});

function need(id: string): NormSet {
  const set = findNormSet(id);
  if (!set) throw new Error(id);
  return set;
}

describe('choice of a norm', () => {
  const rotation = { motion: 'hip.internalRotation', mode: 'active', position: 'sitting', sex: 'male' } as const;

  it('changes band on the birthday', () => {
    const mean = (age: number) => compareWithNorm(BOONE_AZEN_1979, { ...rotation, age }, 40, 3)?.expected;
    expect(mean(19)).toBe(50.3);
    expect(mean(20)).toBe(44.4);
  });

  it('flags the nearest band where none holds the age', () => {
    expect(chooseNorm(BOONE_AZEN_1979, { ...rotation, age: 54 })?.flags).toEqual([]);
    expect(chooseNorm(BOONE_AZEN_1979, { ...rotation, age: 55 })?.flags).toEqual(['nearest-age']);
    expect(chooseNorm(need('roach-miles-1991'), { ...rotation, age: 80 })?.entry.ages?.label).toBe('60–74 years');
    expect(chooseNorm(need('roach-miles-1991'), { ...rotation, age: 20 })?.entry.ages?.label).toBe('25–39 years');
  });

  it('shows a norm of another mode or position but does not let it vote', () => {
    const choice = chooseNorm(BOONE_AZEN_1979, { ...rotation, mode: 'passive', position: 'prone', ...woman });
    expect(choice?.flags).toEqual(['other-mode', 'other-position', 'other-sex']);
    expect(choice?.comparable).toBeFalse();
  });

  it('is silent, never another set, where the set has no value', () => {
    expect(chooseNorm(need('roach-miles-1991'), { ...rotation, motion: 'hip.adduction', age: 30 })).toBeUndefined();
  });
});

describe('comparison with a norm', () => {
  const seated = { motion: 'hip.internalRotation', mode: 'active', position: 'sitting', sex: 'male', age: 30 } as const;

  it('gives z and percentile from a sample', () => {
    const at = (value: number) => compareWithNorm(BOONE_AZEN_1979, seated, value, 3)!;
    expect(at(44.4).percentile).toBeCloseTo(50, 4);
    // Standard normal distribution: Φ(−1.96) = 0.0250, Φ(1) = 0.8413 (any printed table)
    expect(at(44.4 - 1.96 * 4.3).percentile).toBeCloseTo(2.5, 2);
    expect(at(44.4 + 4.3).percentile).toBeCloseTo(84.13, 2);
    expect(at(44.4 + 4.3).z).toBeCloseTo(1, 9);
  });

  it('calls a value short below mean − 1.96 SD', () => {
    expect(compareWithNorm(BOONE_AZEN_1979, seated, 35.9, 3)?.short).toBeTrue();
    expect(compareWithNorm(BOONE_AZEN_1979, seated, 36.0, 3)?.short).toBeFalse();
  });

  it('gives no z for a handbook figure and calls short only past the error band', () => {
    const at = (value: number) => compareWithNorm(need('aaos-1965'), seated, value, 3)!;
    expect(at(19)).toEqual(
      jasmine.objectContaining({ expected: 45, deficit: 26, z: null, percentile: null, expectedBand: { low: 45, high: 45 }, short: true }),
    );
    expect(at(19).percent).toBeCloseTo(42.2, 1);
    expect(at(40).short).withContext('5 is within 1.96 × 3').toBeFalse();
    expect(at(39).short).toBeTrue();
  });

  it('holds a range by its lower end', () => {
    const at = (value: number) => compareWithNorm(need('common-practice'), { ...seated, motion: 'hip.flexion' }, value, 3)!;
    expect(at(112).deficit).toBe(-2);
    expect(at(112).short).toBeFalse();
    expect(at(100).short).toBeTrue();
  });

  it('counts votes only among sets that may be compared', () => {
    const query = { motion: 'hip.internalRotation', mode: 'passive', position: 'prone', ...woman } as const;
    const all = NORM_SETS.flatMap((set) => compareWithNorm(set, query, 19, 3) ?? []);
    expect(all.length).toBe(6);
    expect(agreement(all)).toEqual({ short: 3, of: 4 });
  });
});
