import fc from 'fast-check';
import { follow, gravityOf, liveTilt, NOTHING_FELT, setZero, type Following } from './follow.js';
import { tiltOf, type Gravity } from './gravity.js';
import { wrap180 } from './wrap.js';

const rad = (degrees: number) => (degrees * Math.PI) / 180;
const felt = (tilt: number, out = 0): Gravity => [
  Math.cos(rad(out)) * Math.cos(rad(tilt)),
  Math.cos(rad(out)) * Math.sin(rad(tilt)),
  Math.sin(rad(out)),
];
const degree = (min: number, max: number) => fc.double({ min, max, noNaN: true });
/** Fifty samples a second, from the moment after the last. */
function feed(state: Following, seconds: number, tilt: (t: number) => number, out = 0): Following {
  const from = state.recent.at(-1)?.t ?? -0.02;
  return Array.from({ length: Math.round(seconds * 50) }, (_, n) => (n + 1) / 50).reduce(
    (before, t) => follow(before, { t: from + t, g: felt(tilt(t), out) }),
    state,
  );
}
const held = (state: Following, seconds: number, tilt: number, out = 0) => feed(state, seconds, () => tilt, out);

describe('a live stream of gravity', () => {
  it('shows nothing before anything was felt, and no angle before zero is set', () => {
    expect(liveTilt(NOTHING_FELT)).toBeNull();
    expect(setZero(NOTHING_FELT)).toBe(NOTHING_FELT);
    const shown = liveTilt(held(NOTHING_FELT, 1, 20))!;
    expect([shown.degrees, shown.held, shown.peak]).toEqual([null, null, null]);
    expect(shown.still).toBeCloseTo(0.98, 6);
  });

  it('counts from zero the way it went, from anywhere, over the jump of the scale and past half a turn', () => {
    fc.assert(
      fc.property(degree(-180, 180), degree(5, 240), fc.constantFrom(1, -1), (from, range, way) => {
        const zeroed = setZero(held(NOTHING_FELT, 0.5, from));
        const moved = held(
          feed(zeroed, 2, (t) => from + (way * range * t) / 2),
          0.5,
          from + way * range,
        );
        const shown = liveTilt(moved)!;
        return Math.abs(shown.held! - range) < 1e-6 && shown.way === way && Math.abs(shown.peak! - range) < 1e-6;
      }),
    );
  });

  it('counts the other way where somebody says so: what was gone is then a lack', () => {
    const moved = held(setZero(held(NOTHING_FELT, 0.5, 0)), 1, 20);
    expect(liveTilt(moved, 1)!.held).toBeCloseTo(20, 9);
    expect(liveTilt(moved, -1)!.held).toBeCloseTo(-20, 9);
    expect(liveTilt(moved, -1)!.peak).toBeCloseTo(-20, 9);
  });

  it('sets zero at the nearest level or plumb, wherever the device is', () => {
    const at = (tilt: number, zero: 'level' | 'plumb') => liveTilt(setZero(held(NOTHING_FELT, 1, tilt), zero), 1)!.held!;
    expect([at(80, 'level'), at(-100, 'level'), at(10, 'plumb'), at(170, 'plumb')].map(Math.round)).toEqual([-10, -10, 10, -10]);
    // It stands away from zero already: that is the way it went.
    expect(liveTilt(setZero(held(NOTHING_FELT, 1, 80), 'level'))!.held).toBeCloseTo(10, 9);
  });

  it('holds the middle of the last quarter second while it is still, and does not lag while it moves', () => {
    const zeroed = setZero(held(NOTHING_FELT, 1, 0));
    let n = 0;
    const trembling = feed(zeroed, 1, () => 60 + (n++ % 2 ? 0.4 : -0.4));
    expect(Math.abs(liveTilt(trembling)!.held! - 60)).toBeLessThan(0.41);
    // 100 degrees a second: one sample of fifty is two degrees.
    const moving = liveTilt(feed(zeroed, 0.5, (t) => 100 * t))!;
    expect(50 - moving.held!).toBeLessThanOrEqual(2.000001);
    expect(50 - moving.degrees!).toBeLessThanOrEqual(2.000001);
    expect(moving.still).toBeLessThan(0.03);
  });

  it('takes a spike for none', () => {
    const still = held(setZero(held(NOTHING_FELT, 1, 0)), 1, 30);
    const spiked = follow(still, { t: still.recent.at(-1)!.t + 0.02, g: felt(75) });
    expect(liveTilt(spiked)!.degrees).toBeCloseTo(30, 9);
    expect(liveTilt(spiked)!.peak).toBeCloseTo(30, 9);
  });

  it('keeps the furthest while it comes back', () => {
    const there = feed(setZero(held(NOTHING_FELT, 1, 0)), 1, (t) => 90 * t);
    const back = liveTilt(held(there, 1, 10))!;
    expect([Math.round(back.peak!), Math.round(back.held!)]).toEqual([88, 10]);
    expect(back.peak!).toBeGreaterThan(87.9);
  });

  it('judges the plane at zero and now, and loses the way where it cannot be told', () => {
    const verdict = (atZero: number, now: number) => liveTilt(held(setZero(held(NOTHING_FELT, 1, 0, atZero)), 1, 40, now))!.verdict;
    expect([verdict(0, 0), verdict(0, 12), verdict(12, 0), verdict(0, 31), verdict(31, 0)]).toEqual([
      'good',
      'warn',
      'warn',
      'refused',
      'refused',
    ]);
    const turned = held(held(setZero(held(NOTHING_FELT, 1, 0)), 0.1, 0, 85), 1, 30);
    expect(liveTilt(turned)!.lost).toBeTrue();
    expect(liveTilt(setZero(turned))!.lost).toBeFalse();
  });

  it('leaves out what is no sample or not after the last', () => {
    const one = held(NOTHING_FELT, 1, 5);
    expect(follow(one, { t: 0.5, g: felt(90) })).toBe(one);
    expect(follow(one, { t: 9, g: [0, 0, 0] })).toBe(one);
    expect(follow(one, { t: NaN, g: felt(5) })).toBe(one);
  });

  it('keeps a few seconds only, however long it runs', () => {
    expect(held(NOTHING_FELT, 60, 5).recent.length).toBeLessThan(210);
  });
});

