import { limited } from '../testing/limits.js';
import { drawScene, protocolOfId } from '../catalogue/index.js';
import { bothTouched, touchOf, touchOfItems } from '../imposes/index.js';
import { cautionsFor } from '../plan/cautions.js';
import { allowedDoing, type Precaution } from '../precaution/index.js';
import type { Side } from '../terms.js';
import {
  checkItem,
  everyItem,
  FAULT_IDS,
  findItem,
  findScreen,
  gradeItem,
  itemId,
  itemReasonWords,
  screensFor,
  SCREENS,
  seriesOfItems,
  settingsOn,
  NO_SETTINGS,
  thresholdWords,
  type FaultId,
  type ScreenDay,
  type ScreenItem,
  type ScreenSettings,
} from './index.js';

const EACH = SCREENS.flatMap((screen) => everyItem(screen).map((item) => ({ screen, item, id: itemId(screen.id, item.id) })));
const item = (id: string): ScreenItem => EACH.find((one) => one.id === id)!.item;

describe('screens as data', () => {
  it('are the nine families, with the items that other tools name', () => {
    expect(SCREENS.map(({ id }) => id)).toEqual(
      'patterns loadingReadiness squatCheck jointCircles hipSixWays tableExam posture floorPath quickMarkers'.split(' '),
    );
    const named: Readonly<Record<string, string>> = {
      patterns: 'chinToChest lookUp lookOver toeTouch leanBack turn squat',
      loadingReadiness:
        'elbowLift reachOver reachBehind wallArms wallStick palmLean turn toeTouch legRaise elbowToInstep kneeToWall kneeToWallKneeling sitBack chestRaise',
      squatCheck: 'squat rockBack',
      hipSixWays: 'kneeLift legRaise legBack edgeDrop sideLift stepAcross pelvisOverLeg heelToShin kneeDownCrossed',
    };
    for (const [screen, items] of Object.entries(named))
      expect(findScreen(screen)!.items.map(({ id }) => id))
        .withContext(screen)
        .toEqual(items.split(' '));
  });

  it('say everything of every item: set-up, words, what meets, what it does to the body, a figure', () => {
    expect(new Set(EACH.map(({ id }) => id)).size).toBe(EACH.length);
    for (const { item: one, id } of EACH) {
      for (const text of [one.name, one.setUp, one.say, one.meets, one.painQuestion, one.source.cite])
        expect(text).withContext(id).not.toBe('');
      expect(one.imposes.length).withContext(`${id} declares what it imposes`).toBeGreaterThan(0);
      expect(drawScene(one.figure).limbs.length).withContext(id).toBeGreaterThan(0);
      for (const scene of Object.values(one.figureFrom)) expect(drawScene(scene).limbs.length).toBeGreaterThan(0);
      if (one.threshold) expect(one.threshold.source.cite).withContext(id).not.toBe('');
      for (const { protocol, mode } of one.near) expect(protocolOfId(protocol)!.modes).withContext(id).toContain(mode);
      expect(one.tries).toBeGreaterThan(0);
      expect(one.minutes).toBeGreaterThan(0);
    }
  });

  it('have thresholds that the item can hold, in its own unit', () => {
    for (const { item: one, id } of EACH) {
      if (!one.threshold || one.answered.by !== 'amount') {
        expect(one.threshold).withContext(id).toBeNull();
        continue;
      }
      expect(one.threshold.unit).withContext(id).toBe(one.answered.unit);
      expect(one.threshold.value >= one.answered.min && one.threshold.value <= one.answered.max)
        .withContext(id)
        .toBeTrue();
    }
  });

  it('use every fault, and show faults of views only where there are views', () => {
    expect(FAULT_IDS.filter((fault) => !EACH.some(({ item: one }) => one.faults.some(({ id }) => id === fault)))).toEqual([]);
    for (const { item: one, id } of EACH)
      for (const fault of one.faults) {
        if (one.views.length === 0) expect(fault.views).withContext(`${id} ${fault.id}`).toEqual([]);
        else expect(fault.views.length).withContext(`${id} ${fault.id}`).toBeGreaterThan(0);
      }
  });

  it('leave nothing by hand to be done at home, and nothing that needs a catcher', () => {
    for (const { item: one, id } of EACH)
      if (one.atHome) {
        expect(one.mode).withContext(id).toBe('active');
        expect(one.caution ?? '')
          .withContext(id)
          .not.toMatch(/catch|reach|licensed/);
      }
  });
});

