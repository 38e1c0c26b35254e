import type { Assessment, Measurement } from '../assessment.js';
import { assess, DEFAULT_THRESHOLDS, draftSummary, judgementOfToday, notComparedWords, saidOf } from './index.js';

const ends = (...values: number[]) => values.map((end) => ({ end }));
const hip = (over: Partial<Measurement> = {}): Measurement => ({
  motion: 'hip.internalRotation',
  side: 'left',
  mode: 'passive',
  position: 'prone',
  instrument: 'goniometer',
  trials: ends(44),
  ...over,
});
const exam = (measurements: Measurement[], over: Partial<Assessment> = {}): Assessment => ({
  person: { birthDate: '1984-05-02', sex: 'female' },
  assessedOn: '2026-11-20',
  measurements,
  ...over,
});
const kinds = (assessment: Assessment, normSet?: string) =>
  assess(assessment, normSet ? { normSets: [normSet] } : {}).findings.map((f) => f.kind);

describe('assess', () => {
  it('judges 19° of passive internal rotation as markedly short, by the first set that has a figure for it', () => {
    const { measurements, findings } = assess(exam([hip({ trials: [{ end: 18 }, { start: 0, end: 20 }] })], { involvedSide: 'left' }));
    expect(measurements[0]).toEqual(jasmine.objectContaining({ value: 19, sem: 3, consistent: true }));
    expect(measurements[0]!.mdc95).toBeCloseTo(8.3, 1);
    const short = findings.find((f) => f.kind === 'short-of-normal')!;
    expect(short).toEqual(jasmine.objectContaining({ severity: 'marked', expected: 45, agreement: { short: 3, of: 3 } }));
    expect(short.difference).toBeCloseTo(-26, 9);
    expect(saidOf(short).verdict).toBe('26° short of 45°, by AAOS 1965');
    expect(measurements[0]!.judgedBy).toBe('aaos-1965');
    expect(measurements[0]!.norms.find((norm) => norm.set === 'boone-azen-1979')).toEqual(
      jasmine.objectContaining({ comparable: false, flags: jasmine.arrayContaining(['other-mode', 'other-position']) }),
    );
    expect(saidOf(short).because.join('\n')).toContain('(18 + 20) ÷ 2 = 19');
  });

  it('gives every finding a subject, a verdict and a because', () => {
    const { findings } = assess(
      exam([
        hip({ trials: ends(10, 30), pain: 5, painWhere: 'groin' }),
        hip({ side: 'right', trials: ends(40) }),
        hip({ mode: 'active', trials: ends(45) }),
      ]),
    );
    expect(findings.length).toBeGreaterThan(4);
    for (const f of findings) {
      expect(saidOf(f).subject).toMatch(/^(Left|Right) hip internal rotation, (active|passive) \d/);
      expect(saidOf(f).verdict.length).toBeGreaterThan(5);
      expect(saidOf(f).because.length).toBeGreaterThan(1);
    }
  });

  it('finds nothing wrong with a full, painless, symmetric hip', () => {
    const all = [hip(), hip({ side: 'right', trials: ends(45) }), hip({ mode: 'active', trials: ends(41) })];
    expect(kinds(exam(all))).toEqual([]);
  });

  it('never prints a bare signed extension, not even in a sum', () => {
    const lacking = (side: 'left' | 'right', mode: 'active' | 'passive', ...values: number[]) =>
      hip({ motion: 'hip.extension', side, mode, trials: ends(...values) });
    const all = [lacking('left', 'passive', -5, -3), lacking('left', 'active', -20), lacking('right', 'passive', 15)];
    const { findings } = assess(exam(all, { previous: { assessedOn: '2026-10-20', measurements: [lacking('left', 'passive', -20)] } }));
    expect(new Set(findings.map((f) => f.kind)).size).toBe(4);
    const text = findings.flatMap((f) => [saidOf(f).subject, saidOf(f).verdict, ...saidOf(f).because]).join('\n');
    expect(text).toContain('Left hip extension, passive lacks 4° of straight');
    expect(text).toContain('((lacks 5) + (lacks 3)) ÷ 2 = (lacks 4)');
    expect(text).toContain('12.1 − (lacks 20) = 32.1');
    // A difference has a sign; a position never has.
    expect(text).not.toMatch(/(?<!= |z |: )−\d/);
  });

  it('weighs a loss by percent, and never past mild when error could explain it', () => {
    const severity = (value: number, thresholds = DEFAULT_THRESHOLDS) =>
      assess(exam([hip({ motion: 'hip.flexion', position: 'supine', trials: ends(value) })]), { thresholds }).findings[0]?.severity;
    // Against 120 (AAOS 1965, from memory).
    expect([108, 90, 60].map((v) => severity(v))).toEqual(['mild', 'moderate', 'marked']);
    expect(severity(90, { ...DEFAULT_THRESHOLDS, severityPercent: [5, 10, 15] })).toBe('marked');
    const extension = (over: Partial<Measurement>) =>
      assess(exam([hip({ motion: 'hip.extension', mode: 'active', trials: ends(1), ...over })])).findings[0];
    expect(extension({}))
      .withContext('11.1 of 12.1, 1.3 × the error')
      .toEqual(jasmine.objectContaining({ severity: 'mild', expected: 12.1 }));
    expect(extension({ instrument: 'visual' })?.severity)
      .withContext('11.1 is less than the MDC of a visual estimate, 16.6')
      .toBe('note');
  });
});

