import { errorOf } from '../error/index.js';
import type { Side } from '../terms.js';
import {
  findItem,
  findScreen,
  gradeItem,
  gradeScreen,
  hoursOf,
  itemMdc,
  itemReasonWords,
  oneSided,
  sideDifferences,
  type GradedItem,
  type ItemDone,
  type ItemTry,
} from './index.js';
import { linesFault } from './lines.js';

const grade = (id: string, tries: readonly ItemTry[], more: Partial<ItemDone> = {}): GradedItem => {
  const [screen, name] = id.split('.') as [string, string];
  const item = findItem(findScreen(screen)!, name)!;
  return gradeItem(findScreen(screen)!, item, { item: name, tries, ...(item.sides === 'each' ? { side: 'left' as Side } : {}), ...more });
};
const words = ({ reasons }: GradedItem) => reasons.map(itemReasonWords);

describe('a grade', () => {
  it('is by the number where there is one, against a threshold with its source', () => {
    const short = grade('loadingReadiness.kneeToWall', [{ value: 4, pain: 0 }]);
    expect([short.quality, short.pain, short.value, short.unit]).toEqual(['short', 0, 4, 'cm']);
    expect(words(short)).toEqual(['4 cm, short of 8.5 cm or more (common practice, no source)']);
    expect(short.opens).toEqual(['dorsiflexionStuck']);
    expect(grade('loadingReadiness.kneeToWall', [{ value: 8.5 }]).quality).toBe('meets');
    expect(grade('patterns.toeTouch', [{ value: 0 }]).quality).toBe('meets');
    expect(grade('patterns.toeTouch', [{ value: 0.5 }]).quality).toBe('short');
    expect(grade('loadingReadiness.kneeToWall', [{ value: 4, unit: 'in' }]).value).toBeCloseTo(10.16, 10);
  });

  it('says where the number lies inside its error', () => {
    expect(words(grade('loadingReadiness.kneeToWall', [{ value: 8 }]))[0]).toBe(
      '8 cm, short of 8.5 cm or more (common practice, no source); the difference is inside the error of the reading',
    );
    expect(grade('loadingReadiness.legRaise', [{ value: 75 }]).sem).toBe(
      errorOf({
        motion: 'muscleLength.straightLegRaise',
        instrument: 'inclinometer',
        protocol: 'muscleLength.straightLegRaise/supine',
        value: 75,
      }).sem,
    );
  });

  it('is never fine where nothing was told', () => {
    for (const tries of [[{}], [{ pain: 0 }], [{ meets: null }]]) expect(grade('patterns.leanBack', tries).quality).toBe('not judged');
    expect(grade('patterns.leanBack', [], { skipped: 'dizzy' }).quality).toBe('not judged');
    expect(words(grade('patterns.leanBack', [], { skipped: 'dizzy' }))).toEqual(['not judged: left out, dizzy']);
    expect(grade('patterns.leanBack', [{ pain: 0 }]).pain).toBe(0);
    expect(grade('patterns.leanBack', [{ meets: true }]).pain).toBeNull();
    expect(grade('patterns.toeTouch', [{ faults: [] }]).quality)
      .withContext('no number, no word')
      .toBe('not judged');
    expect(grade('quickMarkers.toeTouch', [{ value: 3 }]).quality)
      .withContext('no threshold')
      .toBe('not judged');
    expect(grade('squatCheck.squat', [{ faults: [] }]).quality)
      .withContext('from no view')
      .toBe('not judged');
  });

  it('is what the examiner says, where no number is', () => {
    expect(grade('patterns.leanBack', [{ meets: true }]).quality).toBe('meets');
    expect(grade('patterns.leanBack', [{ meets: false }]).quality).toBe('short');
    expect(grade('patterns.toeTouch', [{ meets: true }]).quality).toBe('meets');
  });

  it('is short with a fault, also where the number was reached by it', () => {
    const cheat = grade('loadingReadiness.kneeToWall', [{ value: 12, faults: ['heelLifts'] }]);
    expect(cheat.quality).toBe('short');
    expect(words(cheat)).toEqual(['12 cm; wanted: 8.5 cm or more (common practice, no source)', 'seen: heel lifts']);
    expect(grade('patterns.leanBack', [{ meets: true, faults: ['kneesBend'] }]).quality).toBe('short');
  });

  it('is of the better try, and keeps the worse pain', () => {
    const twice = grade('loadingReadiness.kneeToWall', [
      { value: 9, pain: 3, painWhere: 'in front' },
      { value: 6, pain: 1 },
    ]);
    expect([twice.value, twice.quality, twice.pain, twice.painWhere]).toEqual([9, 'meets', 3, 'in front']);
    expect(words(twice)).toContain('the better of 2 tries counts');
    expect(grade('patterns.toeTouch', [{ value: 9 }, { value: 2 }]).value).toBe(2);
    expect(
      grade('loadingReadiness.kneeToWall', [
        { value: 12, faults: ['kneeRollsIn'] },
        { value: 9, faults: [] },
      ]).quality,
    )
      .withContext('the clean one')
      .toBe('meets');
    expect(
      grade('loadingReadiness.kneeToWall', [
        { value: 4, faults: ['kneeRollsIn', 'heelLifts'] },
        { value: 4, faults: ['heelLifts'] },
      ]).faults,
    ).toEqual(['heelLifts']);
  });

  it('keeps pain and quality apart, and opens nothing that hurts', () => {
    const painful = grade('loadingReadiness.kneeToWall', [{ value: 4, pain: 4, painWhere: 'ankle' }]);
    expect([painful.quality, painful.pain, painful.opens]).toEqual(['short', 4, []]);
    expect(words(painful)).toContain('hurts, 4 of 10: ankle');
    expect(words(grade('loadingReadiness.kneeToWall', [{ value: 4, pain: 4 }]))).toContain('hurts, 4 of 10');
  });

  it('asks the question of each fault', () => {
    const seen = (view: 'front' | 'side' | 'behind', ...faults: NonNullable<ItemTry['faults']>) =>
      grade('squatCheck.squat', [{ faults }], { view }).opens;
    expect(seen('side', 'heelLifts')).toEqual(['squat.heelLifts']);
    expect(seen('front', 'kneeRollsIn', 'footFlattens')).toEqual(['squat.footFlattens', 'squat.kneeRollsIn']);
    expect(seen('behind', 'hipDrops', 'pelvisShifts')).toEqual(['squat.leans']);
    expect(grade('patterns.squat', [{ meets: false }]).opens).toEqual(['squat.notDeep']);
    expect(grade('squatCheck.squat', [{ faults: [] }], { view: 'side' }).quality).toBe('meets');
  });

  it('of three lifts is that of their mean', () => {
    const lifts = grade('tableExam.armsOut', [{ value: 10 }, { value: 14 }, { value: 18, faults: ['shoulderLifts'] }]);
    expect([lifts.value, lifts.quality, lifts.faults]).toEqual([14, 'short', ['shoulderLifts']]);
    expect(grade('tableExam.armsOut', [{ meets: true }, { meets: false }]).quality).toBe('short');
  });

  it('of a circle is what is cut off, told as motions', () => {
    const hip = grade('jointCircles.hip', [{ sector: { from: 4, to: 6 } }]);
    expect([hip.quality, hip.missing]).toEqual(['short', ['hip.extension']]);
    expect(words(hip)).toEqual(['cut off from 4 to 6 o’clock (hip extension)']);
    expect(grade('jointCircles.hip', [{ sector: null }]).quality).toBe('meets');
    expect(grade('jointCircles.hip', [{ sector: { from: 11, to: 1 } }]).missing).toEqual(['hip.flexion']);
    expect(words(grade('jointCircles.blade', [{ sector: { from: 1, to: 2 } }]))).toEqual(['cut off from 1 to 2 o’clock']);
    expect(hoursOf(11, 2)).toEqual([11, 12, 1, 2]);
    expect(hoursOf(3, 3)).toEqual([3]);
  });

  it('of a lift is where the work was felt', () => {
    expect(grade('tableExam.legLift', [{ felt: ['seat', 'backOfThigh'] }]).quality).toBe('meets');
    const calf = grade('tableExam.legLift', [{ felt: ['seat', 'calf'] }]);
    expect([calf.quality, words(calf)[0]]).toEqual(['short', 'felt in the seat, and in the calf, where it is not wanted']);
    expect(words(grade('tableExam.legLift', [{ felt: ['calf'] }]))[0]).toBe('felt in the calf, where it is not wanted');
    expect(words(grade('tableExam.legLift', [{ felt: [] }]))[0]).toBe('felt nowhere where it is wanted');
    expect(grade('tableExam.legLift', [{ felt: [] }]).quality).toBe('short');
  });

  it('of a touch is its answer; what only tickles says nothing of quality', () => {
    const touch = (answer: string) => grade('tableExam.touchSeat', [{ answer }]).quality;
    expect([touch('nothing'), touch('tickles'), touch('hurts')]).toEqual(['meets', 'not judged', 'short']);
  });

  it('of a squat from the side knows the lines of shin and trunk, outside their error', () => {
    expect(linesFault({ shin: 35, trunk: 60 })).toEqual(['trunkFallsForward']);
    expect(linesFault({ shin: 45, trunk: 20 })).toEqual(['trunkTooUpright']);
    expect(linesFault({ shin: 40, trunk: 50 })).toEqual([]);
    expect(linesFault(undefined)).toEqual([]);
    expect(grade('squatCheck.squat', [{ lines: { shin: 45, trunk: 20 } }], { view: 'side' }).opens).toEqual(['squat.trunkTooUpright']);
    const raised = grade('squatCheck.squat', [{ faults: [], lines: { shin: 45, trunk: 20 } }], { view: 'side', with: ['heelsRaised'] });
    expect([raised.opens, raised.quality]).toEqual([[], 'meets']);
    expect(words(raised)[0]).toBe('noted, and no fault by itself with heels raised: trunk too upright');
  });

  it('of a tuck at the very bottom notes it, asks, and is no fault', () => {
    const late = grade('squatCheck.squat', [{ faults: ['pelvisTucksLate'] }], { view: 'side' });
    expect([late.quality, late.opens]).toEqual(['meets', ['squat.pelvisTucks']]);
    expect(words(late)).toEqual([
      'noted, and no fault by itself: pelvis tucks at the very bottom',
      'looked at from the side: no fault seen',
    ]);
  });
});

