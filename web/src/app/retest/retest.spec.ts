import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { RetestsView } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue, refusal } from '../testing/fake-queue';
import { SOME_ID, storedMeasurement, visitRecord } from '../testing/records';
import { shownDialog, until } from '../testing/until';
import { RetestPage } from './retest';

const { visit, patient, episode } = visitRecord();

function retests(over: Partial<RetestsView> = {}): RetestsView {
  return {
    visit,
    patient,
    episode,
    ownErrors: [],
    valueChecks: [],
    measured: [
      storedMeasurement({ mode: 'passive' }, 96),
      storedMeasurement({ mode: 'passive', side: 'right', pain: 3 }, 104),
      storedMeasurement({ motion: 'hip.abduction', mode: 'passive' }, 30),
      storedMeasurement({ motion: 'hip.adduction', mode: 'passive' }, 20),
    ],
    retests: [],
    memory: [],
    ...over,
  };
}

describe('RetestPage', () => {
  beforeEach(() => localStorage.clear());

  let fixture: ComponentFixture<RetestPage>;
  let http: HttpTestingController;
  const queue = () => TestBed.inject(CommandQueue) as unknown as FakeQueue;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector = 'section.main') => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const button = (words: string, within: ParentNode = page()) =>
    [...within.querySelectorAll('button')].find((b) => b.textContent!.includes(words))!;
  const type = async (...entries: string[]) => {
    for (const entry of entries) {
      const input = page().querySelector<HTMLInputElement>('.entry input')!;
      input.value = entry;
      input.dispatchEvent(new Event('input'));
      input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
      await fixture.whenStable();
    }
  };
  const open = async (view = retests()) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: new FakeQueue() }],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(RetestPage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    http.expectOne(`/api/visits/${SOME_ID}/retests`).flush(view);
    await fixture.whenStable();
  };
  const begin = async (...picked: number[]) => {
    const boxes = [...page().querySelectorAll<HTMLInputElement>('dg-marker-picker input')];
    for (const at of picked) boxes[at]!.click();
    await fixture.whenStable();
    button('Read the baseline').click();
    await fixture.whenStable();
  };

  it('lets three markers be picked of what was measured, and no more', async () => {
    await open();
    expect(text('dg-marker-picker')).toContain('Right hip flexion, passive104°hurts, 3 of 10');
    const boxes = [...page().querySelectorAll<HTMLInputElement>('dg-marker-picker input')];
    for (const box of boxes.slice(0, 3)) box.click();
    await fixture.whenStable();
    expect(boxes[3]!.disabled).toBeTrue();
    button('Read the baseline').click();
    await fixture.whenStable();
    expect(queue().commands[0]).toEqual(jasmine.objectContaining({ route: 'startRetest', target: SOME_ID }));
    expect((queue().commands[0]!.body as { markers: unknown[] }).markers.length).toBe(3);
  });

  it('keeps what is picked over a reload, until it is begun with', async () => {
    const picked = () => [...page().querySelectorAll<HTMLInputElement>('dg-marker-picker input')].map((box) => box.checked);
    await open();
    for (const at of [0, 2]) page().querySelectorAll<HTMLInputElement>('dg-marker-picker input')[at]!.click();
    TestBed.resetTestingModule();
    await open();
    expect(picked().slice(0, 4)).toEqual([true, false, true, false]);
    await begin();
    expect((queue().commands[0]!.body as { markers: unknown[] }).markers.length).toBe(2);
    TestBed.resetTestingModule();
    await open();
    expect(picked()).not.toContain(true);
  });

  it('keeps a figure that is typed and not held over a reload, for its reading alone', async () => {
    const entry = () => page().querySelector<HTMLInputElement>('.entry input')!;
    const typeOnly = async (words: string) => {
      entry().value = words;
      entry().dispatchEvent(new Event('input'));
      await fixture.whenStable();
    };
    await open();
    await begin(0);
    const { id, markers } = queue().commands[0]!.body as Pick<RetestsView['retests'][number], 'id' | 'markers'>;
    const startedAt = '2026-11-26T09:00:00.000Z';
    const running = () =>
      retests({ retests: [{ id, markers, rounds: [{ drill: '', values: [null] }], by: 'Wren', startedAt, finishedAt: null }] });
    TestBed.resetTestingModule();
    await open(running());
    await typeOnly('9');
    TestBed.resetTestingModule();
    await open(running());
    expect(entry().value).toBe('9');
    await type('96');
    TestBed.resetTestingModule();
    await open(running());
    expect(entry().value).toBe('');
  });

  it('reads the baseline, a drill, and says better or the same by the error of the marker', async () => {
    await open();
    await begin(0, 1);
    expect(text('h2')).toBe('Left hip flexion, passive baseline');
    await type('96', '104');
    expect(text('h2')).toBe('What was done now?');
    await type('Rock back');
    expect(text('.hint')).toContain('at the baseline 96°');
    await type('106', '109');
    expect(text('dg-rounds')).toContain('+10, better');
    expect(text('dg-rounds')).toContain('+5, same');
    expect(text('dg-rounds .sum')).toContain('better');
    expect(queue().commands.map((command) => command.route)).toEqual([
      'startRetest',
      'readMarker',
      'readMarker',
      'noteDrill',
      'readMarker',
      'readMarker',
    ]);
  });

  it('warns on worse at once and before the end, and goes back to the drill that helped', async () => {
    await open();
    await begin(0);
    await type('96', 'Rock back', '107', 'Long hold', '95');
    expect(text('.worse')).toContain('Do not finish here: “Long hold” made it worse. “Rock back” helped.');
    button('Finish the retest').click();
    const ask = await shownDialog();
    expect(ask.textContent).toContain('“Long hold” made it worse');
    button('Go back to what helped', ask).click();
    await until(() => queue().commands.find((command) => command.route === 'noteDrill' && command.body.number === 3));
    expect(queue().commands.some((command) => command.route === 'finishRetest')).toBeFalse();
    await type('107');
    button('Finish the retest').click();
    await fixture.whenStable();
    expect(queue().commands[queue().commands.length - 1]!.route).toBe('finishRetest');
    expect(text('.done h3')).toMatch(/^Retest 1, finished \d\d:\d\d by/);
  });

  it('tells the tables of several retests apart', async () => {
    await open();
    for (let retest = 0; retest < 2; retest++) {
      await begin(0);
      await type('96');
      button('Finish the retest').click();
      await fixture.whenStable();
    }
    await begin(1);
    const names = [...page().querySelectorAll('dg-rounds [role="region"]')].map((region) => region.getAttribute('aria-label'));
    expect(names.length).toBe(3);
    expect(new Set(names).size).toBe(3);
  });

  it('offers what helped at earlier visits where nothing has helped today', async () => {
    await open(retests({ memory: [{ drill: 'Side glide', better: 2, same: 1, worse: 0 }] }));
    expect(text('aside')).toMatch(/Side glide ?helped 2 of 3 times/);
    await begin(0);
    await type('96', 'Long hold', '80');
    expect(text('.worse')).toContain('“Side glide” helped.');
    button('Do it again and retest').click();
    await fixture.whenStable();
    expect(text('h2')).toBe('Left hip flexion, passive after “Side glide”');
  });

  it('refuses what is no reading, the other side, and what is past a limit, and loses nothing typed', async () => {
    await open(
      retests({ episode: { ...episode, precautions: [{ motion: 'hip.flexion', limit: 100, until: null, source: 'the surgeon' }] } }),
    );
    await begin(0);
    for (const [entry, why] of [
      ['abc', 'abc'],
      ['r 96', 'on the left side'],
      ['101', 'past the limit of 100°, set by the surgeon: stop there'],
    ] as const) {
      await type(entry);
      expect(text('.problem')).toContain(why);
      expect(page().querySelector<HTMLInputElement>('.entry input')!.value).toBe(entry);
    }
    await type('100');
    expect(page().querySelector('.problem')).toBeNull();
  });

  it('takes back from the screen what the server refuses', async () => {
    await open();
    await begin(0);
    await type('96');
    queue().next();
    queue().next(refusal('no'));
    await fixture.whenStable();
    expect(text('h2')).toBe('Left hip flexion, passive baseline');
  });

  it('puts a figure right by pressing it', async () => {
    await open();
    await begin(0);
    await type('69');
    page().querySelector<HTMLButtonElement>('dg-rounds button.figure')!.click();
    await fixture.whenStable();
    expect(text('.hint')).toContain('is 69°: another figure replaces it');
    await type('96');
    expect(text('dg-rounds td')).toContain('96');
    expect(text('h2')).toBe('What was done now?');
  });
});
