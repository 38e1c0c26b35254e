import type { Assessment, Measurement } from '../assessment.js';
import { MOTIONS, protocolOf } from '../catalogue/index.js';
import { ENGLISH, localeOf, speak, spokenLocale } from '../words/locale.js';
import { arcWords, assess, draftSummary, FINDING_KINDS, inWords, notComparedWords, saidOf, type Judgement } from './index.js';

const of = (motion: Measurement['motion'], end: number, over: Partial<Measurement> = {}): Measurement => ({
  motion,
  side: 'left',
  mode: 'passive',
  position: 'supine',
  instrument: 'goniometer',
  trials: [{ end }],
  ...over,
});
const both = (motion: Measurement['motion'], left: number, right: number, over: Partial<Measurement> = {}): Measurement[] => [
  of(motion, left, over),
  of(motion, right, { side: 'right', ...over }),
];

/** Visits that have every kind of finding between them. */
const VISITS: readonly Assessment[] = [
  {
    person: { birthDate: '1964-05-02', sex: 'male' },
    assessedOn: '2026-11-20',
    involvedSide: 'left',
    procedure: { id: 'knee-replacement', on: '2026-09-20' },
    measurements: [
      of('knee.flexion', 62.5, { pain: 4, painWhere: 'front', trials: [{ end: 60 }, { end: 65 }] }),
      of('knee.flexion', 121, { side: 'right' }),
      of('knee.extension', -12, { endFeel: 'springy' }),
      ...both('hip.flexion', 88, 121, { mode: 'active' }),
      ...both('hip.flexion', 117, 121),
      of('hip.extension', 5, { mode: 'active', position: 'prone', pain: 3 }),
      of('hip.extension', 2, { position: 'prone', pain: 0 }),
      ...both('muscleLength.straightLegRaise', 41, 78),
      ...both('distance.heelToButtock', 21.5, 4, { position: 'prone', instrument: 'tape' }),
      ...both('girth.thigh', 44, 47.5, { instrument: 'tape' }),
      of('hip.internalRotation', 31, { position: 'prone' }),
      of('muscleLength.calfKneeStraight', 2),
      of('muscleLength.calfKneeBent', 18),
      of('fingerPip.flexion', 40, { digit: 3, position: 'sitting', substitutions: [] }),
    ],
    previous: {
      assessedOn: '2026-10-01',
      measurements: [
        of('knee.flexion', 90, { instrument: 'inclinometer' }),
        of('knee.extension', -11),
        of('hip.internalRotation', 30, { position: 'sitting' }),
      ],
    },
  },
  {
    person: { birthDate: '1990-01-02', sex: 'female' },
    assessedOn: '2026-11-20',
    involvedSide: 'left',
    complaintAt: 'shoulder',
    measurements: [
      ...both('shoulder.externalRotation', 22, 96),
      ...both('shoulder.internalRotation', 60, 70),
      ...both('shoulder.abduction', 62, 178),
      ...both('elbow.extension', 24, 3),
      of('elbow.flexion', 140, { mode: 'active', pain: 4 }),
      of('elbow.flexion', 141, { pain: 0 }),
      of('elbow.extension', 23, { mode: 'active', pain: 0, side: 'right' }),
      of('wrist.flexion', 80, { position: 'sitting', mode: 'active', substitutions: [] }),
      of('wrist.flexion', 60, { position: 'sitting', trials: [{ end: 50 }, { end: 70 }] }),
    ],
  },
];

/** A language that can be told from English by eye: every phrase that was said stands in brackets. */
const BRACKETS = {
  ...localeOf('de-DE'),
  phrases: new Proxy<Record<string, string>>({}, { get: (_, phrase) => (typeof phrase === 'string' ? `⟦${phrase}⟧` : undefined) }),
};
/** What is left when everything that was said is taken away, innermost first. */
function unsaid(words: string): string {
  const without = words.replace(/⟦[^⟦⟧]*⟧/g, '');
  return without === words ? words : unsaid(without);
}

