import type { Assessment, Measurement } from '../assessment.js';
import { assess, DEFAULT_THRESHOLDS } from './index.js';

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
const kinds = (assessment: Assessment, normSet?: string) => assess(assessment, { normSet }).findings.map((f) => f.kind);

describe('assess', () => {
  it('judges the handbook example: 19° of passive internal rotation is markedly short', () => {
    const { measurements, findings } = assess(exam([hip({ trials: [{ end: 18 }, { start: 0, end: 20 }] })], { involvedSide: 'left' }));
    expect(measurements[0]).toEqual(jasmine.objectContaining({ value: 19, sem: 3, consistent: true }));
    expect(measurements[0]!.mdc95).toBeCloseTo(8.3, 1);
    const short = findings.find((f) => f.kind === 'short-of-normal')!;
    expect(short).toEqual(jasmine.objectContaining({ severity: 'marked', expected: 44.4, agreement: { short: 3, of: 4 } }));
    expect(short.difference).toBeCloseTo(-25.4, 9);
    expect(short.because.join('\n')).toContain('norm is for the other mode');
    expect(short.because.join('\n')).toContain('(18 + 20) ÷ 2 = 19');
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
      expect(f.subject).toMatch(/^(Left|Right) hip internal rotation, (active|passive) \d/);
      expect(f.verdict.length).toBeGreaterThan(5);
      expect(f.because.length).toBeGreaterThan(1);
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
    const text = findings.flatMap((f) => [f.subject, f.verdict, ...f.because]).join('\n');
    expect(text).toContain('Left hip extension, passive lacks 4° of straight');
    expect(text).toContain('((lacks 5) + (lacks 3)) ÷ 2 = (lacks 4)');
    expect(text).toContain('12.1 − (lacks 4) = 16.1');
    // A difference has a sign; a position never has.
    expect(text).not.toMatch(/(?<!= |z |: )−\d/);
  });

  it('weighs a loss by percent, and never past mild when error could explain it', () => {
    const severity = (value: number, thresholds = DEFAULT_THRESHOLDS) =>
      assess(exam([hip({ motion: 'hip.flexion', position: 'supine', trials: ends(value) })]), { thresholds }).findings[0]?.severity;
    expect([100, 85, 60].map((v) => severity(v))).toEqual(['mild', 'moderate', 'marked']);
    expect(severity(100, { ...DEFAULT_THRESHOLDS, severityPercent: [5, 10, 15] })).toBe('marked');
    const extension = assess(exam([hip({ motion: 'hip.extension', trials: ends(1) })])).findings[0];
    expect(extension).toEqual(jasmine.objectContaining({ severity: 'marked', expected: 12.1 }));
    const wrist = assess(exam([hip({ motion: 'hip.extension', instrument: 'visual', trials: ends(1) })])).findings[0];
    expect(wrist?.severity).withContext('11.1 is less than the MDC of a visual estimate, 16.6').toBe('mild');
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
    expect(sides(30, 45, 'left')[0]!.because.join()).toContain('left (involved) − right: 30 − 45 = −15');
    expect(sides(30, 45, 'right')[0]!.because.join()).toContain('right (involved) − left: 45 − 30 = +15');
    expect(sides(30, 45, 'both')[0]!.because.join()).toContain('left − right: 30 − 45 = −15');
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

  it('names other sets but does not use them when the chosen one is silent', () => {
    const lumbar: Measurement = {
      motion: 'lumbar.flexion',
      side: 'midline',
      mode: 'active',
      position: 'standing',
      instrument: 'dualInclinometer',
      trials: [{ upper: { zero: 0, end: 104 }, lower: { zero: 0, end: 49 } }],
    };
    const judged = assess(exam([lumbar]));
    expect(judged.measurements[0]!.value).toBe(55);
    expect(judged.findings.map((f) => f.kind)).toEqual(['no-norm']);
    expect(judged.findings[0]!.because.join()).toContain('AMA Guides 60°');
    expect(kinds(exam([lumbar]), 'ama-guides-4')).toEqual([]);
  });

  it('tells a real change from one that error covers', () => {
    const against = (before: number, now: number, over: Partial<Measurement> = {}) =>
      assess(
        exam([hip({ trials: ends(now), examiner: 'a' })], {
          previous: { assessedOn: '2026-10-20', measurements: [hip({ trials: ends(before), examiner: 'a', ...over })] },
        }),
      ).findings;
    expect(against(36, 44)[0]!.kind).toBe('within-error');
    expect(against(35, 44)[0]).toEqual(
      jasmine.objectContaining({ kind: 'changed', verdict: '9° more than last time', expected: 35, difference: 9 }),
    );
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
    expect(() => assess(exam([hip()]), { normSet: 'nobody' })).toThrowError(/aaos-1965/);
  });

  it('keeps start and end apart where the start was not zero', () => {
    const judged = assess(exam([hip({ trials: [{ start: 10, end: 40 }] })]));
    expect(judged.measurements[0]).toEqual(jasmine.objectContaining({ value: 40, excursion: 30 }));
  });
});
