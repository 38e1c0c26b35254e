import type { Measurement } from '../assessment.js';
import { assess, draftSummary } from './index.js';

const of = (motion: Measurement['motion'], end: number, over: Partial<Measurement> = {}): Measurement => ({
  motion,
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  ...over,
});
const summary = (measurements: Measurement[], previous?: Measurement[]) =>
  draftSummary(
    assess({
      person: { birthDate: '1984-05-02', sex: 'male' },
      assessedOn: '2026-11-20',
      involvedSide: 'left',
      measurements,
      previous: previous && { assessedOn: '2026-10-20', measurements: previous },
    }),
  );

describe('drafted summary', () => {
  it('tells end feels apart from each other', () => {
    const text = summary([of('hip.flexion', 92, { endFeel: 'empty' }), of('hip.abduction', 25, { endFeel: 'spasm' })]);
    expect(text).toMatch(/^End feel: [^;]+\([^)]+\); [^;]+\([^)]+\)\.$/m);
  });

  it('says what is short, which side is greater, what hurts, what changed, what to measure again and what comes first', () => {
    const text = summary(
      [
        of('hip.flexion', 92, { pain: 4, painWhere: 'front of the groin' }),
        of('hip.flexion', 121, { side: 'right' }),
        of('hip.abduction', 22, { mode: 'active', substitutions: ['pelvis-hikes'] }),
        of('hip.abduction', 25),
      ],
      [of('hip.flexion', 78)],
    );
    expect(text.split('\n')).toEqual([
      'Short of normal: left hip abduction and flexion.',
      'The right side is greater in hip flexion (by 29°).',
      'Hurts: left hip flexion (4 of 10, front of the groin).',
      'Really changed since the last visit: left hip flexion 14° more.',
      'To measure again: left hip abduction.',
      'First: left hip abduction (largest loss first).',
    ]);
  });

  it('names a motion once, at the place of its heaviest finding', () => {
    const text = summary([
      of('hip.flexion', 60),
      of('hip.abduction', 25),
      of('hip.abduction', 27, { mode: 'active' }),
      of('hip.flexion', 96, { mode: 'active' }),
    ]);
    expect(text.split('\n')[0]).toBe('Short of normal: left hip flexion and abduction.');
  });

  it('names a side and joint once for all its motions, and every finger by itself', () => {
    const text = summary([
      of('hip.flexion', 121, { side: 'right' }),
      of('hip.flexion', 90, { mode: 'active', side: 'right' }),
      of('hip.abduction', 45, { side: 'right' }),
      of('hip.abduction', 20, { mode: 'active', side: 'right' }),
      of('fingerPip.flexion', 100, { digit: 2, position: 'sitting' }),
      of('fingerPip.flexion', 60, { digit: 2, mode: 'active', position: 'sitting' }),
      of('fingerPip.flexion', 100, { digit: 3, position: 'sitting' }),
      of('fingerPip.flexion', 61, { digit: 3, mode: 'active', position: 'sitting' }),
    ]);
    const line = text.split('\n').find((words) => words.startsWith('Active'))!;
    expect(line).toBe(
      'Active clearly less than passive: right hip abduction and flexion; left index, finger middle joint (PIP) flexion; left middle finger, finger middle joint (PIP) flexion.',
    );
  });

  it('says so when nothing is short, and nothing when nothing was measured', () => {
    expect(summary([of('hip.flexion', 121)])).toBe(
      'Of 1 measurement judged against norms (AAOS 1965 1), nothing is short of normal; nothing is short of the other side or active of passive by more than measuring error.\nNo pain was noted while measuring.',
    );
    expect(summary([])).toBe('');
  });

  it('prints no bare sign and no diagnosis', () => {
    const text = summary([of('knee.extension', -12), of('knee.extension', 0, { side: 'right' })]);
    expect(text).not.toMatch(/[-−]\d/);
    expect(text).toContain('The right side is greater in knee extension (by 12°).');
  });
});
