import { limited } from '../testing/limits.js';
import type { Assessment, Measurement } from '../assessment.js';
import { measureNext } from '../reason/index.js';
import {
  notReached,
  gradedScreens,
  screenOutcomes,
  SCREENS,
  type ItemDone,
  type ItemTry,
  type ScreenDone,
  type ScreenItem,
} from '../screen/index.js';
import { assess, itemFindings, ITEM_KINDS, saidOf, saidOfItem, sideOfItem, silentItems, stageOf, type Ranking } from './index.js';

const done = (screen: string, ...items: ItemDone[]): ScreenDone => ({ screen, screenedOn: '2026-11-20', items });
const item = (name: string, one: ItemTry, more: Partial<ItemDone> = {}): ItemDone => ({ item: name, tries: [one], ...more });
const wall = (value: number, side: 'left' | 'right', more: Partial<ItemTry> = {}) => item('kneeToWall', { value, ...more }, { side });
const outcomesOf = (now: ScreenDone[], before: ScreenDone[] = []) => screenOutcomes(now, before);
const said = (now: ScreenDone[], ranking?: Ranking, complaintAt?: 'shoulder' | 'ankle') =>
  itemFindings(outcomesOf(now), { ranking, complaintAt }).map((f) => `${saidOfItem(f).subject}: ${saidOfItem(f).verdict}`);

