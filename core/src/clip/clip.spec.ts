import fc from 'fast-check';
import { checkItem, FAULTS, gradeItem, SCREENS, type FaultId } from '../screen/index.js';
import { findItem, findScreen } from '../screen/index.js';
import {
  checkReview,
  clipReport,
  CLIP_TELLS,
  itemsSeenFrom,
  SURENESS,
  triesIn,
  type ClipFacts,
  type ClipMark,
  type ClipReview,
} from './index.js';

const mark = (over: Partial<ClipMark> = {}): ClipMark => ({
  id: 'a',
  t: 3.2,
  tells: 'work',
  side: 'midline',
  shows: { screen: 'squatCheck', item: 'squat', fault: 'heelLifts' },
  words: '',
  sure: 'sure',
  lines: [],
  angles: [],
  still: null,
  ...over,
});
const review = (...marks: ClipMark[]): ClipReview => ({
  file: 'squat.webm',
  view: 'side',
  marks: marks.map((one, at) => ({ ...one, id: `${at}` })),
});
const facts = (of: ClipReview, over: Partial<ClipFacts> = {}): ClipFacts => ({
  clinic: 'Harbour Practice',
  givenName: 'Ilka',
  by: 'Wren',
  on: '2026-11-27',
  review: of,
  stills: new Map(),
  ...over,
});
const linesOf = (of: ClipReview, over: Partial<ClipFacts> = {}) =>
  clipReport(facts(of, over)).blocks.flatMap((block) =>
    block.kind === 'heading' || block.kind === 'paragraph' ? [block.text] : block.kind === 'list' ? block.items : [block.kind],
  );
const free = (words: string, over: Partial<ClipMark> = {}) => mark({ shows: null, words, ...over });

