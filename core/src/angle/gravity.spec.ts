import fc from 'fast-check';
import { planeVerdict, readTilt, TiltError, tiltOf, type Gravity, type GravitySample } from './gravity.js';

const rad = (degrees: number) => (degrees * Math.PI) / 180;
/** What is felt at a tilt, so far out of plane; a device of any scale. */
const felt = (tilt: number, out = 0, scale = 9.81): Gravity => [
  scale * Math.cos(rad(out)) * Math.cos(rad(tilt)),
  scale * Math.cos(rad(out)) * Math.sin(rad(tilt)),
  scale * Math.sin(rad(out)),
];
/** Held, moved over, held again: ten samples a second. */
function movement(from: number, to: number, { out = 0, held = 1.5, took = 2, back = false, scale = 9.81 } = {}): GravitySample[] {
  const at = (t: number): number => {
    if (t < held) return from;
    if (t < held + took) return from + ((to - from) * (t - held)) / took;
    return back && t >= 2 * held + took ? from : to;
  };
  const length = Math.round((held * (back ? 3 : 2) + took) * 10);
  return Array.from({ length: length + 1 }, (_, n) => ({ t: n / 10, g: felt(at(n / 10), out, scale) }));
}
const degree = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('gravity', () => {
  it('tells the tilt in the plane and how far out of it a device is held, in any unit', () => {
    fc.assert(
      fc.property(degree(-179.9, 180), degree(-89, 89), degree(0.01, 2000), (tilt, out, scale) => {
        const seen = tiltOf(felt(tilt, out, scale));
        return Math.abs(seen.tilt - tilt) < 1e-6 && Math.abs(seen.outOfPlane - Math.abs(out)) < 1e-6;
      }),
    );
    expect(tiltOf([0, 0, 5]).outOfPlane).toBe(90);
    expect(tiltOf([0, 0, 0]).tilt).toBeNaN();
  });

  it('warns from 10° out of plane and refuses from 30°', () => {
    expect([0, 9.99, 10, 29.99, 30, 90].map(planeVerdict)).toEqual(['good', 'good', 'warn', 'warn', 'refused', 'refused']);
  });
});

describe('a movement read by gravity', () => {
  it('runs from where it was held first to where it was held last, over the jump of the scale', () => {
    // 350 to 20 is 30.
    const { zero, end, excursion, peak, verdict, holds } = readTilt(movement(-10, 20));
    expect([zero, end, excursion, peak].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([-10, 20, 30, 30]);
    expect(verdict).toBe('good');
    expect(holds.map(({ t, degrees }) => [t, Math.round(degrees)])).toEqual([
      [1, 0],
      [4.5, 30],
    ]);
    expect(readTilt(movement(170, -178 + 360)).excursion).toBeCloseTo(12, 6);
    // A slow way there is no part of what was held, while it was held for longer.
    expect(readTilt(movement(0, 4)).excursion).toBeCloseTo(4, 6);
  });

  it('is as large as it was made, whichever way it went, from anywhere, past half a turn, in any unit', () => {
    fc.assert(
      fc.property(
        degree(-180, 180),
        degree(20, 240),
        fc.constantFrom(1, -1),
        degree(0, 9),
        degree(0.1, 100),
        (from, by, way, out, scale) => {
          const reading = readTilt(movement(from, from + by * way, { out, scale, took: 4 }));
          return Math.abs(reading.excursion - by) < 1e-6 && Math.abs(reading.peak - by) < 1e-6 && Math.abs(reading.outOfPlane - out) < 1e-6;
        },
      ),
    );
  });

  it('that comes back ends where it was held furthest; that is never held, at its furthest', () => {
    expect(readTilt(movement(0, 80, { back: true })).excursion).toBeCloseTo(80, 6);
    const swing = Array.from({ length: 41 }, (_, n) => ({ t: n / 20, g: felt(60 * Math.sin((Math.PI * n) / 40)) }));
    const { excursion, peak, holds } = readTilt(swing);
    expect([Math.round(excursion), Math.round(peak), holds]).toEqual([60, 60, []]);
  });

  it('keeps the peak apart from what was held', () => {
    const samples = [...movement(0, 90), ...[95, 99, 95, 90, 90].map((tilt, n) => ({ t: 5.1 + n / 10, g: felt(tilt) }))];
    const { excursion, peak } = readTilt(samples);
    expect([Math.round(excursion), Math.round(peak)]).toEqual([90, 95]);
  });

  it('loses no hold to tremor within a degree, and is not led astray by one spike', () => {
    const shaken = movement(0, 70).map(({ t }, n) => ({
      t,
      g: felt((t < 1.5 ? 0 : t < 3.5 ? (70 * (t - 1.5)) / 2 : 70) + (n % 2 ? 0.4 : -0.4)),
    }));
    expect(readTilt(shaken).excursion).toBeCloseTo(70, 0);
    const spiked = movement(0, 70).map((sample, n) => (n === 40 ? { ...sample, g: felt(-120) } : sample));
    expect(readTilt(spiked).peak).toBeCloseTo(70, 6);
  });

  it('out of plane between zero and end is told and judged; before the zero it is nobody’s', () => {
    expect(readTilt(movement(0, 60, { out: 12 })).verdict).toBe('warn');
    expect(readTilt(movement(0, 60, { out: 31 })).verdict).toBe('refused');
    const picked = movement(0, 60).map(({ t, g }) => ({ t: t + 1, g }));
    const turning = Array.from({ length: 10 }, (_, n) => ({ t: n / 10, g: felt(40 - 4 * n, 60) }));
    expect(readTilt([...turning, ...picked]).verdict).toBe('good');
  });

  it('takes what counts as still as it is told', () => {
    const short = movement(0, 50, { held: 0.6 });
    expect(readTilt(short).holds).toEqual([]);
    expect(readTilt(short, { seconds: 0.5, within: 1 }).holds.length).toBe(2);
  });

  it('of a stream that cannot be one says which sample, and what is allowed', () => {
    const wrong = (samples: GravitySample[]) => {
      try {
        readTilt(samples);
        return null;
      } catch (error) {
        return error instanceof TiltError ? [error.at, error.field, error.message] : error;
      }
    };
    const good = { t: 0, g: felt(0) };
    expect(wrong([good])).toEqual([null, 'samples', '1 is too few; allowed: 2 or more']);
    expect(wrong([good, { ...good, t: 0 }])).toEqual([1, 't', '0 is not after 0; allowed: times that rise']);
    expect(wrong([good, { t: NaN, g: felt(0) }])).toEqual([1, 't', 'is no number; allowed: seconds']);
    expect(wrong([good, { t: 1, g: [0, 0, 0] }])).toEqual([1, 'g', 'feels no gravity; allowed: three numbers that are not all 0']);
    expect(wrong([good, { t: 1, g: [0, NaN, 1] }])).toEqual([1, 'g', 'holds what is no number; allowed: three numbers']);
  });
});