describe('items that are asked in another way than before', () => {
  it('begin a series of their own; what was answered before is graded as it was, under its old words', () => {
    const formers = SCREENS.flatMap((screen) => screen.former.map((one) => ({ screen, one })));
    expect(formers.length).toBe(10);
    for (const { screen, one } of formers) {
      expect(screen.items.filter(({ formerly }) => formerly === one.id).length)
        .withContext(one.id)
        .toBe(1);
      expect(one.name).toMatch(/ \(as asked before\)$/);
      expect(screen.version).toBeGreaterThan(1);
    }
    const done = (id: string) => ({ item: id, side: 'left' as const, tries: [{ value: 50, faults: [] }] });
    const day = (visit: number, on: string, id: string): ScreenDay => ({
      visit,
      on,
      screens: SCREENS,
      done: [{ screen: 'hipSixWays', screenedOn: on, items: [done(id)] }],
    });
    const series = seriesOfItems([day(0, '2026-11-01', 'pelvisTurn'), day(1, '2026-12-02', 'pelvisOverLeg')], 1);
    expect(series.map(({ item: id, points, isCurrent }) => [id, points.length, points[0]!.quality, isCurrent])).toEqual([
      ['pelvisTurn', 1, 'meets', false],
      ['pelvisOverLeg', 1, 'meets', true],
    ]);
  });

  it('take the place of the old ones in a clinic’s own screens, hidden where those were', () => {
    const settings: ScreenSettings = {
      ...NO_SETTINGS,
      hidden: ['hipSixWays.wallExtension'],
      own: [{ id: 'ours', version: 1, name: 'Ours', purpose: '', items: ['hipSixWays.pelvisTurn', 'loadingReadiness.kneeToWallKneeling'] }],
    };
    const screens = screensFor(SCREENS, settings);
    const ours = findScreen('ours', screens)!;
    expect(ours.items.map(({ id }) => id)).toEqual(['hipSixWays.pelvisOverLeg', 'loadingReadiness.kneeToWallKneeling']);
    expect(ours.items.map(({ orElse }) => orElse)).toEqual([null, null]);
    expect(ours.former.map(({ id }) => id)).toEqual(['hipSixWays.pelvisTurn']);
    const hip = findScreen('hipSixWays', screens)!.items.map(({ id }) => id);
    expect(hip).not.toContain('legBack');
    expect(hip).toContain('pelvisOverLeg');
  });

  it('come in pairs that know each other where one is done in place of the other', () => {
    const pairs = EACH.filter((one) => one.item.orElse !== null);
    expect(pairs.map(({ id }) => id)).toEqual(['loadingReadiness.kneeToWall', 'loadingReadiness.kneeToWallKneeling']);
    for (const { screen, item: one } of pairs) expect(findItem(screen, one.orElse!)!.orElse).toBe(one.id);
  });

  it('count a rise of the hips at the end of the press-up as noted, and no fault', () => {
    const grade = (...faults: FaultId[]) =>
      gradeItem(findScreen('loadingReadiness')!, item('loadingReadiness.chestRaise'), {
        item: 'chestRaise',
        tries: [{ meets: true, faults }],
      }).quality;
    expect(grade('hipsLift')).toBe('meets');
    expect(grade('hipsLift', 'elbowsBend')).toBe('short');
  });

  it('tell of both arms at once, in one row', () => {
    const grade = (answer: string) =>
      gradeItem(findScreen('tableExam')!, item('tableExam.armsLiftUp'), { item: 'armsLiftUp', tries: [{ answer }] }).quality;
    expect(['even', 'oneLower', 'drags', 'notLifted'].map(grade)).toEqual(['meets', 'short', 'short', 'short']);
  });
});

