import fc from 'fast-check';
import { tiltOf } from '../angle/gravity.js';
import { faceOf, feltAt, reachAt, sampleOf, trueTilt, type SimulatedDevice, type Simulation } from './inclinometer.js';

const DEVICE: SimulatedDevice = { name: '1', from: 0, to: 100, scale: null, rounding: 1, noise: 0, drift: 0, placement: 0, turned: 0 };
const simulation = (over: Partial<Simulation> = {}, ...devices: Partial<SimulatedDevice>[]): Simulation => ({
  seed: 7,
  rate: 50,
  speed: 50,
  tremor: 0,
  devices: (devices.length ? devices : [{}]).map((device) => ({ ...DEVICE, ...device })),
  moves: [],
  ...over,
});
const degree = (min: number, max: number) => fc.double({ min, max, noNaN: true });

describe('a simulated joint', () => {
  it('moves with one speed to where it is asked to go, from wherever it is', () => {
    const moved = simulation({
      moves: [
        { at: 1, to: 1 },
        { at: 2, to: 0 },
      ],
    });
    expect([0, 1, 1.5, 2, 2.5, 3, 9].map((t) => reachAt(moved, t))).toEqual([0, 0, 0.25, 0.5, 0.25, 0, 0]);
    expect(reachAt(simulation({ moves: [{ at: 0, to: 1 }] }, { to: 0 }), 0.1)).toBe(1);
  });

  it('stays between rest and its range, and never moves faster than it may', () => {
    const moves = fc.array(fc.record({ at: degree(0, 10), to: degree(0, 1) }), { maxLength: 6 });
    fc.assert(
      fc.property(moves, degree(0, 12), degree(0.01, 1), (asked, t, later) => {
        const one = simulation({ moves: asked });
        const [before, after] = [reachAt(one, t), reachAt(one, t + later)];
        return before >= 0 && before <= 1 && Math.abs(after - before) <= later * 0.5 + 1e-9;
      }),
    );
  });
});

describe('a simulated inclinometer', () => {
  it('feels the true tilt when nothing is wrong with it, and the same again by its seed', () => {
    const one = simulation({ moves: [{ at: 0, to: 1 }] });
    for (const n of [0, 20, 60, 200]) expect(tiltOf(sampleOf(one, 0, n).g).tilt).toBeCloseTo(trueTilt(one, one.devices[0]!, n / 50), 9);
    const noisy = simulation({ moves: [{ at: 0, to: 1 }], tremor: 0.4 }, { noise: 0.5, drift: 2 });
    expect(sampleOf(noisy, 0, 77)).toEqual(sampleOf(noisy, 0, 77));
    expect(sampleOf(noisy, 0, 77)).not.toEqual(sampleOf({ ...noisy, seed: 8 }, 0, 77));
  });

  it('has the spread, the drift and the offset it was given', () => {
    const noisy = simulation({}, { noise: 0.5, placement: 3, drift: 6 });
    const tilts = Array.from({ length: 3000 }, (_, n) => tiltOf(sampleOf(noisy, 0, n).g).tilt - 3 - (6 * n) / 50 / 60);
    const mean = tilts.reduce((sum, tilt) => sum + tilt, 0) / tilts.length;
    const spread = Math.sqrt(tilts.reduce((sum, tilt) => sum + (tilt - mean) ** 2, 0) / tilts.length);
    expect(Math.abs(mean)).toBeLessThan(0.05);
    expect(Math.abs(spread - 0.5)).toBeLessThan(0.03);
  });

  it('shows less of the way the further it is turned out of plane, and says how far that is', () => {
    const seen = tiltOf(feltAt(45, 40));
    expect(seen.tilt).toBeLessThan(45);
    // By hand: tan of the tilt seen is cos 40° of tan 45°; the sine out of plane is sin 45° by sin 40°.
    expect(seen.tilt).toBeCloseTo((Math.atan(Math.cos((40 * Math.PI) / 180)) * 180) / Math.PI, 9);
    expect(seen.outOfPlane).toBeCloseTo(27.034, 3);
    fc.assert(fc.property(degree(1, 89), degree(1, 80), (tilt, turned) => Math.abs(tiltOf(feltAt(tilt, turned)).tilt) < tilt));
  });

  it('counts on its face as its scale does, in its steps', () => {
    const face = (scale: SimulatedDevice['scale'], tilt: number, zero = 0, rounding: 0.1 | 0.5 | 1 = 1) =>
      faceOf({ scale, rounding }, tilt, zero);
    expect([face('360', -10.2), face('360', -0.2), face('180', -10.2), face('quadrant', 100.4)]).toEqual([350, 0, -10, 80]);
    expect([face(null, 45.26, 10), face(null, 45.26, 10, 0.5), face(null, 45.26, 10, 0.1)]).toEqual([35, 35.5, 35.3]);
    expect(face(null, -0.2)).toBe(0);
  });
});