describe('what the items of screens say', () => {
  it('is pain first, with the advice to have it looked at, and nothing else of what hurts', () => {
    const found = itemFindings(
      outcomesOf([
        done('loadingReadiness', wall(4, 'left', { pain: 3, painWhere: 'front' }), wall(11, 'right')),
        done('patterns', item('lookUp', { meets: true, pain: 6 }), item('leanBack', { meets: false })),
      ]),
    );
    expect(found.map(({ kind, stage }) => [kind, stage])).toEqual([
      ['item-hurts', 'pain'],
      ['item-hurts', 'pain'],
      ['item-short', 'screen'],
    ]);
    const [worst, second, short] = found.map(saidOfItem);
    expect([worst!.subject, worst!.verdict]).toEqual(['Look up', 'hurts, 6 of 10']);
    expect([second!.subject, second!.verdict]).toEqual(['Left knee to wall', 'hurts, 3 of 10, front']);
    expect(second!.because.at(-1)).toBe('Hurts: have it looked at before it is worked on');
    expect(short!.because).not.toContain('Hurts: have it looked at before it is worked on');
  });

  it('tells the sides apart by the error of a difference where there are amounts', () => {
    // Two readings of the knee to wall by tape: the error of their difference is under 3 cm and over 1.
    expect(said([done('loadingReadiness', wall(9, 'left'), wall(13, 'right'))])).toEqual([
      'Left knee to wall: 4 cm less than the right side',
    ]);
    expect(said([done('loadingReadiness', wall(9, 'left'), wall(9.3, 'right'))])).toEqual([]);
    expect(said([done('loadingReadiness', wall(4, 'left'), wall(4.3, 'right'))])).toEqual(['Knee to wall: short: 4 cm · 4.3 cm']);
    const [one] = itemFindings(outcomesOf([done('loadingReadiness', wall(13, 'left'), wall(9, 'right'))]));
    expect(one!.outcomes.map(({ side }) => side)).toEqual(['right']);
    expect(sideOfItem(one!)).toBe('right');
    expect(one!.sides).toEqual({ difference: 4, mdc95: jasmine.any(Number), real: true });
    expect(saidOfItem(one!).because.some((line) => /^left − right = 4 cm; error of the difference ± [\d.]+ cm$/.test(line))).toBeTrue();
  });

  it('counts down where less left over is better', () => {
    const reach = (value: number, side: 'left' | 'right') => item('overAndBehind', { value }, { side });
    const ids = SCREENS.flatMap((s) => s.items.filter((i) => i.threshold?.at === 'most' && i.sides === 'each').map((i) => [s.id, i.id]));
    expect(ids.length).toBeGreaterThan(0);
    const [screen, id] = ids[0]!;
    const [found] = itemFindings(outcomesOf([done(screen!, { ...reach(0, 'left'), item: id! }, { ...reach(40, 'right'), item: id! })]));
    expect(found!.outcomes[0]!.side).toBe('right');
    expect(saidOfItem(found!).verdict).toBe('40 cm more left over than on the left side');
  });

  it('tells the sides apart by quality where there are none, and never from a side that was not judged', () => {
    const isLooked = (i: ScreenItem) => i.sides === 'each' && i.answered.by === 'look' && i.views.length === 0;
    const lift = (meets: boolean | null | undefined, side: 'left' | 'right') =>
      item('turnWhole', meets === undefined ? {} : { meets }, { side });
    const screen = SCREENS.find((s) => s.items.some(isLooked))!;
    const id = screen.items.find(isLooked)!.id;
    const of = (left: boolean | null | undefined, right: boolean | null | undefined) =>
      itemFindings(outcomesOf([done(screen.id, { ...lift(left, 'left'), item: id }, { ...lift(right, 'right'), item: id })]));
    expect(of(false, true).map(({ kind, outcomes }) => [kind, outcomes[0]!.side])).toEqual([['item-one-sided', 'left']]);
    expect(of(false, false).map(({ kind, outcomes }) => [kind, outcomes.length])).toEqual([['item-short', 2]]);
    expect(of(true, true)).toEqual([]);
    expect(of(false, undefined).map(({ kind, outcomes }) => [kind, outcomes[0]!.side])).toEqual([['item-short', 'left']]);
    expect(of(undefined, undefined)).toEqual([]);
    const silent = outcomesOf([done(screen.id, { ...lift(undefined, 'left'), item: id }, { ...lift(true, 'right'), item: id })]);
    expect(silentItems(silent).map(({ side }) => side)).toEqual(['left']);
  });

  it('follows the rule of the clinic, and puts one side before both where nothing else tells', () => {
    const screens = [done('patterns', item('lookUp', { meets: false })), done('loadingReadiness', wall(4, 'left'), wall(12, 'right'))];
    const firsts = (ranking: Ranking, at?: 'shoulder' | 'ankle') => said(screens, ranking, at)[0]!.split(':')[0];
    expect(firsts('largest-first')).toBe('Left knee to wall');
    expect(firsts('ground-up')).toBe('Left knee to wall');
    expect(firsts('nearest-complaint', 'shoulder')).toBe('Look up');
    expect(firsts('nearest-complaint', 'ankle')).toBe('Left knee to wall');
  });

  it('puts a difference between the sides before a loss on both, and the farther from its line before the nearer', () => {
    const both = (name: string, value: number) => (['left', 'right'] as const).map((side) => item(name, { value }, { side }));
    const subjects = (...items: ItemDone[]) =>
      itemFindings(outcomesOf([done('hipSixWays', ...items)])).map(({ outcomes }) => outcomes[0]!.item);
    // Raise 70°: 20° and 45° short, of the same error.
    expect(subjects(...both('legRaise', 50), ...both('sideLift', 5))).toEqual(subjects(...both('sideLift', 5), ...both('legRaise', 50)));
    expect(subjects(...both('legRaise', 66), ...both('sideLift', 2))[0]).toBe('sideLift');
    expect(subjects(...both('legRaise', 10), ...both('sideLift', 38))[0]).toBe('legRaise');
    const [left, right] = both('sideLift', 38);
    expect(subjects(...both('legRaise', 10), left!, { ...right!, tries: [{ value: 60 }] })[0]).toBe('sideLift');
  });

  it('tells what changed since the last screen, by the item’s own error', () => {
    const before = [{ ...done('loadingReadiness', wall(4, 'left'), wall(9, 'right')), screenedOn: '2026-10-20' }];
    const found = itemFindings(outcomesOf([done('loadingReadiness', wall(9, 'left'), wall(9.2, 'right'))], before));
    expect(found.filter(({ stage }) => stage === 'change').map((f) => saidOfItem(f).verdict)).toEqual([
      'better than last time: 4 cm → 9 cm',
    ]);
    expect(saidOfItem(found.at(-1)!).because.at(-1)).toBe('compared with 20 Oct 2026');
  });

  it('has words, a shape and a stage for every kind, and one finding of a way at a stage', () => {
    for (const [kind, { stage, mark }] of Object.entries(ITEM_KINDS)) expect([stage, mark].every(Boolean)).withContext(kind).toBeTrue();
    for (const screen of SCREENS)
      for (const one of screen.items) {
        const sides = one.sides === 'each' ? (['left', 'right'] as const) : ([undefined] as const);
        const tries = sides.map((side) => ({ item: one.id, ...(side ? { side } : {}), tries: [{ meets: false }] }));
        const found = itemFindings(outcomesOf([done(screen.id, ...tries)]));
        expect(found.length).withContext(`${screen.id}.${one.id}`).toBeLessThanOrEqual(1);
      }
  });
});

