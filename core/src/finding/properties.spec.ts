import fc from 'fast-check';
import type { Assessment, Measurement } from '../assessment.js';
import { MOTIONS } from '../catalogue/index.js';
import { SEVERITIES } from '../terms.js';
import { assess, DEFAULT_THRESHOLDS, saidOf } from './index.js';
import { rank } from './rank.js';
import { weigh } from './severity.js';

const hipMotions = MOTIONS.filter((m) => m.joint === 'hip');
const measurement: fc.Arbitrary<Measurement> = fc
  .record({
    motion: fc.constantFrom(...hipMotions),
    side: fc.constantFrom('left' as const, 'right' as const),
    mode: fc.constantFrom('active' as const, 'passive' as const),
    protocol: fc.nat(1),
    instrument: fc.constantFrom('goniometer' as const, 'inclinometer' as const, 'visual' as const),
    ends: fc.array(fc.integer({ min: -40, max: 100 }), { minLength: 1, maxLength: 6 }),
    pain: fc.option(fc.integer({ min: 0, max: 10 }), { nil: undefined }),
  })
  .map(({ motion, side, mode, protocol, instrument, ends, pain }) => ({
    motion: motion.id,
    side,
    mode,
    instrument,
    pain,
    position: (motion.protocols[protocol] ?? motion.protocols[0]!).position,
    trials: ends.map((end) => ({ end })),
  }));
const keyOf = (m: Measurement) => [m.motion, m.side, m.mode, m.position].join();
const session = fc.uniqueArray(measurement, { selector: keyOf, minLength: 1, maxLength: 12 });
const exam: fc.Arbitrary<Assessment> = fc.record({
  person: fc.constantFrom(
    { birthDate: '1950-01-01', sex: 'female' as const },
    { birthDate: '2018-06-01', sex: 'male' as const },
    { birthDate: '1990-01-01', sex: 'unknown' as const },
  ),
  assessedOn: fc.constant('2026-11-20'),
  involvedSide: fc.constantFrom(undefined, 'left' as const, 'right' as const, 'both' as const),
  measurements: session,
  previous: fc.option(
    session.map((measurements) => ({ assessedOn: '2026-10-20', measurements })),
    { nil: undefined },
  ),
});
/** Fails the property itself, so that fast-check can look for the smallest case. */
const must = (holds: boolean, what: string): void => {
  if (!holds) throw new Error(what);
};

describe('what holds for every exam', () => {
  it('every finding has a reason, a number that exists, and a difference that adds up', () => {
    fc.assert(
      fc.property(exam, (assessment) => {
        for (const f of assess(assessment).findings) {
          must(
            saidOf(f).because.length > 0 && saidOf(f).because.every((line) => line.length > 0 && !/NaN|undefined|null|Infinity/.test(line)),
            `because of ${f.kind}`,
          );
          must(Number.isFinite(f.value), 'value');
          if (f.expected !== null) must(Math.abs(f.difference! - (f.value - f.expected)) < 1e-9, 'difference');
          must(!/NaN|undefined/.test(`${saidOf(f).subject}: ${saidOf(f).verdict}`), 'sentence');
        }
      }),
    );
  });

  it('left and right are treated alike: a mirrored exam has the mirrored findings', () => {
    const swap = { left: 'right', right: 'left', midline: 'midline', both: 'both' } as const;
    const mirror = (ms: readonly Measurement[]) => ms.map((m) => ({ ...m, side: swap[m.side] }));
    const short = (a: Assessment) =>
      assess(a)
        .findings.map((f) => `${f.kind} ${f.motion} ${f.side} ${f.mode} ${f.position} ${f.value} ${f.severity}`)
        .sort();
    fc.assert(
      fc.property(exam, (a) => {
        const { involvedSide, previous } = a;
        const mirrored: Assessment = {
          ...a,
          involvedSide: involvedSide && swap[involvedSide],
          measurements: mirror(a.measurements),
          previous: previous && { ...previous, measurements: mirror(previous.measurements) },
        };
        const back = short(mirrored)
          .map((line) => line.replace(/ (left|right) /, (_, side: 'left' | 'right') => ` ${swap[side]} `))
          .sort();
        must(JSON.stringify(back) === JSON.stringify(short(a)), 'mirror');
      }),
    );
  });

  it('the order in which readings were entered does not change what is found', () => {
    fc.assert(
      fc.property(exam, (a) => {
        const kinds = (x: Assessment) =>
          assess(x)
            .findings.map((f) => `${f.kind} ${f.motion} ${f.side} ${f.mode} ${f.position}`)
            .sort()
            .join();
        must(kinds(a) === kinds({ ...a, measurements: [...a.measurements].reverse() }), 'order');
      }),
    );
  });

  it('what got worse comes first, then pain', () => {
    fc.assert(
      fc.property(exam, (a) => {
        const kinds = assess(a).findings.map((f) => ['worse', 'painful'].indexOf(f.kind));
        const places = kinds.map((kind) => (kind < 0 ? 2 : kind));
        must(
          places.every((place, at) => at === 0 || places[at - 1]! <= place),
          'worse, pain, the rest',
        );
      }),
    );
  });

  it('losing more is never less severe', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 120 }), fc.integer({ min: 0, max: 120 }), (a, b) => {
        const severity = (value: number) =>
          SEVERITIES.indexOf(weigh({ value, expected: 120, better: 'more', mdc: 8.3 }, DEFAULT_THRESHOLDS).severity);
        must(a <= b ? severity(a) >= severity(b) : severity(a) <= severity(b), 'monotone');
      }),
    );
  });

  it('ranking keeps every finding', () => {
    fc.assert(
      fc.property(exam, (a) => {
        const { findings } = assess(a);
        must(rank([...findings].reverse()).length === findings.length, 'none lost');
      }),
    );
  });
});
