import type { Assessment, Measurement } from '../assessment.js';
import { arcVerdict, arcWords, assess, saidOf } from './index.js';

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
const right = { side: 'right' } as const;

describe('total rotation', () => {
  const rotation = (er: [number, number], ir: [number, number]) =>
    assess(
      exam([
        of('shoulder.externalRotation', er[0]),
        of('shoulder.externalRotation', er[1], right),
        of('shoulder.internalRotation', ir[0]),
        of('shoulder.internalRotation', ir[1], right),
      ]),
    );

  it('stands beside the ends, with the error of all four readings', () => {
    const [arc] = rotation([95, 125], [70, 42]).arcs;
    expect([arc!.left!.value, arc!.right!.value, arc!.difference]).toEqual([165, 167, -2]);
    expect(arc!.mdc).toBeCloseTo(1.96 * 6, 9);
    expect(arcWords(arc!)).toContain('one end is traded for the other');
    const less = rotation([95, 125], [70, 42]).findings.find(
      (f) => f.kind === 'short-of-other-side' && f.motion === 'shoulder.internalRotation',
    );
    expect(saidOf(less!).because.join('\n')).toContain('the whole arc, shoulder rotation, total: left 95 + 70 = 165°');
  });

  it('is apart for real only past the error of the difference; one side alone is told as such', () => {
    const [arc] = rotation([95, 125], [70, 42]).arcs;
    const told = (difference: number | null, mdc: number | null) => arcVerdict({ ...arc!, difference, mdc });
    expect(told(-2, 11.8)).toBe('2° apart, within error');
    expect(told(11.7, 11.8)).toBe('12° apart, within error');
    expect(told(11.8, 11.8)).toBe('12° apart, real');
    expect(told(-30, 11.8)).toBe('30° apart, real');
    expect(told(null, null)).toBe('one side alone');
    expect(told(5, null)).toBe('one side alone');
    expect(told(null, 5)).toBe('one side alone');
  });

  it('tells a lost arc from a traded one', () => {
    expect(arcWords(rotation([95, 96], [70, 42]).arcs[0]!)).toContain('the arc itself is less on one side');
  });
});
