import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { ScreensView, ScreenTryView } from '@dial-gauge/contract';
import { findItem, findScreen, gradedScreens, SCREENS, type Modification } from '@dial-gauge/core';
import { CommandQueue } from '../data/command-queue';
import type { CommandOf } from '../data/commands';
import { FakeQueue, refusal } from '../testing/fake-queue';
import { SOME_ID, visitRecord, noScreens } from '../testing/records';
import { until } from '../testing/until';
import { NOTHING, tryOf, type Entry } from './entry';
import { ScreenPage } from './screen';
import { Screening } from './screening';
import { screenMinutes, stepsOf } from './steps';
import { triesShown } from './tries-shown';

const { visit, episode } = visitRecord();
const screens = (over: Partial<ScreensView> = {}): ScreensView => ({ ...noScreens(), ...over });
const kept = (over: Partial<ScreenTryView>): ScreenTryView => ({
  id: crypto.randomUUID(),
  screen: 'squatCheck',
  item: 'squat',
  view: 'side',
  side: 'left',
  try: { faults: ['heelLifts'], pain: 0 },
  skipped: null,
  by: 'Wren',
  heldAt: '2026-11-20T09:00:00Z',
  ...over,
});

describe('ScreenPage', () => {
  beforeEach(() => localStorage.clear());

  let fixture: ComponentFixture<ScreenPage>;
  const queue = () => TestBed.inject(CommandQueue) as unknown as FakeQueue;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector: string) => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const screening = () => fixture.debugElement.injector.get(Screening);
  const press = async (key: string) => {
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    await fixture.whenStable();
  };
  const sent = () =>
    queue()
      .commands.filter(({ route }) => route !== 'planScreens')
      .map((command) => (command as CommandOf<'holdScreenTry'>).body);
  const open = async (view = screens(), inputs: Record<string, string> = {}) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: new FakeQueue() }],
    });
    const http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(ScreenPage);
    fixture.componentRef.setInput('id', SOME_ID);
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    fixture.detectChanges();
    http.expectOne(`/api/visits/${SOME_ID}/screens`).flush(view);
    http.match(`/api/visits/${SOME_ID}/judgement`).forEach((request) => request.error(new ProgressEvent('error')));
    await until(() => screening().view() !== null);
    await fixture.whenStable();
  };

  it('teaches where nothing is chosen, and runs what is added', async () => {
    await open();
    expect(text('.empty')).toContain('Choose a screen on the left');
    [...page().querySelectorAll<HTMLElement>('.add')].find((b) => b.textContent!.includes('Squat check'))!.click();
    await fixture.whenStable();
    expect(text('h2.item')).toBe('Squat · seen from the front');
    expect(text('.say')).toContain('Sit down between your feet');
  });

  it('is run by keys: what is seen, quality, keep; a short first try asks for a second', async () => {
    await open(screens({ plan: { screens: ['squatCheck'], asked: [] } }), { screen: 'squatCheck', item: 'squat', view: 'side' });
    await press('5');
    expect(screening().entry().faults).toEqual(['heelLifts']);
    await press('Enter');
    expect(sent()).toEqual([
      jasmine.objectContaining({ screen: 'squatCheck', item: 'squat', view: 'side', try: { faults: ['heelLifts'] } }),
    ]);
    expect(text('.try strong')).toBe('short');
    expect(text('h2.item')).toBe('Squat · seen from the side');
    await press('Enter');
    expect(sent()[1]!.try).toEqual({ faults: [] });
    expect(text('h2.item')).not.toBe('Squat · seen from the side');
  });

  it('shows of a screen that was not chosen the items that were asked for alone, and tells the server', async () => {
    await open(screens(), { screen: 'loadingReadiness', item: 'kneeToWall' });
    expect(text('h2.item')).toBe('Knee to wall');
    expect(screening().steps().length).toBe(1);
    expect(text('.lists h3')).toContain('items asked for');
    expect(queue().commands.map(({ route, body }) => [route, body])).toEqual([
      ['planScreens', { ask: [{ screen: 'loadingReadiness', item: 'kneeToWall' }] }],
    ]);
    screening().choose('loadingReadiness', true);
    expect(screening().steps().length).toBeGreaterThan(5);
    screening().choose('loadingReadiness', false);
    expect(screening().steps().length).withContext('left again, what was asked for stays').toBe(1);
  });

  it('shows what was chosen elsewhere and what still waits here, whichever the server knows', async () => {
    await open(screens({ plan: { screens: ['patterns'], asked: [{ screen: 'squatCheck', item: 'squat', view: 'side' }] } }));
    expect(screening().shown()).toEqual(['patterns', 'squatCheck']);
    expect(
      screening()
        .steps()
        .filter(({ screen }) => screen.id === 'squatCheck')
        .map(({ view }) => view),
    ).toEqual(['side']);
  });

  it('asks what limits it at once, and jumps to the change that a fault asks for', async () => {
    await open(screens({ tries: [kept({})] }), { screen: 'squatCheck', item: 'squat', view: 'side' });
    expect(text('.question')).toContain('Squat: the heel lifts, left opens a question.');
    expect(page().querySelector<HTMLAnchorElement>('.question a')!.getAttribute('href')).toContain('/measure?add=distance.kneeToWall');
    await press('h');
    expect(text('h2.item')).toBe('Squat · seen from the side · heels raised');
    expect(screening().side()).toBe('left');
  });

  it('keeps pain apart: a flag, and no question', async () => {
    await open(screens({ tries: [kept({ try: { faults: ['heelLifts'], pain: 4, painWhere: 'knee' } })] }), {
      screen: 'squatCheck',
      item: 'squat',
      view: 'side',
    });
    expect(text('p.hurts')).toContain('have it looked at before it is worked on');
    expect(page().querySelector('.question')).toBeNull();
  });

  it('refuses what does not fit with its field, and loses nothing that was typed', async () => {
    await open(screens(), { screen: 'loadingReadiness', item: 'kneeToWall' });
    screening().set({ value: '40', painWhere: 'ankle' });
    screening().keep();
    expect(screening().problem()).toBe('Amount: 40 cm is more than kneeToWall can hold; allowed: 0 to 25 cm.');
    screening().set({ value: 'far' });
    screening().keep();
    expect(screening().problem()).toContain('“far” is no amount; allowed: a number, as 12.5, or fists and fingers, as 1f2.');
    screening().set({ value: '1f2', pain: '12' });
    screening().keep();
    expect(screening().problem()).toBe('Pain “12” is not on the scale; allowed: 0 to 10, or nothing where it was not asked.');
    screening().set({ pain: '2' });
    expect(screening().keep()).toBeTrue();
    // The uninvolved side first: the right one is involved here.
    expect(sent()).toEqual([jasmine.objectContaining({ side: 'left', try: { value: 12.3, pain: 2, painWhere: 'ankle' } })]);
  });

  it('is not done where a precaution forbids it, and is left out with the reason', async () => {
    const precautions = [{ motion: 'ankle.dorsiflexion', limit: null, until: null, source: 'the surgeon' }] as const;
    await open(screens({ episode: { ...episode, precautions: [...precautions] } }), { screen: 'loadingReadiness', item: 'kneeToWall' });
    expect(text('.forbidden')).toContain('the surgeon');
    screening().set({ value: '4' });
    expect(screening().keep()).toBeFalse();
    expect(screening().skip(' ')).toBeFalse();
    expect(screening().skip('forbidden')).toBeTrue();
    expect(sent()).toEqual([jasmine.objectContaining({ skipped: 'forbidden' })]);
  });

  it('puts a try right, takes one back, and shows again what the server would not take', async () => {
    const first = kept({});
    await open(screens({ tries: [first] }), { screen: 'squatCheck', item: 'squat', view: 'side' });
    page().querySelector<HTMLElement>('button.try')!.click();
    await fixture.whenStable();
    expect(screening().entry()).toEqual({ ...NOTHING, faults: ['heelLifts'], pain: '0' });
    screening().toggleFault('heelLifts');
    screening().keep();
    expect(queue().commands[0]).toEqual(jasmine.objectContaining({ route: 'correctScreenTry', target: first.id }));
    expect(screening().grade()!.quality).toBe('meets');
    queue().next(refusal('changed meanwhile'));
    await fixture.whenStable();
    expect(screening().grade()!.quality).toBe('short');
    expect(screening().problem()).toContain('changed meanwhile');
    screening().undo();
    expect(screening().tries()).toEqual([]);
  });

  it('has what was half entered after a reload, at its place', async () => {
    await open(screens(), { screen: 'patterns', item: 'toeTouch' });
    screening().set({ value: '7' });
    await fixture.whenStable();
    TestBed.resetTestingModule();
    await open(screens({ plan: { screens: [], asked: [{ screen: 'patterns', item: 'toeTouch' }] } }));
    expect([screening().step()!.item.id, screening().entry().value]).toEqual(['toeTouch', '7']);
  });

  it('is looked at and not changed once the visit is signed', async () => {
    await open(screens({ visit: { ...visit, signed: true }, tries: [kept({})] }));
    expect(text('.unasked')).toContain('This visit is signed');
    expect(screening().keep()).toBeFalse();
    expect(screening().undo()).toBeFalse();
    expect(screening().skip('x')).toBeFalse();
  });
});

