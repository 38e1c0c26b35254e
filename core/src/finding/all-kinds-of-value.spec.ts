import type { Assessment, Measurement } from '../assessment.js';
import { MOTIONS } from '../catalogue/index.js';
import type { NormSet } from '../norms/index.js';
import { assess, notComparedWords, saidOf } from './index.js';

const exam = (measurements: Measurement[], over: Partial<Assessment> = {}): Assessment => ({
  person: { birthDate: '1984-05-02', sex: 'female' },
  assessedOn: '2026-11-20',
  measurements,
  ...over,
});
const wall = (side: 'left' | 'right', ...values: number[]): Measurement => ({
  motion: 'distance.kneeToWall',
  side,
  mode: 'active',
  position: 'standing',
  instrument: 'tape',
  trials: values.map((value) => ({ value })),
});
const one = (motion: Measurement['motion'], rest: Partial<Measurement>, ...ends: number[]): Measurement => ({
  motion,
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: ends.map((end) => ({ end })),
  ...rest,
});
const lines = (assessment: Assessment, normSet?: string) =>
  assess(assessment, normSet ? { normSets: [normSet] } : {}).findings.map((f) => `${saidOf(f).subject}: ${saidOf(f).verdict}`);

describe('findings in every unit', () => {
  it('judge a distance in centimetres, against a norm and the other side', () => {
    const found = lines(exam([wall('left', 4.5, 5, 5), wall('right', 11)], { involvedSide: 'left' }), 'common-practice');
    expect(found).toContain('Left knee to wall, 4.8 cm: 4.2 cm short of 9 cm, by Common practice');
    expect(found).toContain('Left knee to wall, 4.8 cm: 6.2 cm less than the right side');
  });

  it('turn the sentence round where less is better', () => {
    const floor: Measurement = { ...wall('left', 24), motion: 'distance.fingerToFloor', side: 'midline' };
    const [judged] = assess(exam([floor]), { normSets: ['common-practice'] }).findings;
    expect(`${saidOf(judged!).subject}: ${saidOf(judged!).verdict}`).toBe(
      'Finger to floor, 24 cm above the floor: 24 cm more than 0 cm, by Common practice',
    );
    // MDC of 10 cm printed (Perret et al. 2001, from memory): 24 is 2.4 of it
    expect(judged).toEqual(jasmine.objectContaining({ severity: 'moderate', percentLoss: null }));
    expect(judged?.timesError).toBeCloseTo(2.4, 9);
    const lack = one('muscleLength.activeKneeExtension', { mode: 'active' }, 40);
    expect(lines(exam([lack]), 'common-practice')[0]).toBe(
      'Left knee extension with the hip at 90°, active 40° short of straight: 20° more than 20°, by Common practice',
    );
  });

  it('takes pounds and inches as entered, and shows the arithmetic', () => {
    const push = (side: 'left' | 'right', value: number): Measurement => ({
      motion: 'strength.kneeExtension',
      side,
      mode: 'active',
      position: 'sitting',
      instrument: 'dynamometer',
      trials: [{ value, unit: 'lb' }],
    });
    const { measurements, findings } = assess(exam([push('left', 31.9), push('right', 62)]));
    // 1 lbf = 4.448 221 615 N by definition (NIST SP 811, from memory)
    expect(measurements[0]!.value).toBeCloseTo(141.898, 3);
    const weak = findings.find((f) => f.kind === 'short-of-other-side')!;
    expect(saidOf(weak).verdict).toBe('134 N less than the right side');
    expect(weak.percentLoss).toBeCloseTo((1 - 31.9 / 62) * 100, 6);
    expect(saidOf(weak).because[0]).toContain('31.9 lb = 141.9');
  });

  it('counts the best stance, the mean of the rest', () => {
    const stance = (...values: number[]): Measurement => ({
      ...wall('left', ...values),
      motion: 'balance.singleLegStanceEyesOpen',
      instrument: 'stopwatch',
    });
    const [judged] = assess(exam([stance(9, 31, 22)]), { normSets: ['springer-2007'] }).measurements;
    expect(judged).toEqual(jasmine.objectContaining({ value: 31, summary: 'best', consistent: null }));
    // The means of that table are of the mean of three: that is what is held against them.
    expect(judged!.norms.find((norm) => norm.set === 'springer-2007')!.value).toBeCloseTo(62 / 3, 9);
  });

  it('holds a girth against the other side only', () => {
    const girth = (side: 'left' | 'right', value: number): Measurement => ({
      ...wall(side, value),
      motion: 'girth.thigh',
      mode: 'passive',
      position: 'supine',
    });
    expect(lines(exam([girth('left', 46), girth('right', 49.5)]))).toEqual([
      'Left thigh girth, 10 cm, 46 cm: 3.5 cm less than the right side',
    ]);
    expect(lines(exam([girth('left', 46), girth('right', 47)]))).toEqual([]);
  });

  it('weighs a lost extension by its error, since a percentage of 0 says nothing', () => {
    const severity = (end: number) => assess(exam([one('knee.extension', {}, end)]), { normSets: ['aaos-1965'] }).findings[0]?.severity;
    // Steps of error, and floors of the function: 5 small, 10 clear, 15 large (from memory).
    expect([-7, -10, -15, -25].map(severity)).toEqual(['mild', 'moderate', 'marked', 'marked']);
  });

  it('names finger, direction and way of measuring', () => {
    const found = lines(
      exam([
        one('fingerPip.flexion', { digit: 2, position: 'sitting' }, 60),
        one('cervical.rotation', { mode: 'active', position: 'sitting', side: 'right' }, 30),
        one('shoulder.externalRotation', { protocol: 'shoulder.externalRotation/supine-at-side' }, 10),
      ]),
      'aaos-1965',
    );
    expect(found).toContain('Left index, finger middle joint (PIP) flexion, passive 60°: 40° short of 100°, by AAOS 1965');
    expect(found).toContain('Neck rotation to the right, active 30°: 30° short of 60°, by AAOS 1965');
    expect(found.some((line) => line.startsWith('Left shoulder external rotation, passive, supine, arm at the side 10°'))).toBeTrue();
  });

  // Invented: 86 − 34 = 52, 99 − 86 = 13, 14 − 14 = 0, 44 − 29 = 15; neck 48 + 58 = 106
  it('subtracts two sites: bowing, bending back, and where both moved alike', () => {
    const site = (motion: Measurement['motion'], upper: number, lower: number): Measurement => ({
      motion,
      side: 'midline',
      mode: 'active',
      position: 'standing',
      instrument: 'dualInclinometer',
      trials: [{ upper: { zero: 0, end: upper }, lower: { zero: 0, end: lower } }],
    });
    const { measurements } = assess(
      exam([
        site('lumbar.flexion', 86, 34),
        site('thoracic.flexion', 99, 86),
        site('lumbar.extension', 14, 14),
        site('thoracic.extension', 44, 29),
      ]),
    );
    expect(measurements.map((m) => m.value)).toEqual([52, 13, 0, 15]);
    const neck = (motion: Measurement['motion'], end: number) =>
      one(motion, { side: 'midline', mode: 'active', position: 'sitting', instrument: 'inclinometer' }, end);
    const both = assess(exam([neck('cervical.flexion', 48), neck('cervical.extension', 58)])).measurements;
    expect(both[0]!.value + both[1]!.value).toBe(106);
  });
});

