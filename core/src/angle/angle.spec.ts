import fc from 'fast-check';
import { motion } from '../catalogue/index.js';
import { dualExcursion, excursion } from './excursion.js';
import { describeEnd, formatNumber, formatSigned } from '../words/figures.js';
import { wrap180, wrap360 } from './wrap.js';

const anyAngle = fc.double({ min: -2000, max: 2000, noNaN: true });

describe('wrap', () => {
  it('keeps the direction and stays in its scale', () => {
    fc.assert(
      fc.property(anyAngle, (angle) => {
        const up = wrap360(angle);
        const half = wrap180(angle);
        expect(up >= 0 && up < 360).toBeTrue();
        expect(half > -180 && half <= 180).toBeTrue();
        expect(Math.cos(((up - angle) * Math.PI) / 180)).toBeCloseTo(1, 9);
        expect(Math.cos(((half - angle) * Math.PI) / 180)).toBeCloseTo(1, 9);
      }),
    );
  });

  it('never gives minus zero', () => {
    expect(Object.is(wrap360(-360), 0)).toBeTrue();
    expect(Object.is(wrap180(720), 0)).toBeTrue();
  });
});

describe('excursion', () => {
  it('goes over the top of the scale along the path moved', () => {
    expect(excursion({ zero: 350, end: 20 })).toBe(30);
    expect(excursion({ zero: 10, end: 340 }, -1)).toBe(30);
    expect(excursion({ zero: -170, end: 175 }, -1)).toBe(15);
  });

  it('reads more than half a turn, as shoulder flexion can be', () => {
    expect(excursion({ zero: 0, end: 185 })).toBe(185);
    expect(excursion({ zero: 0, end: -170 })).toBe(190);
  });

  it('is negative when the limb moved the wrong way', () => {
    expect(excursion({ zero: 20, end: 8 })).toBe(-12);
  });

  it('is the same on every scale a device may use, and whichever way it counts', () => {
    fc.assert(
      fc.property(fc.integer({ min: -359, max: 359 }), fc.integer({ min: -89, max: 269 }), (zero, moved) => {
        expect(excursion({ zero: wrap360(zero), end: wrap360(zero + moved) })).toBe(moved);
        expect(excursion({ zero: wrap180(zero), end: wrap180(zero + moved) })).toBe(moved);
        expect(excursion({ zero: wrap360(zero), end: wrap360(zero - moved) }, -1)).toBe(moved);
      }),
    );
  });
});

describe('dual excursion', () => {
  const from0 = (end: number) => ({ zero: 0, end });

  it('agrees with check values of the trade (common practice, no source)', () => {
    expect(dualExcursion(from0(96), from0(41)))
      .withContext('lumbar flexion')
      .toBe(55);
    expect(dualExcursion(from0(117), from0(107)))
      .withContext('thoracic flexion')
      .toBe(10);
    expect(dualExcursion(from0(20), from0(20)))
      .withContext('lumbar extension')
      .toBe(0);
    expect(dualExcursion(from0(39), from0(21)))
      .withContext('thoracic extension')
      .toBe(18);
  });

  it('agrees with the worked example of the two-inclinometer method (AMA Guides, from memory)', () => {
    expect(dualExcursion(from0(95), from0(40))).toBe(55);
    expect(dualExcursion(from0(30), from0(10))).toBe(20);
  });

  it('keeps a negative remainder: it is suspect, not zero', () => {
    expect(dualExcursion(from0(18), from0(25))).toBe(-7);
  });
});

describe('end positions in words', () => {
  it('never prints a bare signed extension', () => {
    expect(describeEnd(motion('hip.extension'), -20)).toBe('lacks 20° of straight');
    expect(describeEnd({ zeroIs: 'straight', pastZeroIsHyper: true }, 5)).toBe('5° past straight');
    expect(describeEnd({ zeroIs: 'straight', pastZeroIsHyper: true }, 0)).toBe('0°');
    expect(describeEnd(motion('hip.abduction'), -4.26)).toBe('lacks 4.3° of neutral');
  });

  it('writes at most one decimal and a true minus sign', () => {
    expect(formatNumber(31)).toBe('31');
    expect(formatNumber(-0.04)).toBe('0');
    expect(formatSigned(-12)).toBe('−12');
    expect(formatSigned(0.02)).toBe('0');
    expect(formatSigned(4.25)).toBe('+4.3');
  });
});
