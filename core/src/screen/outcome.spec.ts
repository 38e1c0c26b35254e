import { assess, draftSummary } from '../finding/index.js';
import type { Assessment } from '../assessment.js';
import { itemName, screenOutcomes, screenSummary, type ItemDone, type ItemTry, type ScreenDone } from './index.js';

const done = (screen: string, on: string, ...items: ItemDone[]): ScreenDone => ({ screen, screenedOn: on, items });
const item = (name: string, one: ItemTry, more: Partial<ItemDone> = {}): ItemDone => ({ item: name, tries: [one], ...more });
const wall = (value: number, side: 'left' | 'right' = 'left', more: Partial<ItemTry> = {}) =>
  item('kneeToWall', { value, ...more }, { side });

describe('what a screen came to', () => {
  const changes = (before: ItemDone, now: ItemDone, screen = 'loadingReadiness') =>
    screenOutcomes([done(screen, '2026-11-20', now)], [done(screen, '2026-10-20', before)])[0]!.before;

  it('is held against the last time by the item’s own error, whichever way is good', () => {
    expect(changes(wall(4), wall(8))).toEqual(jasmine.objectContaining({ on: '2026-10-20', value: 4, quality: 'short', change: 'better' }));
    expect(changes(wall(8), wall(4))!.change).toBe('worse');
    expect(changes(wall(8), wall(8.5))!.change).toBe('same');
    expect(changes(item('toeTouch', { value: 24 }), item('toeTouch', { value: 2 }), 'patterns')!.change).toBe('better');
    expect(changes(item('toeTouch', { value: 2 }), item('toeTouch', { value: 24 }), 'patterns')!.change).toBe('worse');
    // No threshold: the measurement it stands near says which way is good.
    expect(changes(item('toeTouch', { value: 24 }), item('toeTouch', { value: 2 }), 'quickMarkers')!.change).toBe('better');
    expect(changes(item('waistGirth', { value: 90 }), item('waistGirth', { value: 80 }), 'posture')!.change)
      .withContext('a girth is neither')
      .toBe('same');
  });

  it('is told by quality where no amount is, and not where one of the two was not judged', () => {
    const lean = (meets: boolean | null) => item('leanBack', { meets });
    expect(changes(lean(false), lean(true), 'patterns')!.change).toBe('better');
    expect(changes(lean(true), lean(false), 'patterns')!.change).toBe('worse');
    expect(changes(lean(true), lean(true), 'patterns')!.change).toBe('same');
    expect(changes(lean(null), lean(true), 'patterns')!.change).toBe('not told');
  });

  it('is never held against another side, view or change, and takes the latest of several times', () => {
    expect(changes(wall(4, 'right'), wall(8))).toBeNull();
    const squat = (view: 'side' | 'front', changed: ItemDone['with'] = []) => item('squat', { faults: [] }, { view, with: changed });
    expect(changes(squat('front'), squat('side'), 'squatCheck')).toBeNull();
    expect(changes(squat('side', ['heelsRaised']), squat('side'), 'squatCheck')).toBeNull();
    const before = [done('loadingReadiness', '2026-08-01', wall(2)), done('loadingReadiness', '2026-10-01', wall(7.5))];
    expect(screenOutcomes([done('loadingReadiness', '2026-11-20', wall(8))], before)[0]!.before).toEqual(
      jasmine.objectContaining({ on: '2026-10-01', change: 'same' }),
    );
  });

  it('leaves out a screen that this version does not know', () => {
    expect(screenOutcomes([done('gone', '2026-11-20', wall(8)), done('loadingReadiness', '2026-11-20', wall(8))]).length).toBe(1);
  });
});