describe('gravity of a phone', () => {
  /** By multiplying the matrices of the three turns, written out from their axes. */
  function byMatrices(alpha: number, beta: number, gamma: number): Gravity {
    const turn = (axis: number, angle: number): number[][] => {
      const [c, s] = [Math.cos(rad(angle)), Math.sin(rad(angle))];
      const [i, j] = [(axis + 1) % 3, (axis + 2) % 3];
      const m = [0, 1, 2].map((row) => [0, 1, 2].map((column) => Number(row === column)));
      m[i]![i] = c;
      m[i]![j] = -s;
      m[j]![i] = s;
      m[j]![j] = c;
      return m;
    };
    const times = (a: number[][], b: number[][]) => a.map((row) => [0, 1, 2].map((c) => row.reduce((sum, x, k) => sum + x * b[k]![c]!, 0)));
    const toWorld = times(times(turn(2, alpha), turn(0, beta)), turn(1, gamma));
    // Down in the world, as the phone's own axes see it.
    return [0, 1, 2].map((axis) => -toWorld[2]![axis]!) as unknown as Gravity;
  }

  it('is what the turns about z, x and y come to, whatever the compass says', () => {
    fc.assert(
      fc.property(degree(0, 360), degree(-180, 180), degree(-90, 90), (alpha, beta, gamma) => {
        const [ours, theirs] = [gravityOf(beta, gamma), byMatrices(alpha, beta, gamma)];
        return ours.every((part, axis) => Math.abs(part - theirs[axis]!) < 1e-9);
      }),
    );
  });

  it('upright, a phone is in plane and tells how far it is tipped to its side', () => {
    expect(tiltOf(gravityOf(90, 0)).outOfPlane).toBeCloseTo(0, 9);
    // Screen to the ceiling: no plane at all.
    expect(tiltOf(gravityOf(0, 0)).outOfPlane).toBeCloseTo(90, 9);
    const tipped = (way: number) => tiltOf(gravityOf(way, 89.9999)).tilt;
    expect(Math.abs(wrap180(tipped(30) - tipped(0)))).toBeCloseTo(30, 3);
  });
});
