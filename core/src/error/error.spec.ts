import { consistent } from './consistency.js';
import { mdc90, mdc95, mdcOfDifference, semFromIcc, semOfMean } from './sem.js';
import { PUBLISHED_ERRORS } from './published.js';
import { errorSourceWords } from './source.js';
import { defaultError, errorOf, semOf, type ErrorQuery } from './table.js';
import { motion, MOTIONS } from '../catalogue/index.js';
import { INSTRUMENTS, type Instrument } from '../terms.js';
import type { ErrorContext, OwnError } from './own.js';

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
    expect(() => semFromIcc(5, -0.1)).toThrowError(/icc/);
    expect([semFromIcc(5, 0), semFromIcc(5, 1), semFromIcc(0, 0.5)]).toEqual([5, 0, 0]);
  });

  it('carries both errors of a subtracted reading', () => {
    expect(errorOf({ motion: 'lumbar.flexion', instrument: 'dualInclinometer' }).sem).toBeCloseTo(Math.sqrt(8), 12);
    expect(mdcOfDifference(3, 3)).toBeCloseTo(mdc95(3), 12);
  });

  it('shrinks only the trial-to-trial part of the error of a mean', () => {
    expect(semOfMean(3, 4, 9)).toBeCloseTo(Math.sqrt(17), 12);
    expect(semOfMean(3, 0, 4)).toBeCloseTo(1.5, 12);
    expect(() => semOfMean(3, 4, 0)).toThrowError(/k/);
  });

  it('falls back to a flagged default, larger between two examiners', () => {
    const hip = { motion: 'hip.internalRotation', instrument: 'goniometer' } as const;
    expect(errorOf(hip)).toEqual(jasmine.objectContaining({ sem: 3, isDefault: true }));
    expect(errorOf(hip, false).sem).toBe(5);
    expect(errorSourceWords(errorOf(hip).source)).toBe('default, goniometer, one examiner');
    for (const instrument of INSTRUMENTS) {
      const { sameExaminer, otherExaminer } = defaultError(instrument);
      expect(sameExaminer > 0 && otherExaminer >= sameExaminer)
        .withContext(instrument)
        .toBeTrue();
    }
  });

  it('prefers a published figure for the motion, instrument and examiner, and says whose', () => {
    // Printed MDC95 of 6 and 10 (Armstrong et al. 1998), SEM 0.6 (Konor et al. 2012), from memory
    const elbow = errorOf({ motion: 'elbow.flexion', instrument: 'goniometer' });
    expect(mdc95(elbow.sem)).toBeCloseTo(6, 9);
    expect(mdc95(errorOf({ motion: 'elbow.flexion', instrument: 'goniometer' }, false).sem)).toBeCloseTo(10, 9);
    expect(elbow).toEqual(jasmine.objectContaining({ isDefault: false, source: jasmine.objectContaining({ kind: 'published' }) as never }));
    expect(errorSourceWords(elbow.source)).toContain('Armstrong');
    expect(errorOf({ motion: 'distance.kneeToWall', instrument: 'tape' }).sem).toBe(0.6);
    const loaded = { motion: 'ankle.dorsiflexion', instrument: 'inclinometer' } as const;
    expect(errorOf({ ...loaded, protocol: 'ankle.dorsiflexion/standing-loaded' }).sem).toBe(1.4);
    expect(errorOf({ ...loaded, protocol: 'ankle.dorsiflexion/sitting' }).isDefault).toBeTrue();
  });

  it('shows the figure of a special sample without using it for everybody', () => {
    expect(errorOf({ motion: 'knee.flexion', instrument: 'goniometer' })).toEqual(jasmine.objectContaining({ sem: 3, isDefault: true }));
    const replaced = PUBLISHED_ERRORS.find((row) => row.motions.includes('knee.flexion') && !row.forEveryone)!;
    // Stratford et al. 2010 print SEM 4.1 and MDC90 9.6 of the same sample, from memory
    expect(Math.abs(mdc90(semOf(replaced)) - 9.6)).toBeLessThan(0.1);
  });

  it('grows with a force, and never comes to nothing for anything the table names', () => {
    const pull = (value: number) => errorOf({ motion: 'strength.kneeExtension', instrument: 'dynamometer', value }).sem;
    expect(pull(200)).toBeCloseTo(2 * pull(100), 9);
    for (const row of PUBLISHED_ERRORS) {
      expect(semOf(row)).toBeGreaterThan(0);
      for (const id of row.motions) {
        const { protocols } = motion(id);
        expect(protocols.some((p) => p.instruments.some((i) => row.instruments.includes(i)) && p.id.endsWith(row.protocol ?? '')))
          .withContext(`${row.cite} ${id}`)
          .toBeTrue();
      }
    }
  });
});