describe('short of the other side', () => {
  const sides = (left: number, right: number, involvedSide?: 'left' | 'right' | 'both') =>
    assess(exam([hip({ trials: ends(left) }), hip({ side: 'right', trials: ends(right) })], { involvedSide })).findings.filter(
      (f) => f.kind === 'short-of-other-side',
    );

  it('needs more than the clinic threshold and more than the error', () => {
    expect(sides(40, 50).length).toBe(0);
    expect(sides(39.9, 50).map((f) => f.side)).toEqual(['left']);
    expect(sides(55, 43).map((f) => f.side)).toEqual(['right']);
  });

  it('says which way the subtraction ran', () => {
    expect(saidOf(sides(30, 45, 'left')[0]!).because.join()).toContain('left (involved) − right: 30 − 45 = −15');
    expect(saidOf(sides(30, 45, 'right')[0]!).because.join()).toContain('right (involved) − left: 45 − 30 = +15');
    expect(saidOf(sides(30, 45, 'both')[0]!).because.join()).toContain('left − right: 30 − 45 = −15');
  });

  it('does not compare prone with sitting, nor active with passive', () => {
    const other = [
      hip({ trials: ends(20) }),
      hip({ side: 'right', position: 'sitting', trials: ends(45) }),
      hip({ side: 'right', mode: 'active', trials: ends(45) }),
    ];
    expect(kinds(exam(other))).not.toContain('short-of-other-side');
  });
});

describe('active against passive', () => {
  const gap = (active: number, passive: number) =>
    kinds(exam([hip({ mode: 'active', trials: ends(active) }), hip({ trials: ends(passive) })])).filter((k) => k.startsWith('active'));

  it('says more where less is good', () => {
    const leg = (mode: 'active' | 'passive', end: number) =>
      hip({ motion: 'muscleLength.activeKneeExtension', position: 'supine', mode, trials: ends(end) });
    const found = assess(exam([leg('active', 45), leg('passive', 20)])).findings.find((f) => f.kind === 'active-short-of-passive');
    expect(saidOf(found!).verdict).toBe('25° more than passive');
  });

  it('flags a gap over 10° or 10 %, whichever is more', () => {
    expect(gap(34, 44)).toEqual([]);
    expect(gap(33, 44)).toEqual(['active-short-of-passive']);
    const big = (active: number) =>
      kinds(
        exam([
          hip({ motion: 'hip.flexion', position: 'supine', mode: 'active', trials: ends(active) }),
          hip({ motion: 'hip.flexion', position: 'supine', trials: ends(130) }),
        ]),
      ).includes('active-short-of-passive');
    expect(big(118)).withContext('12 is under 10 % of 130').toBeFalse();
    expect(big(116)).toBeTrue();
  });

  it('asks for both again when active is larger by more than the error', () => {
    expect(gap(50, 44)).toEqual([]);
    expect(gap(53, 44)).toEqual(['active-beyond-passive']);
  });
});

