import { screensFor, SCREENS, seriesOfItems, NO_SETTINGS, type ItemDone, type ItemTry, type ScreenDay } from './index.js';

const wall = (value: number, side: 'left' | 'right' = 'left', more: Partial<ItemTry> = {}): ItemDone => ({
  item: 'kneeToWall',
  side,
  tries: [{ value, ...more }],
});
const day = (visit: number, ...items: ItemDone[]): ScreenDay => {
  const on = `2026-${String(visit + 1).padStart(2, '0')}-10`;
  return { visit, on, done: [{ screen: 'loadingReadiness', screenedOn: on, items }], screens: SCREENS };
};

describe('items over the visits', () => {
  it('have a point a visit, in the order they were first met, and the change since the first and the last', () => {
    const [left, right] = seriesOfItems([day(0, wall(4), wall(9, 'right')), day(1, wall(6.5)), day(2, wall(9), wall(9.1, 'right'))], 2);
    expect(left!.points.map(({ on, value, quality }) => [on, value, quality])).toEqual([
      ['2026-01-10', 4, 'short'],
      ['2026-02-10', 6.5, 'short'],
      ['2026-03-10', 9, 'meets'],
    ]);
    expect(left!.sinceFirst).toEqual(jasmine.objectContaining({ on: '2026-01-10', value: 4, change: 'better' }));
    expect(left!.sinceLast).toEqual(jasmine.objectContaining({ on: '2026-02-10', value: 6.5, change: 'better' }));
    expect(right!.points.map(({ visit }) => visit)).toEqual([0, 2]);
    expect(right!.sinceFirst!.change).toBe('same');
    expect(right!.sinceLast).toEqual(right!.sinceFirst);
  });

  it('seen once have no change, and are not current where the last visit does not have them', () => {
    const [left, right] = seriesOfItems([day(0, wall(4)), day(1, wall(9, 'right'))], 1);
    expect([left!.sinceFirst, left!.sinceLast, left!.isCurrent]).toEqual([null, null, false]);
    expect(right!.isCurrent).toBeTrue();
    expect(seriesOfItems([], 0)).toEqual([]);
  });

  it('keep what held on their day; another threshold makes nobody better', () => {
    const lower = screensFor(SCREENS, { ...NO_SETTINGS, thresholds: { 'loadingReadiness.kneeToWall': 5 } });
    const [series] = seriesOfItems([day(0, wall(6)), { ...day(1, wall(6)), screens: lower }], 1);
    expect(series!.points.map(({ quality, threshold }) => [quality, threshold])).toEqual([
      ['short', 8.5],
      ['meets', 5],
    ]);
    expect(series!.sinceFirst!.change).toBe('same');
    const told = (meets: boolean): ItemDone => ({ item: 'kneeToWall', side: 'left', tries: [{ meets }] });
    expect(seriesOfItems([day(0, told(false)), day(1, told(true))], 1)[0]!.sinceFirst!.change).toBe('better');
  });

  it('keep pain and faults of every time, and are told apart by side, view and what was changed', () => {
    const squat = (view: 'front' | 'side', more: Partial<ItemDone> = {}, one: ItemTry = { faults: [] }): ItemDone => ({
      item: 'squat',
      view,
      tries: [one],
      ...more,
    });
    const on = '2026-05-10';
    const days: ScreenDay[] = [
      {
        visit: 0,
        on,
        screens: SCREENS,
        done: [
          {
            screen: 'squatCheck',
            screenedOn: on,
            items: [squat('front', {}, { faults: ['kneeRollsIn'], pain: 2 }), squat('side'), squat('side', { with: ['heelsRaised'] })],
          },
        ],
      },
    ];
    const all = seriesOfItems(days, 0);
    expect(all.map(({ view, with: changes }) => [view, changes])).toEqual([
      ['front', []],
      ['side', []],
      ['side', ['heelsRaised']],
    ]);
    expect(all[0]!.points).toEqual([jasmine.objectContaining({ faults: ['kneeRollsIn'], pain: 2, quality: 'short' })]);
    expect(new Set(all.map(({ key }) => key)).size).toBe(3);
  });
});
