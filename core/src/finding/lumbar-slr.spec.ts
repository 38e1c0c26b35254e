import type { Assessment, Measurement } from '../assessment.js';
import { assess, saidOf, type Finding } from './index.js';

const exam = (measurements: Measurement[], over: Partial<Assessment> = {}): Assessment => ({
  person: { birthDate: '1984-05-02', sex: 'male' },
  assessedOn: '2026-11-20',
  measurements,
  ...over,
});
const of = (motion: Measurement['motion'], end: number, over: Partial<Measurement> = {}): Measurement => ({
  motion,
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  ...over,
});
const find = (kind: Finding['kind'], a: Assessment, context = {}) => assess(a, context).findings.filter((f) => f.kind === kind);
const right = { side: 'right' } as const;

describe('straight-leg-raise check of lumbar flexion', () => {
  const dual = (id: Measurement['motion'], upper: number, lower: number): Measurement =>
    of(id, 0, {
      side: 'midline',
      mode: 'active',
      position: 'standing',
      instrument: 'dualInclinometer',
      trials: [{ upper: { zero: 0, end: upper }, lower: { zero: 0, end: lower } }],
    });
  const back = (sacralFlexion: number, sacralExtension: number, raise: number, sex: 'male' | 'female' = 'male') =>
    find(
      'lumbar-slr-invalid',
      exam(
        [
          dual('lumbar.flexion', sacralFlexion + 30, sacralFlexion),
          dual('lumbar.extension', sacralExtension + 10, sacralExtension),
          of('muscleLength.straightLegRaise', raise),
          of('muscleLength.straightLegRaise', raise + 9, right),
        ],
        { person: { birthDate: '1984-05-02', sex } },
      ),
    );

  it('has the worked examples of the guide (4th/5th ed., from memory): 25 + 10 with 60 is invalid, 40 + 12 with 60 valid', () => {
    const [found] = back(25, 10, 60);
    expect(saidOf(found!).because.join('\n')).toContain('60 − 35 = 25°');
    expect(saidOf(found!).because.join('\n')).toContain('nothing about sincerity');
    expect(back(40, 12, 60)).toEqual([]);
  });

  it('goes by the tighter leg, whichever was measured first', () => {
    const both = (left: number, other: number) =>
      find(
        'lumbar-slr-invalid',
        exam([
          dual('lumbar.flexion', 55, 25),
          dual('lumbar.extension', 20, 10),
          of('muscleLength.straightLegRaise', left),
          of('muscleLength.straightLegRaise', other, right),
        ]),
      ).map((f) => (f.facts as { raise: number }).raise);
    expect(both(70, 60)).toEqual([60]);
    expect(both(60, 70)).toEqual([60]);
    // 45 − 35 = 10°: the tighter one fits.
    expect(both(90, 45)).toEqual([]);
  });

  it('takes nothing but a straight-leg raise for one', () => {
    const other = [dual('lumbar.flexion', 55, 25), dual('lumbar.extension', 20, 10), of('hip.flexion', 60), of('hip.flexion', 62, right)];
    expect(find('lumbar-slr-invalid', exam(other))).toEqual([]);
    const mixed = find('lumbar-slr-invalid', exam([...other, of('muscleLength.straightLegRaise', 80)]));
    expect((mixed[0]!.facts as { raise: number }).raise).toBe(80);
  });

  it('applies below 55° of sacral motion in men and 65° in women, and beyond 15° alone', () => {
    expect(back(46, 10, 90)).toEqual([]);
    expect(back(46, 10, 90, 'female').length).toBe(1);
    expect(back(25, 10, 50)).toEqual([]);
    expect(back(25, 10, 51).length).toBe(1);
  });
});