describe('precautions over items', () => {
  const held = (motion: Precaution['motion'], more: Partial<Precaution> = {}): Precaution => ({
    motion,
    limit: null,
    until: null,
    source: 'the surgeon',
    ...more,
  });
  const kind = (id: string, by: Precaution, side: Side = 'left') => allowedDoing(item(id), side, limited([by], '2026-11-20')).kind;

  it('hold by anatomy', () => {
    expect(kind('squatCheck.squat', held('knee.flexion', { limit: 30 }))).toBe('forbidden');
    expect(kind('patterns.squat', held('hip.flexion', { limit: 90, side: 'right' }), 'midline')).toBe('forbidden');
    expect(kind('hipSixWays.edgeDrop', held('hip.flexion', { limit: 90, side: 'right' }), 'left'))
      .withContext('the other knee is hugged')
      .toBe('forbidden');
    expect(kind('hipSixWays.edgeDrop', held('hip.flexion', { limit: 90, side: 'left' }), 'left')).toBe('free');
    expect(kind('patterns.toeTouch', held('lumbar.flexion'))).toBe('forbidden');
    expect(kind('patterns.chinToChest', held('cervical.flexion'))).toBe('forbidden');
    expect(kind('loadingReadiness.kneeToWall', held('ankle.dorsiflexion'), 'right')).toBe('forbidden');
    expect(kind('loadingReadiness.reachBehind', held('shoulder.internalRotation', { side: 'left' }), 'left')).toBe('forbidden');
    expect(kind('loadingReadiness.reachBehind', held('shoulder.internalRotation', { side: 'left' }), 'right')).toBe('free');
    expect(kind('loadingReadiness.chestRaise', held('lumbar.extension'), 'midline')).toBe('forbidden');
    expect(kind('tableExam.armHeldDown', held('shoulder.flexion', { kind: 'resisted' }))).toBe('forbidden');
    expect(kind('posture.stanceOpen', held('ankle.dorsiflexion', { kind: 'single-leg' }))).toBe('forbidden');
    expect(kind('posture.sideView', held('knee.flexion'))).toBe('free');
  });

  it('are limits of degrees too', () => {
    expect(kind('loadingReadiness.elbowLift', held('shoulder.flexion', { limit: 90 }))).toBe('forbidden');
    // The elbow goes as high as it goes: no figure can hold it.
    expect(kind('loadingReadiness.elbowLift', held('shoulder.flexion', { limit: 170 }))).toBe('forbidden');
    expect(kind('loadingReadiness.elbowLift', held('elbow.flexion', { limit: 140 }))).toBe('free');
    expect(kind('loadingReadiness.elbowLift', held('elbow.flexion', { limit: 110 }))).toBe('forbidden');
  });
});

