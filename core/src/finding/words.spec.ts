import { MOTIONS, protocolOf } from '../catalogue/index.js';
import { ENGLISH, localeOf, speak, spokenLocale } from '../words/locale.js';
import { EVERY_KIND } from '../testing/every-kind.js';
import { recordedLines } from '../testing/recorded.js';
import { arcVerdict, arcWords, assess, draftSummary, FINDING_KINDS, inWords, notComparedWords, saidOf, type Judgement } from './index.js';

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
  ...judgement.arcs.flatMap((arc) => [arcVerdict(arc), arcWords(arc)]),
  ...judgement.measurements.flatMap((m) => m.notCompared.map(notComparedWords)),
  ...draftSummary(judgement).split('\n'),
];

describe('findings in words', () => {
  afterEach(() => speak(ENGLISH));

  it('say nothing that a second language could not put into its own words', () => {
    const judged = [...EVERY_KIND, ...EVERY_KIND.map((visit) => ({ ...visit, procedure: undefined }))].flatMap((visit) =>
      (['largest-first', 'ground-up', 'nearest-complaint', 'painless-first'] as const).map((ranking) => assess(visit, { ranking })),
    );
    const kinds = new Set(judged.flatMap(({ findings }) => findings.map((f) => f.kind)));
    expect([...FINDING_KINDS].filter((kind) => !kinds.has(kind))).toEqual([]);
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

  /**
   * Read through by hand when it was written, and when it changes: `every-kind.txt` is what a therapist would read.
   * A change of wording changes it on purpose; `WRITE=1` before the test command writes it anew.
   */
  it('read as they were read through', () => {
    const lines = EVERY_KIND.map((visit) => wordsIn(assess(visit)).join('\n'))
      .join('\n\n')
      .split('\n');
    expect(lines).toEqual(recordedLines(new URL('../testing/every-kind.txt', import.meta.url), lines));
  });

  it('write figures and days as the reader does', () => {
    const judged = assess(EVERY_KIND[0]!);
    const wall = judged.findings.find((f) => f.motion === 'distance.heelToButtock' && f.kind === 'short-of-other-side')!;
    expect(saidOf(wall).verdict).toBe('17.5 cm more than the right side');
    speak(localeOf('de-AT'));
    expect(saidOf(wall).verdict).toBe('17,5 cm more than the right side');
    const changed = () => saidOf(judged.findings.find((f) => f.kind === 'worse')!).because.join('\n');
    expect(changed()).toContain('on 1 Oct 2026');
    speak(localeOf('en-US'));
    expect(changed()).toContain('on Oct 1, 2026');
    speak(localeOf('sv-SE'));
    expect(changed()).toContain('on 2026 Oct 1');
    speak(localeOf('no such tag'));
    expect(spokenLocale()).toBe(ENGLISH);
  });

  it('are not in the judgement: the same data in every language', () => {
    const english = JSON.stringify(EVERY_KIND.map((visit) => assess(visit)));
    speak(BRACKETS);
    expect(JSON.stringify(EVERY_KIND.map((visit) => assess(visit)))).toBe(english);
  });

  it('stay as they were where they were written down', () => {
    const [first] = assess(EVERY_KIND[0]!).findings.map(inWords);
    const then = saidOf(first!);
    speak(BRACKETS);
    expect(saidOf(first!)).toEqual(then);
    expect(saidOf({ ...first!, said: undefined })).not.toEqual(then);
  });

  it('do not fail a reader for a kind of a later version', () => {
    const [first] = assess(EVERY_KIND[0]!).findings;
    expect(saidOf({ ...first!, kind: 'sways' as never, said: undefined }).verdict).toBe('sways: of a later version, not in words here');
  });

  it('name every way of measuring that has several in the subject', () => {
    const ways = MOTIONS.flatMap((m) => m.protocols.map((p) => protocolOf({ motion: m.id, position: p.position, protocol: p.id })));
    expect(ways.filter((p) => p.variant !== null && p.label.length === 0).map((p) => p.id)).toEqual([]);
  });
});
