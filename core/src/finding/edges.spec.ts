import type { Assessment, Measurement } from '../assessment.js';
import type { NormSet } from '../norms/index.js';
import { isGain, isLoss } from './change.js';
import { stepWords } from './step-words.js';
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

  it('a capsular pattern is of one side and one mode, in the same position', () => {
    const shoulder = (side: 'left' | 'right', mode: 'active' | 'passive', er: number, abd: number, ir: number) => [
      of('shoulder.externalRotation', er, { side, mode }),
      of('shoulder.abduction', abd, { side, mode }),
      of('shoulder.internalRotation', ir, { side, mode }),
    ];
    const stiff = [20, 100, 55] as const;
    const free = [90, 180, 70] as const;
    const sides = (measurements: Measurement[]) => find('capsular-pattern', exam(measurements)).map((f) => `${f.side} ${f.mode}`);
    expect(sides([...shoulder('left', 'passive', ...stiff), ...shoulder('right', 'passive', ...free)])).toEqual(['left passive']);
    expect(sides([...shoulder('left', 'passive', ...free), ...shoulder('right', 'passive', ...stiff)])).toEqual(['right passive']);
    expect(sides([...shoulder('left', 'active', ...stiff), ...shoulder('left', 'passive', ...free)]))
      .withContext('passive is full')
      .toEqual([]);
    expect(sides([...shoulder('left', 'active', ...free), ...shoulder('left', 'passive', ...stiff)])).toEqual(['left passive']);
    expect(sides([...shoulder('left', 'active', ...stiff)])).toEqual(['left active']);
    // Two motions of one side and one of the other are no three of a side.
    expect(sides([...shoulder('left', 'passive', ...stiff).slice(0, 2), ...shoulder('right', 'passive', ...stiff).slice(2)])).toEqual([]);
  });

  it('what the surgeon is told of is held against its own line where there is no usual course', () => {
    const expected = (motion: Measurement['motion'], end: number, id: string, on: string, over: Partial<Measurement> = {}) =>
      find('behind-course', exam([of(motion, end, over)], { involvedSide: 'left', procedure: { id, on } })).map((f) => [
        f.expected,
        f.difference,
      ]);
    // Week 14 after a knee replacement: the course has ended, less than 90° is still told.
    expect(expected('knee.flexion', 75, 'knee-replacement', '2026-08-14')).toEqual([[90, -15]]);
    expect(expected('knee.flexion', 95, 'knee-replacement', '2026-08-14')).toEqual([]);
    // Ten degrees or more lacking of straight: on the line counts.
    expect(expected('knee.extension', -10, 'knee-replacement', '2026-08-14')).toEqual([[-10, 0]]);
    expect(expected('knee.extension', -20, 'knee-replacement', '2026-08-14')).toEqual([[-10, -10]]);
  });

  it('an amount that was typed in another unit is told as typed and as kept, one in its own unit once', () => {
    const because = (trials: Measurement['trials']) =>
      assess(
        exam([
          of('distance.kneeToWall', 0, { position: 'standing', mode: 'active', instrument: 'tape', trials }),
          of('distance.kneeToWall', 0, { position: 'standing', mode: 'active', instrument: 'tape', ...right, trials: [{ value: 14 }] }),
        ]),
      )
        .findings.flatMap((f) => saidOf(f).because)
        .join('\n');
    expect(because([{ value: 2, unit: 'in' }])).toContain('2 in = 5.1');
    expect(because([{ value: 5, unit: 'cm' }])).not.toContain('cm = 5');
  });

  it('a change that is neither good nor bad is neither gained nor lost', () => {
    for (const verdict of ['more', 'less', 'within-error'] as const) {
      expect([isGain({ verdict, better: 'neither' }), isLoss({ verdict, better: 'neither' })]).toEqual([false, false]);
      expect(isGain({ verdict, better: 'more' })).toBe(verdict === 'more');
      expect(isLoss({ verdict, better: 'more' })).toBe(verdict === 'less');
      expect(isGain({ verdict, better: 'less' })).toBe(verdict === 'less');
      expect(isLoss({ verdict, better: 'less' })).toBe(verdict === 'more');
    }
  });

  it('an answer by eye is short of no other side', () => {
    const check = (side: 'left' | 'right', value: number) =>
      of('check.heelTouchesButtock', 0, { side, position: 'prone', instrument: 'visual', trials: [{ value }] });
    expect(find('short-of-other-side', exam([check('left', 0), check('right', 1)]))).toEqual([]);
  });

  it('what was measured without a task, a norm or a limit has none told of it', () => {
    const { measurements, judgedBy } = assess(exam([of('girth.calf', 0, { instrument: 'tape', trials: [{ value: 36 }] })]));
    expect([measurements[0]!.needs, measurements[0]!.norms, judgedBy]).toEqual([[], [], []]);
  });

  it('an active reading that was stopped at a limit is short of no passive one', () => {
    const gap = [of('hip.flexion', 60, { mode: 'active' }), of('hip.flexion', 110)];
    expect(find('active-short-of-passive', exam(gap)).length).toBe(1);
    const precautions = [{ motion: 'hip.flexion', mode: 'active', limit: 60, until: null, source: 'the surgeon' }] as const;
    expect(find('active-short-of-passive', exam(gap, { precautions }))).toEqual([]);
  });

  it('the usual course is told as a range, or as a least where it has no upper end', () => {
    const usual = (high: number | null) => stepWords({ step: 'usual', motion: 'knee.flexion', weeks: 6, low: 90, high });
    expect(usual(120)).toBe('usual at week 6: 90° to 120°');
    expect(usual(90)).toBe('usual at week 6: 90° or more');
    expect(usual(null)).toBe('usual at week 6: 90° or more');
  });
});

describe('edges of pain', () => {
  it('are mild to 3, moderate to 6, marked from 7 on', () => {
    const severity = (pain: number) => find('painful', exam([of('hip.flexion', 110, { pain })]))[0]!.severity;
    expect([1, 3, 4, 6, 7, 10].map(severity)).toEqual(['mild', 'mild', 'moderate', 'moderate', 'marked', 'marked']);
  });

  it('come before what only points to a tissue, however heavy that is', () => {
    const elbow = [
      of('elbow.flexion', 140, { mode: 'active', pain: 2 }),
      of('elbow.flexion', 142, { pain: 0 }),
      of('elbow.extension', 0, { mode: 'active', pain: 0 }),
      of('elbow.extension', 0, { pain: 9 }),
    ];
    const { findings } = assess(exam(elbow));
    const kinds = findings.map((f) => f.kind);
    const [first, last] = [kinds.indexOf('opposite-direction-pain'), kinds.lastIndexOf('painful')];
    expect(kinds.filter((kind) => kind === 'painful').length).toBe(2);
    expect(first).toBeGreaterThan(last);
  });
});
