import type { Assessment, Measurement } from '../assessment.js';
import type { NormSet } from '../norms/index.js';
import { assess, saidOf, type Finding } from './index.js';

const of = (motion: Measurement['motion'], end: number, over: Partial<Measurement> = {}): Measurement => ({
  motion,
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  ...over,
});
const exam = (measurements: Measurement[], over: Partial<Assessment> = {}): Assessment => ({
  person: { birthDate: '1984-05-02', sex: 'male' },
  assessedOn: '2026-11-20',
  measurements,
  ...over,
});
const find = (kind: Finding['kind'], a: Assessment, context = {}) => assess(a, context).findings.filter((f) => f.kind === kind);
const right = { side: 'right' } as const;

describe('edges of the rules', () => {
  it('a capsular pattern tells its losses from the largest on, whatever is taught', () => {
    const hip = [
      ...[of('hip.internalRotation', 30, { position: 'prone' }), of('hip.internalRotation', 45, { position: 'prone', ...right })],
      ...[of('hip.flexion', 60), of('hip.flexion', 120, right)],
      ...[of('hip.abduction', 12), of('hip.abduction', 42, right)],
    ];
    const [found] = find(
      'capsular-pattern',
      exam([...hip, of('hip.extension', 9, { position: 'prone' }), of('hip.extension', 10, { position: 'prone', ...right })], {
        involvedSide: 'left',
      }),
    );
    const lost = found!.facts as { losses: readonly { motion: string; share: number; kept: boolean }[] };
    expect(lost.losses.map((l) => l.motion)).toEqual(['hip.abduction', 'hip.flexion', 'hip.internalRotation', 'hip.extension']);
    expect(lost.losses.map((l) => l.kept)).toEqual([false, false, false, true]);
  });

  it('the thumb is told where its values stand, another finger is not', () => {
    const finger = (digit: 1 | 2) =>
      find('no-norm', exam([of('fingerMcp.flexion', 60, { digit, position: 'sitting' })]), { normSets: ['boone-azen-1979'] })[0]!;
    const about = (f: Finding) => saidOf(f).because.filter((line) => line.includes('thumbMcp')).length;
    expect([about(finger(1)), about(finger(2))]).toEqual([1, 0]);
    const strength = find('no-norm', exam([of('hip.flexion', 60, { mode: 'active' })]), { normSets: ['de-smet-1993'] })[0]!;
    expect(about(strength)).toBe(0);
  });

  it('the way back of a limb is the opposite motion of the same side, never the other side', () => {
    const hurts = (pain: number, over: Partial<Measurement>) => of('elbow.flexion', 135, { pain, ...over });
    const sides = [hurts(4, { mode: 'active' }), hurts(0, {}), hurts(3, { ...right }), hurts(0, { mode: 'active', ...right })];
    expect(find('opposite-direction-pain', exam(sides))).toEqual([]);
  });

  it('after an operation the other side comes later; the spine and two operated sides do not', () => {
    const losses = (involvedSide: 'left' | 'both') =>
      assess(
        exam(
          [
            of('hip.flexion', 70),
            of('hip.flexion', 60, right),
            of('lumbar.flexion', 20, { side: 'midline', mode: 'active', position: 'standing', instrument: 'inclinometer' }),
          ],
          { involvedSide, procedure: { id: 'knee-replacement', on: '2026-10-01' } },
        ),
        { normSets: ['aaos-1965', 'ama-guides-4'] },
      ).findings.filter((f) => f.kind === 'short-of-normal');
    const later = (found: readonly Finding[]) => found.filter((f) => f.place.otherSide).map((f) => f.side);
    expect(later(losses('left'))).toEqual(['right']);
    expect(losses('left').at(-1)!.side).toBe('right');
    expect(later(losses('both'))).toEqual([]);
    const unoperated = assess(exam([of('hip.flexion', 70), of('hip.flexion', 60, right)], { involvedSide: 'left' })).findings;
    expect(later(unoperated)).toEqual([]);
  });

  it('what lies before zero is expected in words', () => {
    const own: NormSet = {
      id: 'own',
      title: 'Own',
      short: 'Own',
      year: 2026,
      where: 'here',
      source: { cite: 'made up for this test', fromMemory: false },
      entries: [-5, 0].map((expected, at) => ({
        motion: at === 0 ? 'elbow.extension' : 'knee.extension',
        mode: 'any',
        position: 'any',
        variant: null,
        sex: 'any',
        ages: null,
        value: { kind: 'point', expected },
        confidence: 'low',
      })) as never,
    };
    const short = find('short-of-normal', exam([of('elbow.extension', -40), of('knee.extension', -30)]), {
      normSets: ['own'],
      ownSets: [own],
    });
    expect(short.map((f) => saidOf(f).verdict).sort()).toEqual(['30° short of 0°, by Own', '35° short of lacks 5° of straight, by Own']);
  });
});