const wordsIn = (judgement: Judgement): string[] => [
  ...judgement.findings.flatMap((f) => {
    const { subject, verdict, brief, because, place } = saidOf(f);
    return [subject, verdict, brief, ...because, place];
  }),
  ...judgement.arcs.map(arcWords),
  ...judgement.measurements.flatMap((m) => m.notCompared.map(notComparedWords)),
  ...draftSummary(judgement).split('\n'),
];

describe('findings in words', () => {
  afterEach(() => speak(ENGLISH));

  it('say nothing that a second language could not put into its own words', () => {
    const judged = [...VISITS, ...VISITS.map((visit) => ({ ...visit, procedure: undefined }))].flatMap((visit) =>
      (['largest-first', 'ground-up', 'nearest-complaint', 'painless-first'] as const).map((ranking) => assess(visit, { ranking })),
    );
    const kinds = new Set(judged.flatMap(({ findings }) => findings.map((f) => f.kind)));
    expect(kinds.size).toBeGreaterThan(FINDING_KINDS.length - 5);
    // Names of sets and units are the same in every language; where it hurts is what the person said.
    const names = new Set(judged.flatMap(({ measurements }) => measurements.flatMap((m) => m.norms.map((norm) => norm.setName))));
    speak(BRACKETS);
    const left = new Set(
      judged.flatMap(wordsIn).flatMap((words) => {
        const bare = [...names].reduce((rest, name) => rest.replaceAll(name, ''), unsaid(words));
        return bare.replace(/\b(cm|N|s|z|lb)\b|front/g, '').match(/\p{Letter}+/gu) ?? [];
      }),
    );
    expect([...left]).toEqual([]);
  });

  it('write figures and days as the reader does', () => {
    const judged = assess(VISITS[0]!);
    const wall = judged.findings.find((f) => f.motion === 'distance.heelToButtock' && f.kind === 'short-of-other-side')!;
    expect(saidOf(wall).verdict).toBe('17.5 cm more than the right side');
    speak(localeOf('de-AT'));
    expect(saidOf(wall).verdict).toBe('17,5 cm more than the right side');
    const changed = () => saidOf(judged.findings.find((f) => f.kind === 'changed')!).because.join('\n');
    expect(changed()).toContain('on 1 Oct 2026');
    speak(localeOf('en-US'));
    expect(changed()).toContain('on Oct 1, 2026');
    speak(localeOf('sv-SE'));
    expect(changed()).toContain('on 2026 Oct 1');
    speak(localeOf('no such tag'));
    expect(spokenLocale()).toBe(ENGLISH);
  });

  it('are not in the judgement: the same data in every language', () => {
    const english = JSON.stringify(VISITS.map((visit) => assess(visit)));
    speak(BRACKETS);
    expect(JSON.stringify(VISITS.map((visit) => assess(visit)))).toBe(english);
  });

  it('stay as they were where they were written down', () => {
    const [first] = assess(VISITS[0]!).findings.map(inWords);
    const then = saidOf(first!);
    speak(BRACKETS);
    expect(saidOf(first!)).toEqual(then);
    expect(saidOf({ ...first!, said: undefined })).not.toEqual(then);
  });

  it('do not fail a reader for a kind of a later version', () => {
    const [first] = assess(VISITS[0]!).findings;
    expect(saidOf({ ...first!, kind: 'sways' as never, said: undefined }).verdict).toBe('sways: of a later version, not in words here');
  });

  it('name every way of measuring that has several in the subject', () => {
    const ways = MOTIONS.flatMap((m) => m.protocols.map((p) => protocolOf({ motion: m.id, position: p.position, protocol: p.id })));
    expect(ways.filter((p) => p.variant !== null && p.label.length === 0).map((p) => p.id)).toEqual([]);
  });
});