describe('what is entered', () => {
  const item = (screen: string, id: string) => findItem(findScreen(screen)!, id)!;
  const read = (screen: string, id: string, entry: Partial<Entry>, view: 'side' | null = null) =>
    tryOf({ item: item(screen, id), view }, { ...NOTHING, ...entry });

  it('is a try of what was told, and nothing that was not', () => {
    expect(read('patterns', 'leanBack', { meets: true })).toEqual({ meets: true });
    expect(read('patterns', 'leanBack', {})).toContain('Nothing was told yet');
    expect(read('squatCheck', 'squat', {}, 'side')).toEqual({ faults: [] });
    expect(read('squatCheck', 'squat', { shin: '35', trunk: '50,5' }, 'side')).toEqual({ faults: [], lines: { shin: 35, trunk: 50.5 } });
    expect(read('squatCheck', 'squat', { shin: '35' }, 'side')).toContain('both shin and trunk');
    expect(read('jointCircles', 'hip', { sector: { from: 4, to: 6 } })).toEqual({ sector: { from: 4, to: 6 } });
    expect(read('jointCircles', 'hip', { sector: null })).toEqual({ sector: null });
    expect(read('tableExam', 'touchSeat', { answer: 'tickles', pain: '0' })).toEqual({ answer: 'tickles', pain: 0 });
    expect(read('patterns', 'turn', { value: '1f2' })).toContain('is no amount; allowed: a number, as 12.5.');
  });

  it('waits laid over what the server has, once', () => {
    const common = { userId: '', visitId: SOME_ID, words: '' };
    const body = { id: SOME_ID, screen: 'patterns', item: 'leanBack', try: { meets: true } };
    const hold = { ...common, id: SOME_ID, route: 'holdScreenTry', target: SOME_ID, body } as const;
    const once = triesShown([], [hold], 'Wren');
    expect(once.map(({ id, item: name, by }) => [id, name, by])).toEqual([[SOME_ID, 'leanBack', 'Wren']]);
    expect(triesShown(once, [hold], 'Wren')).toEqual(once);
    const back = { ...common, id: '2', route: 'correctScreenTry', target: SOME_ID, body: { id: '2', try: null } } as const;
    expect(triesShown(once, [back], 'Wren')).toEqual([]);
  });

  it('is asked of one of two items, and in one stance: of today, or of the last time', () => {
    interface Way {
      screen: string;
      item: string;
      with?: Modification[];
    }
    const ready = 'loadingReadiness';
    const lines = (today: Way[], before: Way[] = [], asked: Way[] = []) => {
      const done = [
        { screen: ready, screenedOn: '2026-12-02', items: today.map((one) => ({ ...one, side: 'left' as const, tries: [{ value: 3 }] })) },
      ];
      return stepsOf([ready], SCREENS, gradedScreens(done), asked as never, before)
        .filter(({ item: { id } }) => /^kneeToWall|^toeTouch|^pressUp/.test(id))
        .map(({ item: { id }, with: changes }) => [id, ...changes].join(' '));
    };
    const [wall, kneel] = [
      { screen: ready, item: 'kneeToWall' },
      { screen: ready, item: 'kneeToWallKneeling' },
    ];
    const apart: Way = { screen: ready, item: 'toeTouch', with: ['feetUnderHips'] };
    expect(lines([])).toEqual(['toeTouch', 'kneeToWall']);
    expect(lines([], [kneel, apart])).toEqual(['toeTouch feetUnderHips', 'kneeToWallKneeling']);
    expect(lines([wall], [kneel])).toEqual(['toeTouch', 'kneeToWall']);
    expect(lines([], [wall], [kneel])).toEqual(['toeTouch', 'kneeToWallKneeling']);
    expect(lines([wall, kneel])).toEqual(['toeTouch', 'kneeToWall', 'kneeToWallKneeling']);
    // What was answered to an item that is asked no more stands there, and is asked of nobody else.
    expect(lines([{ screen: ready, item: 'pressUp' }])).toEqual(['toeTouch', 'kneeToWall', 'pressUp']);
  });

  it('takes so many minutes', () => {
    expect(screenMinutes(findScreen('patterns')!)).toBe(6);
    expect(screenMinutes(findScreen('squatCheck')!)).toBe(3);
  });
});