describe('a clip that was looked over', () => {
  it('goes out as a page: strengths first, at most three to work on, what could not be seen last', () => {
    const lines = linesOf(
      review(
        mark({ t: 4, side: 'left', sure: 'likely', angles: [{ label: 'knee bend', degrees: 104.4, error: 2.2 }] }),
        free('You keep your back long', { t: 1, tells: 'strength' }),
        free('your feet are cut off', { t: 2, tells: 'unseen' }),
      ),
    );
    const at = (words: string) => lines.findIndex((line) => line.includes(words));
    expect(at('What goes well')).toBe(0);
    expect(lines[1]).toBe('You keep your back long.');
    expect(at('What to work on')).toBeGreaterThan(1);
    expect(lines[at('heel lifts')]).toBe('Squat: heel lifts.');
    expect(lines[at('heel lifts') + 1]).toBe(
      'On your left side. Knee bend: about 104°, give or take 3°. We are fairly sure of this. At 4.0 s of your clip.',
    );
    expect(at('Your feet are cut off.')).toBeGreaterThan(at('What we could not see'));
    // By the view: what is seen from the front and from behind alone.
    expect(
      lines.some((line) => line.startsWith('For this we would need a clip from the front:') && line.includes('knee rolls in')),
    ).toBeTrue();
    expect(lines.some((line) => line.startsWith('For this we would need a clip from behind:') && line.includes('hip drops'))).toBeTrue();
    expect(lines.some((line) => line.includes('pelvis tucks early'))).toBeFalse();
  });

  it('calls nothing fine that was not looked at', () => {
    const lines = linesOf(review()).join(' ');
    expect(lines).toContain('That holds for what this clip shows, and for no more.');
    expect(lines).toContain('no clip shows that');
    expect(lines).not.toMatch(/\bfine\b|\bnormal\b|\bhealthy\b/);
  });

  it('takes the stills along that were attached, and no others', () => {
    const of = review(mark({ still: 's1' }), mark({ still: 'gone', t: 5 }));
    const blocks = clipReport(facts(of, { stills: new Map([['s1', { jpeg: 'AAAA', width: 4, height: 3 }]]) })).blocks;
    expect(blocks.filter(({ kind }) => kind === 'picture')).toEqual([
      { kind: 'picture', alt: 'A still of your clip at 3.2 s: Squat: heel lifts', jpeg: 'AAAA', width: 4, height: 3 },
    ]);
  });

  it('is refused with the mark, what is wrong and what is allowed', () => {
    const wrong = (...marks: ClipMark[]) => checkReview(review(...marks)).map(({ path, message }) => `${path.join('.')}: ${message}`);
    expect(wrong(mark(), mark(), mark(), mark())).toEqual([
      'marks: names 4 things to work on; allowed: up to 3, more are too many at once',
    ]);
    expect(wrong(free('  '))).toEqual(['marks.0.words: are missing; allowed: words, or an item of a screen']);
    expect(wrong(mark({ tells: 'strength' }))).toEqual(['marks.0.shows: names a fault as a strength; allowed: the item alone']);
    const fault = (id: FaultId) => wrong(mark({ shows: { screen: 'squatCheck', item: 'squat', fault: id } }))[0];
    expect(fault('kneeRollsIn')).toContain('is seen from front, not from side; allowed:');
    expect(fault('heelLifts')).toBeUndefined();
    expect(wrong(mark({ shows: { screen: 'squatCheck', item: 'nothing', fault: null } }))[0]).toContain('is no item of squatCheck');
    expect(checkReview({ ...review(), marks: [mark(), mark()] }).map(({ path }) => path.join('.'))).toEqual(['marks.1.id']);
    // An item of a limb needs its side.
    const [sided] = itemsSeenFrom('side').filter(({ item }) => item.sides === 'each');
    expect(wrong(mark({ shows: { screen: sided!.screen.id, item: sided!.item.id, fault: null } }))[0]).toMatch(
      /^marks.0.side: is missing; allowed: left, right/,
    );
  });

  it('feeds screens with what one is sure of: all faults of an item and side as one try', () => {
    const of = review(
      mark({ t: 5, shows: { screen: 'squatCheck', item: 'squat', fault: 'trunkFallsForward' }, sure: 'likely' }),
      mark({ t: 2 }),
      mark({ t: 6, shows: { screen: 'squatCheck', item: 'squat', fault: 'notDeep' }, sure: 'unsure' }),
      mark({ t: 7, shows: { screen: 'squatCheck', item: 'squat', fault: 'armsFall' }, tells: 'unseen' }),
      free('nice'),
    );
    expect(triesIn(of)).toEqual([
      {
        screen: 'squatCheck',
        item: 'squat',
        view: 'side',
        side: 'midline',
        try: { faults: ['heelLifts', 'trunkFallsForward'], picture: { words: 'clip squat.webm at 2.0 s, 5.0 s, likely', error: null } },
      },
    ]);
    // Nothing said of an item is nothing on the screen; done well, from this view, is "looked for, none seen".
    expect(triesIn(review(mark({ shows: { screen: 'squatCheck', item: 'squat', fault: null } })))).toEqual([]);
    const [well] = triesIn(review(mark({ tells: 'strength', shows: { screen: 'squatCheck', item: 'squat', fault: null } })));
    expect(well!.try.faults).toEqual([]);
    const screen = findScreen('squatCheck')!;
    expect(gradeItem(screen, findItem(screen, 'squat')!, { item: 'squat', view: 'side', tries: [well!.try] }).quality).toBe('meets');
  });

  it('never feeds a screen with what the screen would refuse', () => {
    const seen = itemsSeenFrom('side').flatMap(({ screen, item }) => [
      { screen: screen.id, item: item.id, fault: null },
      ...item.faults
        .filter(({ views }) => views.length === 0 || views.includes('side'))
        .map(({ id }) => ({ screen: screen.id, item: item.id, fault: id as FaultId | null })),
    ]);
    const someMark = fc.record({
      t: fc.double({ min: 0, max: 60, noNaN: true }),
      tells: fc.constantFrom(...CLIP_TELLS),
      side: fc.constantFrom('left' as const, 'right' as const, 'midline' as const),
      shows: fc.constantFrom(...seen, null),
      sure: fc.constantFrom(...SURENESS),
    });
    fc.assert(
      fc.property(fc.array(someMark, { maxLength: 6 }), (marks) => {
        const of = review(...marks.map((one) => mark({ ...one, words: 'as seen' })));
        const sound = { ...of, marks: of.marks.filter((_, at) => !checkReview(of).some(({ path }) => path[1] === at)) };
        for (const { screen, item, view, side, try: one } of triesIn(sound)) {
          const entered = { item, ...(view ? { view } : {}), ...(side === 'midline' ? {} : { side }), tries: [one] };
          expect(checkItem(screen, entered)).toEqual([]);
        }
        clipReport(facts(sound));
      }),
    );
    expect(seen.length).toBeGreaterThan(SCREENS.length);
    expect(Object.keys(FAULTS).length).toBeGreaterThan(20);
  });
});

describe('an amount that was read off a picture', () => {
  it('carries its own error into the screen, and never less than the item has', () => {
    const screen = findScreen('squatCheck')!;
    const item = findItem(screen, 'rockBack')!;
    const sem = (error?: number) =>
      gradeItem(screen, item, {
        item: item.id,
        tries: [{ value: 112, ...(error === undefined ? {} : { picture: { words: 'picture', error } }) }],
      }).sem!;
    expect(sem(9)).toBe(9);
    expect(sem(0.1)).toBeGreaterThanOrEqual(sem());
    expect(
      checkItem('squatCheck', { item: 'squat', view: 'side', tries: [{ faults: [], picture: { words: 'x', error: 3 } }] })[0]!.message,
    ).toContain('allowed: null');
  });
});
