import fc from 'fast-check';
import { motion } from '../catalogue/index.js';
import { ENTRY_UNITS, entryUnitsFor, toKept } from './units.js';
import { describeEnd, endFigure, formatSize, rounded } from '../words/figures.js';

describe('units of entry', () => {
  // Definitions: inch 2.54 cm; pound-force 4.448 221 615 260 5 N; kilogram-force 9.806 65 N (NIST SP 811, from memory)
  it('agree with their definitions', () => {
    expect(toKept(1, 'in')).toBe(2.54);
    expect(toKept(100, 'lb')).toBeCloseTo(444.82216152605, 9);
    expect(toKept(10, 'kg')).toBeCloseTo(98.0665, 9);
    // A kilogram-force is 2.204 622 621 8 pounds-force
    expect(toKept(1, 'kg') / toKept(1, 'lb')).toBeCloseTo(2.2046226218, 9);
  });

  it('lead from every unit of entry to exactly one that is kept', () => {
    const kept = (['deg', 'cm', 'N', 's'] as const).flatMap((unit) => entryUnitsFor(unit));
    expect([...kept].sort()).toEqual([...ENTRY_UNITS].sort());
  });

  it('keep the order of readings', () => {
    // As fine as any instrument reads: two that lie closer are one.
    const reading = fc.integer({ min: 0, max: 90_000 }).map((hundredths) => hundredths / 100);
    fc.assert(
      fc.property(reading, reading, fc.constantFrom(...ENTRY_UNITS), (a, b, unit) => {
        expect(Math.sign(toKept(a, unit) - toKept(b, unit))).toBe(Math.sign(a - b));
      }),
    );
  });
});

describe('values in words, whatever the unit', () => {
  it('name both sides of zero where they mean something', () => {
    const floor = motion('distance.fingerToFloor');
    expect([12, 0, -3].map((v) => describeEnd(floor, v))).toEqual(['12 cm above the floor', '0 cm', '3 cm past the floor']);
    const reach = motion('distance.handsBehindBack');
    expect([4, -7.5].map((v) => endFigure(v, reach))).toEqual(['overlap 4', 'gap 7.5']);
    const drop = motion('muscleLength.hipExtensionDrop');
    expect([8, -5].map((v) => describeEnd(drop, v))).toEqual(['8° below level', 'lacks 5° of level']);
    expect(describeEnd(motion('muscleLength.activeKneeExtension'), 30)).toBe('30° short of straight');
  });

  it('never begin with a sign, for any motion and any value it can hold', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('knee.extension', 'distance.fingerToFloor', 'distance.handsBehindBack', 'muscleLength.hipDropAbduction'),
        fc.double({ min: -60, max: 60, noNaN: true }),
        (id, value) => {
          const about = motion(id as 'knee.extension');
          for (const text of [describeEnd(about, value), endFigure(value, about)]) expect(text).not.toMatch(/[-−]\d/);
        },
      ),
    );
  });

  it('are as fine as the unit is read', () => {
    expect([rounded(19.46, 'deg'), rounded(209.07, 'N'), rounded(7.54, 'cm'), rounded(12.34, 's')]).toEqual([19, 209, 7.5, 12.3]);
    expect([formatSize(19.46), formatSize(209.07, 'N'), formatSize(7, 'cm')]).toEqual(['19°', '209 N', '7 cm']);
  });
});