describe('screens in a summary', () => {
  const sums = (...screens: ScreenDone[]) => screenSummary(screenOutcomes(screens));

  it('say what meets, what is short and by what, what hurts, what was not judged', () => {
    expect(
      sums(
        done('loadingReadiness', '2026-11-20', wall(4), wall(11, 'right', { pain: 3, painWhere: 'ankle' }), item('chestRaise', {})),
        done(
          'squatCheck',
          '2026-11-20',
          item('squat', { faults: ['heelLifts'] }, { view: 'side', side: 'left' }),
          item('squat', { faults: [] }, { view: 'side', side: 'left', with: ['heelsRaised'] }),
        ),
      ),
    ).toEqual([
      'Screened: 5 items, 2 meet.',
      'Short on the screen: left knee to wall (4 cm) and left squat from the side (heel lifts).',
      'Hurts on the screen, to be looked at before it is worked on: right knee to wall (3 of 10, ankle).',
      'The sides differ by more than error: knee to wall (right 7 cm more).',
      'Not judged on the screen: chest raised by the arms, face down.',
    ]);
    expect(sums(done('patterns', '2026-11-20', item('leanBack', { meets: true })))).toEqual(['Screened: 1 item, 1 meets.']);
    expect(sums()).toEqual([]);
  });

  it('do not work on what hurts, also where it is short', () => {
    expect(sums(done('loadingReadiness', '2026-11-20', wall(4, 'left', { pain: 5 }))).join(' ')).not.toContain('Short on the screen');
  });

  it('draft front and back of a table exam, with the weaker side', () => {
    const lift = (name: string, side: 'left' | 'right', ...felt: NonNullable<ItemTry['felt']>) => item(name, { felt }, { side });
    const lines = sums(
      done(
        'tableExam',
        '2026-11-20',
        lift('legHeld', 'left', 'thighFront'),
        lift('legHeld', 'right', 'thighFront'),
        lift('proneLift', 'left', 'seat', 'calf'),
        lift('proneLift', 'right', 'seat', 'backOfThigh'),
      ),
    );
    expect(lines).toContain('Front: left 0 of 1 short, right 0 of 1 short.');
    expect(lines).toContain('Back: left 1 of 1 short, right 0 of 1 short; the left side is the weaker one.');
    expect(lines).toContain('Short on the screen: left straight leg lifted, face down (felt in the calf).');
  });

  it('say which side gives more where that is past error, and nothing of what is within it', () => {
    const told = (left: number, right: number) =>
      sums(done('loadingReadiness', '2026-11-20', wall(left), wall(right, 'right'))).filter((line) => line.startsWith('The sides'));
    expect(told(11, 7)).toEqual(['The sides differ by more than error: knee to wall (left 4 cm more).']);
    expect(told(11, 10.5)).toEqual([]);
    const reach = (value: number, side: 'left' | 'right') => item('reachOver', { value }, { side });
    expect(sums(done('loadingReadiness', '2026-11-20', reach(0, 'left'), reach(9, 'right')))).toContain(
      'The sides differ by more than error: reach over the shoulder (right 9 cm more left over).',
    );
  });

  it('tell what became better and what worse', () => {
    const outcomes = screenOutcomes(
      [done('loadingReadiness', '2026-11-20', wall(8), wall(6, 'right'))],
      [done('loadingReadiness', '2026-10-20', wall(4), wall(11, 'right'))],
    );
    expect(screenSummary(outcomes)).toEqual(
      jasmine.arrayContaining([
        'Better than last time on the screen: left knee to wall.',
        'Worse than last time on the screen: right knee to wall.',
      ]),
    );
    expect(itemName({ name: 'Squat', side: 'midline', view: 'behind', with: ['heelsRaised', 'handsOnHips'] })).toBe(
      'squat from behind with heels raised with hands on the hips',
    );
  });

  it('stand in the summary of the visit, beside what was measured or alone', () => {
    const visit = (over: Partial<Assessment>): Assessment => ({
      person: { birthDate: '1984-05-02', sex: 'female' },
      assessedOn: '2026-11-20',
      measurements: [],
      ...over,
    });
    const screens = [done('loadingReadiness', '2026-11-20', wall(4))];
    const alone = assess(visit({ screens }));
    expect(alone.screens!.length).toBe(1);
    expect(draftSummary(alone)).toBe('Screened: 1 item, 0 meets.\nShort on the screen: left knee to wall (4 cm).');
    const hip = {
      motion: 'hip.flexion',
      side: 'left',
      mode: 'passive',
      position: 'supine',
      instrument: 'goniometer',
      trials: [{ end: 60 }],
    } as const;
    const both = draftSummary(assess(visit({ screens, measurements: [hip] })));
    expect(both).toMatch(/^Short of normal: left hip flexion/);
    expect(both).toContain('Screened: 1 item');
    expect('screens' in assess(visit({ measurements: [hip] }))).toBeFalse();
  });
});