describe('range that a movement does not use', () => {
  const of = (motion: Measurement['motion'], end: number, over: Partial<Measurement> = {}): Measurement => ({
    motion,
    side: 'left',
    mode: 'passive',
    position: 'prone',
    instrument: 'goniometer',
    trials: [{ end }],
    ...over,
  });
  const judged = (measurements: Measurement[], screens: ScreenDone[], over: Partial<Assessment> = {}) =>
    assess({
      person: { birthDate: '1994-05-02', sex: 'female' },
      assessedOn: '2026-11-20',
      measurements,
      screens,
      ...over,
    }).findings.filter(({ kind }) => kind === 'range-not-used');
  const leans = done('floorPath', item('backLeg', { faults: ['trunkLeans'] }, { side: 'left' }));
  const turned = of('hip.internalRotation', 44);

  it('is found where the floor path leans and the hip turns in by hand: the dance teacher', () => {
    const [found] = judged([turned], [leans]);
    expect(saidOf(found!).subject).toBe('Left hip internal rotation, passive 44°');
    expect(saidOf(found!).verdict).toBe('there by hand, not used in “back leg lift”');
    expect(saidOf(found!).because).toContain('Back leg lift: trunk leans');
    expect(stageOf('range-not-used')).toBe('loss');
  });

  it('is found where a circle is cut off and the range is there', () => {
    const circle = done('jointCircles', item('hip', { sector: { from: 5, to: 7 } }, { side: 'left' }));
    const [found] = judged([of('hip.extension', 20)], [circle]);
    expect(saidOf(found!).because).toContain('Hip circle: cut off from 5 to 7 o’clock');
    expect(judged([of('hip.flexion', 125, { position: 'supine' })], [circle])).toEqual([]);
  });

  it('says nothing of a range that was not measured, is short, hurts, stopped at a limit, or was measured actively alone', () => {
    expect(judged([], [leans])).toEqual([]);
    expect(judged([of('hip.internalRotation', 12)], [leans])).toEqual([]);
    expect(judged([of('hip.internalRotation', 44, { pain: 3 })], [leans])).toEqual([]);
    expect(judged([of('hip.internalRotation', 44, { mode: 'active' })], [leans])).toEqual([]);
    expect(judged([of('hip.internalRotation', 44, { side: 'right' })], [leans])).toEqual([]);
    const precautions = [{ motion: 'hip.internalRotation', side: 'left', limit: 44, until: null, source: 'the surgeon' }] as const;
    expect(judged([turned], [leans], { precautions })).toEqual([]);
  });

  it('says nothing from an item that hurts, meets, or shows another fault', () => {
    const back = (one: ItemTry) => done('floorPath', item('backLeg', one, { side: 'left' }));
    expect(judged([turned], [back({ faults: ['trunkLeans'], pain: 2 })])).toEqual([]);
    expect(judged([turned], [back({ meets: true })])).toEqual([]);
    expect(judged([turned], [back({ faults: ['pelvisTwists'] })])).toEqual([]);
    expect(notReached(gradedScreens([back({ faults: ['pelvisTwists'] })]))).toEqual([]);
  });

  it('is told once a motion and side, however many items show it', () => {
    const twice = done(
      'floorPath',
      item('backLeg', { faults: ['trunkLeans'] }, { side: 'left' }),
      item('trunkTall', { faults: ['handsUsed'] }, { side: 'left' }),
    );
    expect(judged([turned, of('hip.internalRotation', 45, { position: 'sitting' })], [twice]).length).toBe(1);
  });
});

describe('what to measure next after a screen', () => {
  const FREE = { limits: limited([], '2026-11-20') };
  const short = outcomesOf([done('loadingReadiness', wall(4, 'left'), wall(12, 'right'), item('toeTouch', { value: 20, pain: 2 }))]);

  it('is what short items stand near, on their side, once; never what hurts', () => {
    const next = measureNext(short, [], FREE);
    expect(next.length).toBeGreaterThan(0);
    expect(new Set(next.map(({ because }) => because.item))).toEqual(new Set(['kneeToWall']));
    expect(new Set(next.map(({ side }) => side))).toEqual(new Set(['left']));
    expect(new Set(next.map(({ protocol, mode, side }) => `${protocol} ${mode} ${side}`)).size).toBe(next.length);
  });

  it('is not what was measured already, nor what a limit forbids', () => {
    const next = measureNext(short, [], FREE);
    const [first] = next;
    const measured = {
      motion: first!.protocol.split('/')[0] as Measurement['motion'],
      side: 'left',
      mode: first!.mode,
      position: 'standing',
      protocol: first!.protocol,
    } as const;
    expect(measureNext(short, [measured], FREE).map(({ protocol }) => protocol)).not.toContain(first!.protocol);
    const never = [{ motion: 'ankle.dorsiflexion', side: 'left', limit: null, until: null, source: 'the surgeon' }] as const;
    expect(measureNext(short, [], { limits: limited(never) }).filter(({ protocol }) => protocol === first!.protocol)).toEqual([]);
  });
});