describe('what is not compared', () => {
  const rotation = (side: 'left' | 'right', position: Measurement['position'], end: number) =>
    one('hip.internalRotation', { side, position }, end);

  it('says so when the last visit or the other side was measured another way', () => {
    const judged = assess(
      exam([rotation('left', 'prone', 20), rotation('right', 'sitting', 45)], {
        previous: { assessedOn: '2026-10-01', measurements: [rotation('left', 'sitting', 33)] },
      }),
    );
    expect(judged.findings.map((f) => f.kind)).not.toContain('short-of-other-side');
    expect(judged.findings.map((f) => f.kind)).not.toContain('changed');
    expect(judged.measurements[0]!.notCompared.map(notComparedWords)).toEqual([
      'measured on 1 Oct 2026 by another protocol (Hip internal rotation, sitting): not compared, the two measure different things',
      'the right side was measured by another protocol (Hip internal rotation, sitting): not compared, the two measure different things',
    ]);
    expect(judged.measurements[1]!.notCompared.map(notComparedWords)).toEqual([
      'the left side was measured by another protocol (Hip internal rotation, prone): not compared, the two measure different things',
    ]);
  });

  it('keeps a leg raise read on the thigh apart from one read on the shin', () => {
    const raise = (end: number, protocol?: string) => one('muscleLength.straightLegRaise', { protocol }, end);
    const judged = assess(
      exam([raise(60, 'muscleLength.straightLegRaise/supine-thigh')], {
        previous: { assessedOn: '2026-10-01', measurements: [raise(80)] },
      }),
    );
    expect(judged.findings.map((f) => f.kind)).not.toContain('changed');
    expect(judged.measurements[0]!.notCompared.length).toBe(1);
  });

  it('keeps fingers apart: another finger by another way is nobody’s reading', () => {
    const finger = (digit: 2 | 3, protocol: string, end: number) => one('fingerPip.flexion', { digit, protocol, position: 'sitting' }, end);
    const usual = MOTIONS.find((m) => m.id === 'fingerPip.flexion')!.protocols.map((p) => p.id);
    expect(usual.length).toBe(1);
    const judged = assess(
      exam([one('hip.internalRotation', { position: 'prone' }, 30), finger(2, usual[0]!, 90), finger(3, usual[0]!, 95)], {
        previous: {
          assessedOn: '2026-10-01',
          measurements: [
            one('hip.internalRotation', { position: 'sitting' }, 30),
            one('hip.internalRotation', { position: 'supine' }, 31),
            finger(2, usual[0]!, 80),
          ],
        },
      }),
    );
    expect(judged.measurements.map((m) => m.notCompared.map((of) => 'protocol' in of && of.protocol))).toEqual([
      ['hip.internalRotation/sitting', 'hip.internalRotation/supine-hip-90'],
      [],
      [],
    ]);
  });
});

describe('the clinic’s own norm set', () => {
  const own: NormSet = {
    id: 'own',
    title: 'Own set',
    short: 'Own set',
    year: null,
    where: 'own records',
    source: { cite: 'measured by ourselves', fromMemory: false },
    entries: [
      {
        motion: 'hip.internalRotation',
        mode: 'passive',
        position: 'prone',
        sex: 'any',
        ages: null,
        value: { kind: 'distribution', mean: 34, sd: 5 },
        confidence: 'high',
      },
    ],
  };
  const hip = one('hip.internalRotation', { position: 'prone' }, 23);

  it('judges, votes, and is named with its source', () => {
    const before = assess(exam([hip])).findings[0]!;
    const { findings } = assess(exam([hip]), { normSets: ['own'], ownSets: [own] });
    expect(before.agreement).toEqual({ short: 3, of: 3 });
    expect([saidOf(findings[0]!).verdict, findings[0]!.agreement]).toEqual(['11° short of 34°, by Own set', { short: 4, of: 4 }]);
    expect(saidOf(findings[0]!).because.join()).toContain('Own set: 34°');
    expect(() => assess(exam([hip]), { normSets: ['own'] })).toThrowError(/unknown norm set "own"/);
  });
});
