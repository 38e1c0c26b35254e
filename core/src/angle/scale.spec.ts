import * as fc from 'fast-check';
import { ASSUMED_HAND, handsToCm, handWords } from './hands.js';
import { DEVICE_SCALES, isOnScale, movedBetween, showOn, unfoldQuadrant } from './scale.js';

const LIMITS = { min: -60, max: 190 };

describe('device scales', () => {
  it('show any tilt as a figure that is on the scale', () => {
    fc.assert(
      fc.property(fc.integer({ min: -720, max: 720 }), fc.constantFrom(...DEVICE_SCALES), (tilt, scale) => {
        expect(isOnScale(showOn(tilt, scale), scale)).toBeTrue();
      }),
    );
  });

  it('give back the excursion whatever the zero, the scale and the way the device counts', () => {
    const excursions = fc.integer({ min: 0, max: 85 });
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 359 }),
        excursions,
        fc.constantFrom(1, -1),
        fc.constantFrom('360', '180'),
        (zero, moved, sense, scale) => {
          const tilt = { zero: showOn(zero, scale), end: showOn(zero + sense * moved, scale) };
          expect(movedBetween(tilt, LIMITS)).toContain({ value: moved, sense: moved === 0 ? 1 : sense });
        },
      ),
    );
  });

  it('past a quarter turn back the other way is offered too, and one of the two is what was moved', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), fc.integer({ min: 91, max: 190 }), fc.constantFrom(1, -1), (zero, moved, sense) => {
        const ways = movedBetween({ zero, end: showOn(zero + sense * moved, '360') }, LIMITS);
        expect(ways.map((way) => way.value)).toContain(moved);
      }),
    );
  });

  it('350 to 20 is 30, as is 10 to 340 on a device that counts down', () => {
    expect(movedBetween({ zero: 350, end: 20 }, { min: 0, max: 190 })).toEqual([{ value: 30, sense: 1 }]);
    expect(movedBetween({ zero: 10, end: 340 }, { min: 0, max: 190 })).toEqual([{ value: 30, sense: -1 }]);
    expect(movedBetween({ zero: 0, end: 100 }, { min: 0, max: 60 })).toEqual([]);
  });

  it('says both ways where the motion can hold both: 0 to 335 at a knee is 25 past straight or 25 short of it', () => {
    expect(movedBetween({ zero: 0, end: 335 }, { min: -120, max: 30 })).toEqual([
      { value: -25, sense: 1 },
      { value: 25, sense: -1 },
    ]);
    expect(movedBetween({ zero: 20, end: 20 }, { min: -120, max: 30 }))
      .withContext('no way at all is one way')
      .toEqual([{ value: 0, sense: 1 }]);
  });

  it('a 0–90 device goes on counting round its corners', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 359 }), (tilt) => {
        expect(unfoldQuadrant(showOn(tilt, 'quadrant'), Math.floor(tilt / 90))).toBe(tilt);
      }),
    );
    expect(unfoldQuadrant(30, 1)).toBe(150);
    expect(unfoldQuadrant(30, 2)).toBe(210);
  });
});

describe('hands', () => {
  it('gauge in fists and fingers', () => {
    expect(handsToCm(1, 2, ASSUMED_HAND)).toBe(12.3);
    expect(handsToCm(0, 3, { fist: 9, finger: 2 })).toBe(6);
    expect(handWords(1, 2)).toBe('1 fist 2 fingers');
    expect(handWords(0, 0)).toBe('no gap');
  });
});