describe('other kinds', () => {
  it('marks trials that do not agree and keeps the value', () => {
    const judged = assess(exam([hip({ trials: ends(40, 55, 46) })]));
    expect(judged.findings.map((f) => f.kind)).toContain('inconsistent-trials');
    expect(judged.measurements[0]!.value).toBe(47);
  });

  it('puts pain before range', () => {
    const all = exam([hip({ trials: ends(12) }), hip({ motion: 'hip.flexion', position: 'supine', pain: 2, trials: ends(121) })]);
    expect(kinds(all).slice(0, 2)).toEqual(['painful', 'short-of-normal']);
    expect(kinds(exam([hip({ pain: 0 })]))).toEqual([]);
  });

  const neck = (over: Partial<Measurement> = {}): Measurement =>
    hip({ motion: 'cervical.rotation', side: 'left', mode: 'active', position: 'sitting', trials: ends(22), ...over });

  it('asks the next set of the order where one has nothing that may be compared, and says which one judged', () => {
    const back: Measurement = {
      motion: 'lumbar.flexion',
      side: 'midline',
      mode: 'active',
      position: 'standing',
      instrument: 'dualInclinometer',
      trials: [{ upper: { zero: 0, end: 86 }, lower: { zero: 0, end: 34 } }],
    };
    const judged = assess(exam([back]));
    expect([judged.measurements[0]!.value, judged.measurements[0]!.judgedBy]).toEqual([52, 'ama-guides-4']);
    expect(judged.judgedBy).toEqual([{ id: 'ama-guides-4', short: jasmine.any(String) as never, measurements: 1 }]);
    const stiff = assess(exam([neck()])).findings[0]!;
    expect([stiff.kind, saidOf(stiff).verdict]).toEqual(['short-of-normal', '38° short of 60°, by AAOS 1965']);
    expect(kinds(exam([neck()]), 'ama-guides-4')).toEqual(['short-of-normal']);
  });

  it('does not judge what no set of the order can, and says so in finding, list and summary', () => {
    const judged = assess(exam([neck(), neck({ side: 'right', trials: ends(44) }), hip({ mode: 'active', position: 'sitting' })]), {
      normSets: ['boone-azen-1979'],
    });
    expect(judged.measurements.map((m) => m.judgedBy)).toEqual([null, null, 'boone-azen-1979']);
    expect(judged.notJudged.map(({ motion, side, reason }) => [motion, side, reason])).toEqual([
      ['cervical.rotation', 'left', 'no-comparable-norm'],
      ['cervical.rotation', 'right', 'no-comparable-norm'],
    ]);
    expect(judged.findings.filter((f) => f.kind === 'no-norm').length).toBe(2);
    const summary = draftSummary({ ...judged, findings: judged.findings.filter((f) => f.kind === 'no-norm') });
    expect(summary).toContain('Of 1 measurement judged against norms (Boone & Azen 1979 1), nothing is short of normal');
    expect(summary).toContain(
      'Not judged against norms: neck rotation to the left, active and neck rotation to the right, active (no norm that may be compared).',
    );
    expect(draftSummary(assess(exam([neck({ trials: ends(44) })]), { normSets: ['boone-azen-1979'] }))).toContain(
      'Nothing was judged against norms',
    );
  });

  it('never judges by the norm of another mode, position, way or age', () => {
    const shoulder = hip({
      motion: 'shoulder.externalRotation',
      position: 'supine',
      protocol: 'shoulder.externalRotation/supine-at-side',
      trials: ends(65),
    });
    expect(kinds(exam([shoulder]))).not.toContain('short-of-normal');
    const loaded = hip({
      motion: 'ankle.dorsiflexion',
      position: 'standing',
      mode: 'active',
      protocol: 'ankle.dorsiflexion/standing-loaded',
      trials: ends(28),
    });
    expect(assess(exam([loaded])).measurements[0]!.judgedBy)
      .withContext('a comparable set is not overlooked')
      .not.toBeNull();
    const born = (birthDate: string) =>
      assess(exam([hip({ mode: 'active', position: 'sitting', trials: ends(28) })], { person: { birthDate, sex: 'male' } }));
    for (const birthDate of ['1946-01-01', '2019-01-01']) {
      const [m] = born(birthDate).measurements;
      const by = m!.norms.find((norm) => norm.set === m!.judgedBy);
      expect(by?.flags ?? [])
        .withContext(birthDate)
        .not.toContain('nearest-age');
    }
  });

  it('holds a girth or a leg length only against the other side, and says so where there is none', () => {
    const girth = (side: 'left' | 'right'): Measurement =>
      hip({ motion: 'girth.thigh', side, position: 'supine', instrument: 'tape', trials: [{ value: 46 }] });
    expect(assess(exam([girth('left')])).notJudged.map((of) => of.reason)).toEqual(['no-other-side']);
    expect(assess(exam([girth('left'), girth('right')])).notJudged).toEqual([]);
  });

  it('reads a judgement that was written down before there was an order, and puts nothing into it', () => {
    const now = assess(exam([hip({ mode: 'active', position: 'sitting', trials: ends(19) }), neck()]));
    const inWords = now.findings.map(({ facts, steps, place, ...f }) => ({ ...f, ...saidOf({ ...f, facts, steps, place } as never) }));
    const { judgedBy, notJudged, rules, ...before } = now;
    const measurements = before.measurements.map(({ judgedBy: by, ...m }) =>
      by === undefined ? m : { ...m, notCompared: ['by another way'] },
    );
    const old = judgementOfToday({ ...before, format: 1, measurements, findings: inWords } as never);
    expect([old.format, old.judgedBy.map((set) => [set.id, set.measurements]), old.notJudged]).toEqual([1, [['boone-azen-1979', 1]], []]);
    expect(old.measurements.map((m) => m.judgedBy)).toEqual(['boone-azen-1979', null]);
    expect(old.measurements[0]!.notCompared.map(notComparedWords)).toEqual(['by another way']);
    // What was signed in words reads as it read.
    expect(old.findings.map(saidOf)).toEqual(now.findings.map(saidOf));
    const silent = measurements.map(({ notCompared, ...m }) => (notCompared ? m : m));
    const bare = judgementOfToday({ ...before, format: 1, measurements: silent, findings: inWords } as never);
    expect(bare.measurements.map((m) => m.notCompared)).toEqual([[], []]);
    const second = judgementOfToday({ ...before, judgedBy, notJudged, rules, format: 2, measurements, findings: inWords } as never);
    expect([second.format, second.judgedBy.length, second.rules]).toEqual([2, 2, rules]);
    const today = assess(exam([hip()]));
    expect(judgementOfToday(today)).toBe(today);
  });

  it('calls no reading a loss that stopped at a limit', () => {
    const knee = (value: number): Assessment =>
      exam(
        [
          hip({ motion: 'knee.flexion', position: 'supine', trials: ends(value) }),
          hip({ motion: 'knee.flexion', position: 'supine', side: 'right', trials: ends(140) }),
        ],
        {
          involvedSide: 'left',
          procedure: { id: 'meniscus-repair', on: '2026-10-20' },
          precautions: [{ motion: 'knee.flexion', side: 'left', limit: 90, until: null, source: 'the surgeon' }],
        },
      );
    expect(assess(knee(88)).findings).toEqual([]);
    expect(assess(knee(88)).notJudged).toEqual([
      jasmine.objectContaining({ side: 'left', reason: 'stopped-at-limit', limit: { at: 90, source: 'the surgeon' } }),
    ]);
    expect(draftSummary(assess(knee(88)))).toContain('left knee flexion, passive (stopped at a limit)');
    expect(assess(knee(60)).findings.map((f) => f.kind)).toContain('short-of-other-side');
  });

  it('judges nothing that must not be measured, and what is only forbidden beside it as ever', () => {
    const never = { side: 'left', limit: null, until: null, source: 'the surgeon' } as const;
    const fused = exam([hip({ motion: 'greatToeMtp.extension', position: 'supine', trials: ends(0) })], {
      precautions: [{ motion: 'greatToeMtp.extension', ...never }],
    });
    expect(assess(fused).findings).toEqual([]);
    expect(assess(fused).notJudged).toEqual([jasmine.objectContaining({ reason: 'forbidden' })]);
    expect(draftSummary(assess(fused))).toContain('it must not be measured');
    const bent = exam([hip({ motion: 'hip.flexion', position: 'supine', trials: ends(80) })], {
      precautions: [{ motion: 'knee.flexion', ...never, limit: 100 }],
    });
    expect(assess(bent).findings.map(({ kind }) => kind)).toEqual(['short-of-normal']);
  });

  it('takes an empty, springy or spastic end as a finding that says stop', () => {
    const felt = (endFeel: Measurement['endFeel'], over: Partial<Measurement> = {}) => assess(exam([hip({ endFeel, ...over })])).findings;
    for (const feel of ['empty', 'springy', 'spasm'] as const) {
      const [first] = felt(feel);
      expect([first!.kind, saidOf(first!).because.join().includes('proves nothing')]).toEqual(['end-feel', true]);
    }
    expect(felt('firm')).toEqual([]);
    expect(felt('hard')[0]!.kind).withContext('hard where firm is usual').toBe('end-feel');
    expect(felt('hard', { motion: 'elbow.extension', position: 'supine', trials: ends(2) }).map((f) => f.kind)).not.toContain('end-feel');
  });

  it('puts the operated side first, not the other knee', () => {
    const knee = (side: 'left' | 'right', value: number) =>
      hip({ motion: 'knee.extension', position: 'supine', side, trials: ends(value) });
    const flexed = hip({ motion: 'knee.flexion', position: 'supine', trials: ends(95) });
    const { findings } = assess(
      exam([knee('left', -8), knee('right', -30), flexed], {
        involvedSide: 'left',
        procedure: { id: 'knee-replacement', on: '2026-09-20' },
      }),
    );
    const losses = findings.filter((f) => f.kind.startsWith('short'));
    expect(losses.map((f) => f.side)).toEqual([...losses.map((f) => f.side)].sort());
    expect(losses[0]!.motion).toBe('knee.extension');
    expect(saidOf(losses[losses.length - 1]!).place).toContain('the other side, after the operated one');
  });

  it('tells a real change from one that error covers', () => {
    const against = (before: number, now: number, over: Partial<Measurement> = {}) =>
      assess(
        exam([hip({ trials: ends(now), examiner: 'a' })], {
          previous: { assessedOn: '2026-10-20', measurements: [hip({ trials: ends(before), examiner: 'a', ...over })] },
        }),
      ).findings;
    expect(against(36, 44)[0]!.kind).toBe('within-error');
    expect(against(35, 44)[0]).toEqual(jasmine.objectContaining({ kind: 'changed', expected: 35, difference: 9 }));
    expect(saidOf(against(35, 44)[0]!).verdict).toBe('9° more than last time');
    expect(against(53, 44)[0]!.severity).toBe('mild');
    expect(against(35, 44, { examiner: 'b' })[0]!.kind)
      .withContext('two examiners: 13.9 needed')
      .toBe('within-error');
    expect(against(35, 44, { position: 'sitting' }))
      .withContext('another position is another protocol')
      .toEqual([]);
  });

  it('refuses two measurements of one thing, no trials, and an unknown norm set', () => {
    expect(() => assess(exam([hip(), hip()]))).toThrowError(/given twice/);
    expect(() => assess(exam([hip({ trials: [] })]))).toThrowError(/at least one trial/);
    expect(() => assess(exam([hip()]), { normSets: ['nobody'] })).toThrowError(/aaos-1965/);
  });

  it('keeps start and end apart where the start was not zero', () => {
    const judged = assess(exam([hip({ trials: [{ start: 10, end: 40 }] })]));
    expect(judged.measurements[0]).toEqual(jasmine.objectContaining({ value: 40, excursion: 30 }));
  });
});