describe('a screen', () => {
  const screen = findScreen('squatCheck')!;
  const squat = (more: Partial<ItemDone> & { readonly tries: readonly ItemTry[] }): ItemDone => ({ item: 'squat', ...more });

  it('opens nothing of an item that hurts from another view, on that side or as a whole', () => {
    const graded = gradeScreen(screen, {
      screen: 'squatCheck',
      screenedOn: '2026-11-20',
      items: [
        squat({ view: 'side', side: 'left', tries: [{ faults: ['heelLifts'], pain: 0 }] }),
        squat({ view: 'front', side: 'left', tries: [{ faults: ['kneeRollsIn'], pain: 3 }] }),
        squat({ view: 'side', side: 'right', tries: [{ faults: ['heelLifts'], pain: 0 }] }),
      ],
    });
    expect(graded.map(({ opens }) => opens)).toEqual([[], [], ['squat.heelLifts']]);
    const whole = gradeScreen(screen, {
      screen: 'squatCheck',
      screenedOn: '2026-11-20',
      items: [squat({ view: 'side', tries: [{ pain: 2 }] }), squat({ view: 'front', side: 'right', tries: [{ faults: ['kneeRollsIn'] }] })],
    });
    expect(whole.flatMap(({ opens }) => opens)).toEqual([]);
  });

  it('comes in the order of its items', () => {
    const patterns = findScreen('patterns')!;
    const done = {
      screen: 'patterns',
      screenedOn: '2026-11-20',
      items: [
        { item: 'squat', tries: [{ meets: true }] },
        { item: 'chinToChest', tries: [{ value: 0 }] },
      ],
    };
    expect(gradeScreen(patterns, done).map(({ item }) => item.id)).toEqual(['chinToChest', 'squat']);
  });

  it('holds the difference of sides against its error', () => {
    const ready = findScreen('loadingReadiness')!;
    const knees = (left: number, right: number) =>
      sideDifferences(
        gradeScreen(ready, {
          screen: ready.id,
          screenedOn: '2026-11-20',
          items: (['left', 'right'] as const).map((side) => ({
            item: 'kneeToWall',
            side,
            tries: [{ value: side === 'left' ? left : right }],
          })),
        }),
      );
    const [one] = knees(4, 10);
    expect([one!.difference, one!.real]).toEqual([-6, true]);
    expect(one!.mdc95).toBeCloseTo(itemMdc(one!.item, 4), 9);
    expect(knees(9, 9.5)[0]!.real).toBeFalse();
  });

  it('knows what falls short on one side alone', () => {
    const hips = findScreen('hipSixWays')!;
    const at = (left: boolean | null, right: boolean | null) =>
      oneSided(
        gradeScreen(hips, {
          screen: hips.id,
          screenedOn: '2026-11-20',
          items: (['left', 'right'] as const).map((side) => ({
            item: 'heelToShin',
            side,
            tries: [{ meets: side === 'left' ? left : right }],
          })),
        }),
      ).map(({ side }) => side);
    expect(at(false, true)).toEqual(['left']);
    expect(at(false, false)).toEqual([]);
    expect(at(false, null)).withContext('the other side was not judged').toEqual([]);
  });
});