describe('what has to be larger', () => {
  const QUERIES = MOTIONS.flatMap(({ id, protocols }) =>
    protocols.flatMap((protocol) =>
      protocol.instruments.map((instrument) => ({ motion: id, protocol: protocol.id, instrument, value: 40 }) satisfies ErrorQuery),
    ),
  );
  const STEPS: readonly (readonly Instrument[])[] = [['goniometer', 'inclinometer', 'dualInclinometer', 'phone'], ['picture'], ['visual']];
  const own = (sem: number, examiners: 'same' | 'other', instrument: Instrument): OwnError => ({
    ...{ motion: 'knee.flexion', protocol: 'knee.flexion/supine', instrument, examiners, sem },
    ...{ subjects: 12, raters: 2, adoptedOn: '2026-11-03' },
  });
  const CONTEXTS: readonly ErrorContext[] = [
    {},
    { procedure: 'knee-replacement' },
    { own: [own(7, 'same', 'goniometer')] },
    { own: [own(4, 'same', 'goniometer'), own(3, 'other', 'goniometer')] },
    { own: [own(9, 'same', 'inclinometer')] },
  ];

  it('is larger between two examiners than with one, for every way of measuring, instrument, procedure and own study', () => {
    let raised = 0;
    for (const context of CONTEXTS)
      for (const query of QUERIES) {
        const [one, two] = [errorOf(query, true, context), errorOf(query, false, context)];
        expect(two.sem).withContext(`${query.protocol} ${query.instrument}`).toBeGreaterThanOrEqual(one.sem);
        if (two.source.kind === 'no-less') raised += 1;
      }
    expect(raised).toBeGreaterThan(0);
  });

  it('is larger with a coarser instrument than with a finer one that reads the same', () => {
    let compared = 0;
    for (const context of CONTEXTS.slice(0, 3))
      for (const same of [true, false])
        for (const query of QUERIES) {
          const step = STEPS.findIndex((all) => all.includes(query.instrument));
          const finer = STEPS.slice(0, Math.max(step, 0)).flat();
          for (const other of QUERIES.filter(({ protocol, instrument }) => protocol === query.protocol && finer.includes(instrument))) {
            compared += 1;
            expect(errorOf(query, same, context).sem)
              .withContext(`${query.protocol}: ${query.instrument} and ${other.instrument}`)
              .toBeGreaterThanOrEqual(errorOf(other, same, context).sem);
          }
          if (query.instrument === 'visual' && QUERIES.some((q) => q.protocol === query.protocol && q.instrument === 'tape'))
            expect(errorOf(query, same, context).sem)
              .withContext(`${query.protocol}: by eye and with a tape`)
              .toBeGreaterThanOrEqual(errorOf({ ...query, instrument: 'tape' }, same, context).sem);
        }
    expect(compared).toBeGreaterThan(500);
  });

  it('says what it was raised to: finger to floor by two examiners, a knee drop by eye', () => {
    const two = errorOf({ motion: 'distance.fingerToFloor', protocol: 'distance.fingerToFloor/standing', instrument: 'tape' }, false);
    expect(two.sem).toBeCloseTo(10 / (1.96 * Math.SQRT2), 3);
    expect(errorSourceWords(two.source)).toMatch(/^two examiners, no less than one alone: Perret/);
    const eye = errorOf({ motion: 'muscleLength.kneeDrop', protocol: 'muscleLength.kneeDrop/supine', instrument: 'visual' });
    expect([eye.sem, eye.isDefault]).toEqual([7, true]);
    expect(errorSourceWords(eye.source)).toMatch(/^no less than with a finer instrument: Peeler/);
  });

  it('lets the clinic’s own study of a coarser instrument stand', () => {
    const context = { own: [own(2.5, 'same', 'visual'), own(4, 'same', 'goniometer')] };
    const read = { motion: 'knee.flexion', protocol: 'knee.flexion/supine', instrument: 'visual' } as const;
    expect([errorOf(read, true, context).sem, errorOf(read, true, context).isOwn]).toEqual([2.5, true]);
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

  it('holds every unit to a tolerance of its own', () => {
    expect(consistent([8, 9.5, 8.4], 'cm')).toBeTrue();
    expect(consistent([8, 11, 8], 'cm')).toBeFalse();
    expect(consistent([200, 218, 210], 'N')).toBeTrue();
    expect(consistent([20, 40], 's')).toBeFalse();
  });
});

describe('an error of the clinic’s own', () => {
  it('goes before every published one, and says so', () => {
    const own = { protocol: 'knee.flexion/supine', examiners: 'same', sem: 1.2, subjects: 12, raters: 2, adoptedOn: '2026-11-01' } as const;
    const query = { motion: 'knee.flexion', instrument: 'goniometer', protocol: 'knee.flexion/supine' } as const;
    const found = errorOf(query, true, { own: [{ ...own, motion: 'knee.flexion', instrument: 'goniometer' }] });
    expect([found.sem, found.isOwn, found.isDefault]).toEqual([1.2, true, false]);
    expect(errorOf(query, true, { own: [] }).isOwn).toBeFalse();
  });
});
