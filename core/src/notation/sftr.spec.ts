import fc from 'fast-check';
import type { Arc } from '../angle/arc.js';
import { PLANES } from './planes.js';
import { formatSftr, parseSftr, readSftr, SftrError } from './sftr.js';

const degrees = fc.integer({ min: 0, max: 360 });
/** Every arc the core can hold: zero inside it, short of zero on either side, or fixed. */
const anyArc: fc.Arbitrary<Arc> = fc.oneof(
  fc.record({ kind: fc.constant('moving' as const), first: degrees, last: degrees }),
  fc
    .tuple(fc.integer({ min: 1, max: 360 }), degrees, fc.boolean())
    .filter(([start, end]) => end >= start)
    .map(([start, end, onLast]) =>
      onLast ? { kind: 'moving' as const, first: -start, last: end } : { kind: 'moving' as const, first: end, last: -start },
    ),
  fc.record({ kind: fc.constant('fixed' as const), at: fc.integer({ min: -360, max: 360 }) }),
);
const anyRecord = fc.record({
  plane: fc.constantFrom(...PLANES),
  position: fc.option(fc.constantFrom('F90', 'S90', 'S0', 'F0')),
  arc: anyArc,
});

describe('SFTR notation', () => {
  it('reads back what it writes, for every arc', () => {
    fc.assert(
      fc.property(anyRecord, (record) => {
        expect(parseSftr(formatSftr(record))).toEqual(record);
      }),
    );
  });

  // Gerhardt & Russe 1975; Gerhardt, Cocchiarella & Lea 2002 (examples from memory)
  const EXAMPLES = [
    ['elbow', 'S 0-0-150', { 'elbow.extension': 0, 'elbow.flexion': 150 }, 150],
    ['elbow', 'S 10-0-145', { 'elbow.extension': 10, 'elbow.flexion': 145 }, 155],
    ['elbow', 'S 0-20-120', { 'elbow.extension': -20, 'elbow.flexion': 120 }, 100],
    ['knee', 'S 0-15-110', { 'knee.extension': -15, 'knee.flexion': 110 }, 95],
    ['knee', 'S 20-5-0', { 'knee.extension': 20, 'knee.flexion': -5 }, 15],
    ['ankle', 'S 0-10-40', { 'ankle.dorsiflexion': -10, 'ankle.plantarflexion': 40 }, 30],
    ['hip', 'S 0-20-100', { 'hip.extension': -20, 'hip.flexion': 100 }, 80],
    ['shoulder', 'F 90-0-0', { 'shoulder.abduction': 90, 'shoulder.adduction': 0 }, 90],
    ['hip', 'R(S90) 30-0-10', { 'hip.externalRotation': 30, 'hip.internalRotation': 10 }, 40],
    ['hip', 'R(S90) 40-15-0', { 'hip.externalRotation': 40, 'hip.internalRotation': -15 }, 25],
    ['cervical', 'F 40-0-35', { 'cervical.lateralFlexion': { left: 40, right: 35 } }, 75],
  ] as const;
  for (const [joint, text, motions, arc] of EXAMPLES) {
    it(`reads ${joint} ${text}`, () => {
      const reading = readSftr(text, joint);
      expect(reading.motions).toEqual(motions);
      expect(reading.arc).toBe(arc);
    });
  }

  it('reads a joint that is fixed', () => {
    expect(readSftr('S:0-35', 'elbow')).toEqual({
      joint: 'elbow',
      plane: 'S',
      position: null,
      fixedAt: { 'elbow.flexion': 35 },
      arc: 0,
      canonical: 'S:0-35',
    });
    expect(readSftr('S:15-0', 'elbow').fixedAt).toEqual({ 'elbow.extension': 15 });
    expect(readSftr('R:0-10', 'cervical').fixedAt).toEqual({ 'cervical.rotation': { right: 10 } });
  });

  it('gives the total arc of the knee example: 135 flexion lacking 15 of straight is 120', () => {
    expect(readSftr('S:0-15-135', 'knee').arc).toBe(120);
  });

  it('reads leniently and writes canonically', () => {
    expect(readSftr(' s : 0° – 15 – 120° ', 'knee').canonical).toBe('S:0-15-120');
    expect(readSftr('r(f90) 45−0−40', 'shoulder').canonical).toBe('R(F90):45-0-40');
  });

  const REFUSED = [
    ['', 'plane'],
    ['X:1-0-2', 'plane'],
    ['S:15-5-120', 'middle number 5'],
    ['S:0-30-20', 'third number 20'],
    ['S:20-30-0', 'first number 20'],
    ['S:5-10', 'fixed'],
    ['S:5', '1 number'],
    ['S:1-2-3-4', '4 numbers'],
    ['S:a-0-3', 'first number "A"'],
    ['S:10-0-', 'third number ""'],
    ['S:10-0-999', '999'],
    ['S:-5-0-120', 'first number ""'],
  ] as const;
  for (const [text, words] of REFUSED) {
    it(`refuses "${text}" and says why`, () => {
      expect(() => parseSftr(text)).toThrowMatching((e) => e instanceof SftrError && e.message.includes(words));
    });
  }

  it('refuses a plane the joint does not have', () => {
    expect(() => readSftr('F:10-0-20', 'knee')).toThrowError(/allowed: S/);
  });

  it('refuses to write an arc that ends before it starts, or a broken degree', () => {
    const write = (first: number, last: number) => () => formatSftr({ plane: 'S', position: null, arc: { kind: 'moving', first, last } });
    expect(write(-30, 20)).toThrowError(/ends before/);
    expect(write(0.5, 20)).toThrowError(/whole degrees/);
  });
});