describe('what does not fit an item', () => {
  const wrong = (screen: string, entered: Parameters<typeof checkItem>[1]) =>
    checkItem(screen, entered).map(({ path, message }) => `${path.join('.')}: ${message}`);
  const tries = [{ faults: [] }];

  it('is told with its place and what is allowed', () => {
    expect(wrong('squatcheck', { item: 'squat', tries })).toEqual([
      `screen: "squatcheck" is no screen; allowed: ${SCREENS.map(({ id }) => id).join(', ')}`,
    ]);
    expect(wrong('squatCheck', { item: 'jump', tries })).toEqual(['item: "jump" is no item of squatCheck; allowed: squat, rockBack']);
    expect(wrong('squatCheck', { item: 'squat', view: 'above', tries })).toEqual([
      'view: "above" is no view of squat; allowed: front, side, behind',
    ]);
    expect(wrong('squatCheck', { item: 'squat', view: 'front', tries: [{ faults: ['heelLifts'] }] })).toEqual([
      'tries.0.faults.0: "heelLifts" is seen from side, not from front; allowed: footTurnsOut, footFlattens, kneeRollsIn, kneeRollsOut',
    ]);
    expect(wrong('squatCheck', { item: 'squat', view: 'front', tries: [{ faults: ['wobbles'] }] })[0]).toMatch(
      /^tries\.0\.faults\.0: "wobbles" is no fault; allowed: footTurnsOut/,
    );
    expect(wrong('squatCheck', { item: 'squat', view: 'front', tries: [{ faults: ['ribsFlare'] }] })[0]).toMatch(
      /"ribsFlare" is no fault of squat; allowed: /,
    );
    expect(wrong('squatCheck', { item: 'squat', view: 'side', with: ['shoes'], tries })).toEqual([
      'with.0: "shoes" is no change of squat; allowed: heelsRaised, handsOnHips, oneSideLoaded',
    ]);
    expect(wrong('loadingReadiness', { item: 'kneeToWall', side: 'left', tries: [{ value: 40 }] })).toEqual([
      'tries.0.value: 40 cm is more than kneeToWall can hold; allowed: 0 to 25 cm',
    ]);
    expect(wrong('loadingReadiness', { item: 'kneeToWall', side: 'left', tries: [{ value: 40, unit: 'deg' }] })).toEqual([
      'tries.0.unit: "deg" does not fit kneeToWall; allowed: cm, in',
    ]);
    expect(wrong('loadingReadiness', { item: 'kneeToWall', tries: [{ value: 4 }] })).toEqual(['side: is missing; allowed: left, right']);
    expect(wrong('patterns', { item: 'toeTouch', side: 'left', tries: [{ value: 4 }] })).toEqual([
      'side: "left" does not fit toeTouch, which has no sides; allowed: midline, or leave it out',
    ]);
    expect(wrong('patterns', { item: 'leanBack', tries: [{ value: 4 }] })).toEqual([
      'tries.0.value: leanBack is not told by a number; leave it out',
    ]);
    expect(wrong('patterns', { item: 'toeTouch', view: 'side', tries: [{ unit: 'cm' }] })).toEqual([
      'view: does not belong to toeTouch; leave it out',
      'tries.0.unit: stands without a value; leave it out',
    ]);
    expect(wrong('patterns', { item: 'toeTouch', tries: [] })).toEqual([
      'tries: is empty; allowed: at least one try, or "skipped" with the reason',
    ]);
    expect(wrong('patterns', { item: 'toeTouch', tries: [], skipped: 'dizzy today' })).toEqual([]);
    expect(wrong('tableExam', { item: 'touchSeat', side: 'left', tries: [{ answer: 'aches' }] })).toEqual([
      'tries.0.answer: "aches" is not an answer; allowed: nothing, tickles, hurts',
    ]);
    expect(wrong('tableExam', { item: 'legLift', side: 'left', tries: [{ felt: ['nose'] }] })[0]).toMatch(
      /^tries\.0\.felt\.0: "nose" is not asked for; allowed: seat, backOfThigh/,
    );
    expect(
      wrong('patterns', {
        item: 'leanBack',
        tries: [{ sector: { from: 4, to: 6 }, felt: [], answer: 'x', lines: { shin: 30, trunk: 40 } }],
      }).map((line) => line.split(':')[0]),
    ).toEqual(['tries.0.sector', 'tries.0.lines', 'tries.0.felt', 'tries.0.answer']);
    expect(wrong('squatCheck', { item: 'squat', side: 'upper', tries })).toEqual([
      'side: "upper" is no side; allowed: left, right, midline',
    ]);
  });

  it('leaves what fits alone: a unit that can be converted, a side where there may be one', () => {
    expect(wrong('loadingReadiness', { item: 'kneeToWall', side: 'left', tries: [{ value: 4, unit: 'in' }] })).toEqual([]);
    expect(
      wrong('squatCheck', {
        item: 'squat',
        view: 'side',
        side: 'left',
        with: ['heelsRaised'],
        tries: [{ faults: ['heelLifts'], pain: 0 }],
      }),
    ).toEqual([]);
    expect(wrong('jointCircles', { item: 'hip', side: 'left', tries: [{ sector: { from: 4, to: 6 } }] })).toEqual([]);
  });
});

