import { consistent } from './consistency.js';
import { mdc90, mdc95, mdcOfDifference, semFromIcc } from './sem.js';
import { errorOf } from './table.js';

describe('standard error and smallest real change', () => {
  // Standard formulas SEM = SD·√(1 − ICC), MDC = z·√2·SEM; rows recomputed by script from memory of the textbook table
  const ROWS = [
    [10, 0.9, 3.16, 7.36, 8.77],
    [8, 0.85, 3.1, 7.21, 8.59],
    [5, 0.97, 0.87, 2.01, 2.4],
    [12, 0.75, 6.0, 13.96, 16.63],
  ] as const;
  for (const [sd, icc, sem, at90, at95] of ROWS) {
    it(`SD ${sd}, ICC ${icc} → SEM ${sem}, MDC90 ${at90}, MDC95 ${at95}`, () => {
      const value = semFromIcc(sd, icc);
      expect(Math.abs(value - sem)).toBeLessThanOrEqual(0.0051);
      expect(Math.abs(mdc90(value) - at90)).toBeLessThanOrEqual(0.0051);
      expect(Math.abs(mdc95(value) - at95)).toBeLessThanOrEqual(0.0051);
    });
  }

  it('agrees with a published SEM and MDC90: hip internal rotation 3.4 and 7.8–7.9 (Pua et al. 2008, from memory)', () => {
    expect(mdc90(3.4)).toBeCloseTo(7.9, 1);
  });

  it('refuses what cannot be', () => {
    expect(() => semFromIcc(-1, 0.9)).toThrowError(/sd/);
    expect(() => semFromIcc(5, 1.1)).toThrowError(/icc/);
  });

  it('carries both errors of a subtracted reading', () => {
    expect(errorOf('dualInclinometer')?.sem).toBeCloseTo(Math.sqrt(8), 12);
    expect(mdcOfDifference(3, 3)).toBeCloseTo(mdc95(3), 12);
  });

  it('is larger between two examiners, and unknown where nobody measured it', () => {
    expect(errorOf('goniometer')?.sem).toBe(3);
    expect(errorOf('goniometer', false)?.sem).toBe(5);
    expect(errorOf('tape')).toBeUndefined();
  });
});

describe('trial consistency', () => {
  // Worked checks of the spinal inclinometry rule, AMA Guides 4th/5th ed. (from memory)
  it('finds the first three in a row that agree', () => {
    expect(consistent([42, 55, 47])).toBeFalse();
    expect(consistent([42, 55, 47, 46])).toBeFalse();
    expect(consistent([42, 55, 47, 46, 48])).toBeTrue();
  });

  it('allows 10 % of the mean above 50', () => {
    expect(consistent([80, 90, 86])).toBeTrue();
    expect(consistent([70, 90, 86])).toBeFalse();
  });

  it('says nothing about one trial and holds two to the same tolerance', () => {
    expect(consistent([31])).toBeNull();
    expect(consistent([18, 20])).toBeTrue();
    expect(consistent([18, 30])).toBeFalse();
  });

  it('allows exactly 5° at a mean of 50', () => {
    expect(consistent([45, 55, 50])).toBeTrue();
    expect(consistent([44, 56, 50])).toBeFalse();
  });
});