describe('a clinic’s own screens', () => {
  const settings: ScreenSettings = {
    since: '2026-03-01',
    thresholds: { 'loadingReadiness.kneeToWall': 10, 'patterns.leanBack': 3 },
    hidden: ['patterns.leanBack'],
    own: [
      {
        id: 'runners',
        version: 1,
        name: 'Runners',
        purpose: 'Ours',
        items: ['loadingReadiness.kneeToWall', 'posture.stanceOpen', 'gone.item'],
      },
    ],
  };

  it('change thresholds, hide items, and are put together from others', () => {
    const screens = screensFor(SCREENS, settings);
    const changed = findItem(findScreen('loadingReadiness', screens)!, 'kneeToWall')!.threshold!;
    expect(thresholdWords(changed)).toBe('10 cm or more (this clinic)');
    expect(thresholdWords(item('loadingReadiness.kneeToWall').threshold!)).toBe('8.5 cm or more (common practice, no source)');
    expect(findItem(findScreen('patterns', screens)!, 'leanBack')).toBeUndefined();
    const own = findScreen('runners', screens)!;
    expect(own.items.map(({ id }) => id)).toEqual(['loadingReadiness.kneeToWall', 'posture.stanceOpen']);
    expect(own.items[0]!.threshold!.value).toBe(10);
    expect(screensFor(SCREENS)).toEqual(SCREENS.map((screen) => ({ ...screen })));
  });

  it('hold from their day on, so that old results keep their meaning', () => {
    const later: ScreenSettings = { ...settings, since: '2026-06-01', thresholds: {} };
    expect(settingsOn([later, settings], '2026-02-28')).toBe(NO_SETTINGS);
    expect(settingsOn([later, settings], '2026-03-01')).toBe(settings);
    expect(settingsOn([later, settings], '2026-05-31')).toBe(settings);
    expect(settingsOn([later, settings], '2026-06-01')).toBe(later);
  });
});

describe('reasons in words', () => {
  it('say what was not judged as that', () => {
    expect(itemReasonWords({ kind: 'not-judged', why: 'skipped', said: 'dizzy' })).toBe('not judged: left out, dizzy');
    expect(itemReasonWords({ kind: 'not-judged', why: 'not-told', said: '' })).toBe('not judged: nothing was told of how it went');
    expect(itemReasonWords({ kind: 'not-judged', why: 'no-try', said: '' })).toBe('not judged: not done');
    expect(itemReasonWords({ kind: 'not-judged', why: 'no-threshold', said: '' })).toBe(
      'not judged by itself: compared with the next time',
    );
  });
});

describe('cautions before a screen', () => {
  const asked = (id: string) => cautionsFor(touchOfItems(findScreen(id)!.items)).map((question) => question.id);

  it('are asked by what its items do to the body', () => {
    expect(asked('patterns')).toEqual(jasmine.arrayContaining(['neck-artery', 'clot-leg', 'fracture']));
    expect(asked('squatCheck')).toContain('clot-leg');
    expect(asked('squatCheck')).not.toContain('neck-artery');
    const eyes = touchOfItems(findScreen('posture')!.items.filter(({ id }) => id === 'stanceClosed'));
    expect([...eyes.traits]).toEqual(jasmine.arrayContaining(['balance', 'eyes-closed', 'effort']));
    const both = bothTouched(touchOf([{ protocol: 'wrist.flexion/sitting', mode: 'passive' }]), eyes);
    expect([both.joints.has('wrist'), both.joints.has('ankle'), both.traits.has('by-hand')]).toEqual([true, true, true]);
  });
});
