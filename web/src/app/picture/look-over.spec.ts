import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { ClipReviewView, ClipsView, NewClipReview, NewStill } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { VisitCommands } from '../data/visit-commands';
import { FakeQueue } from '../testing/fake-queue';
import { SOME_ID } from '../testing/records';
import { until } from '../testing/until';
import { LookOver } from './look-over';
import { Marking } from './marking';
import { Review } from './review';

describe('a clip that is looked over', () => {
  let fixture: ComponentFixture<LookOver>;
  let http: HttpTestingController;
  let queue: FakeQueue;
  let review: Review;
  let marking: Marking;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector: string) => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const button = (words: string) => [...page().querySelectorAll('button')].find((b) => b.textContent!.trim().includes(words))!;
  const field = <T extends HTMLElement>(label: string) =>
    [...page().querySelectorAll('label')].find((one) => one.textContent!.includes(label))!.querySelector<T>('select,textarea,input')!;
  const pick = async (label: string, value: string) => {
    const select = field<HTMLSelectElement>(label);
    select.value = value;
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };
  const press = async (words: string) => {
    button(words).click();
    await fixture.whenStable();
  };
  const write = async (words: string) => {
    const area = field<HTMLTextAreaElement>('In words');
    area.value = words;
    area.dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };
  const clips = () => until(() => http.match(`/api/visits/${SOME_ID}/clips`)[0]);

  beforeEach(() => localStorage.clear());
  const open = async (view: ClipsView = { reviews: [], stills: [] }, file: string | null = 'squat.webm') => {
    TestBed.resetTestingModule();
    queue = new FakeQueue();
    TestBed.configureTestingModule({
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([]),
        { provide: CommandQueue, useValue: queue },
        Marking,
        Review,
        VisitCommands,
      ],
    });
    http = TestBed.inject(HttpTestingController);
    review = TestBed.inject(Review);
    marking = TestBed.inject(Marking);
    marking.open(SOME_ID);
    review.open(SOME_ID);
    (await clips()).flush(view);
    if (file) review.take(file);
    fixture = TestBed.createComponent(LookOver);
    fixture.componentRef.setInput('visitId', SOME_ID);
    fixture.componentRef.setInput('size', { width: 400, height: 200 });
    fixture.componentRef.setInput('snap', () => 'AAAA');
    await fixture.whenStable();
  };
  const served = (body: NewClipReview, over: Partial<ClipReviewView> = {}): ClipReviewView => ({
    clip: body.clip,
    version: body.version,
    file: body.file,
    view: body.view,
    marks: body.marks,
    isShared: body.isShared,
    by: 'Wren',
    at: '2026-11-27T10:00:00.000Z',
    ...over,
  });

  it('keeps marks in the order of time with the lines that are placed, and what was half written, on this device at once', async () => {
    await open();
    marking.at.set(3);
    marking.place('hip', [100, 50]);
    marking.place('knee', [200, 100]);
    marking.place('ankle', [200, 200]);
    await fixture.whenStable();
    await pick('Shows', 'squatCheck/squat');
    await pick('What of it', 'heelLifts');
    await pick('on the page stands', 'knee');
    await press('Add the mark');
    marking.at.set(1);
    await press('goes well');
    await pick('Shows', '');
    await write('You start tall.');
    await press('Add the mark');
    await write('half of a');
    expect([...page().querySelectorAll('.marks li')].map((li) => li.textContent!.replace(/\s+/g, ' '))).toEqual([
      jasmine.stringContaining('1.0 s goes well : You start tall.'),
      jasmine.stringContaining('3.0 s to work on : Squat: heel lifts'),
    ]);
    const [, second] = review.marks();
    expect(second!.lines[0]).toEqual([
      [0.25, 0.25],
      [0.5, 0.5],
    ]);
    expect(second!.angles.map(({ label }) => label)).toEqual(['knee bend']);
    // Placed once, an angle is never told without the unsteadiness of a hand.
    expect(second!.angles[0]!.error).toBeGreaterThan(1);
    expect(text('[role=status]')).toContain('On this device so far');
    await open();
    expect(page().querySelectorAll('.marks li').length).toBe(2);
    expect(field<HTMLTextAreaElement>('In words').value).toBe('half of a');
  });

  it('refuses a fourth thing to work on, and a mark that says nothing', async () => {
    await open();
    await press('Add the mark');
    expect(text('form [role=alert]')).toContain('words are missing; allowed: words, or an item of a screen');
    for (const words of ['one', 'two', 'three', 'four']) {
      await write(words);
      await press('Add the mark');
    }
    expect(review.marks().length).toBe(3);
    expect(text('form [role=alert]')).toContain('allowed: up to 3');
    expect(field<HTMLTextAreaElement>('In words').value).toBe('four');
  });

  it('is kept as another version, and says when another window was first', async () => {
    await open();
    await write('Slow and even.');
    await press('goes well');
    await press('Add the mark');
    await press('Keep what is marked');
    const first = await clips();
    const body = first.request.body as NewClipReview;
    expect([body.version, body.file, body.marks.length, body.isShared]).toEqual([1, 'squat.webm', 1, false]);
    first.flush({ reviews: [served(body)], stills: [] });
    await fixture.whenStable();
    expect(text('[role=status]')).toContain('Kept, version 1');
    field<HTMLInputElement>('show it on their own page').click();
    await fixture.whenStable();
    await press('Keep what is marked');
    const second = await clips();
    expect([(second.request.body as NewClipReview).version, (second.request.body as NewClipReview).isShared]).toEqual([2, true]);
    second.flush(
      { detail: 'What was marked in squat.webm was changed by Rook meanwhile.', errors: [] },
      { status: 409, statusText: 'Conflict' },
    );
    await fixture.whenStable();
    expect(text('dg-said')).toContain('changed by Rook');
    await press('Show what stands there now');
    (await clips()).flush({ reviews: [served(body, { version: 2, marks: [] })], stills: [] });
    await fixture.whenStable();
    expect([review.version(), review.marks().length]).toEqual([2, 0]);
  });

  it('gives way to what another device kept, where nothing was changed here; else says so', async () => {
    const kept = (version: number, words: string): ClipReviewView => ({
      ...{ clip: '11111111-2222-4333-8444-555555555555', version, file: 'squat.webm', view: 'side', isShared: false, by: 'Wren' },
      at: '2026-11-27T10:00:00.000Z',
      marks: [{ id: SOME_ID, t: 1, tells: 'work', side: 'midline', shows: null, words, sure: 'sure', lines: [], angles: [], still: null }],
    });
    await open({ reviews: [kept(1, 'first')], stills: [] });
    expect(text('.marks')).toContain('first');
    await open({ reviews: [kept(2, 'second')], stills: [] });
    expect(text('.marks')).toContain('second');
    await write('my own');
    await press('Add the mark');
    await open({ reviews: [kept(3, 'third')], stills: [] });
    expect(text('.marks')).toContain('my own');
    expect(text('.problem[role=status]')).toContain('Another device has kept version 3');
  });

  it('knows a file again that was opened before the list had come', async () => {
    await open();
    const clip = '11111111-2222-4333-8444-555555555555';
    review.open(SOME_ID);
    (await clips()).flush({
      reviews: [
        { clip, version: 1, file: 'squat.webm', view: 'front', marks: [], isShared: false, by: 'Wren', at: '2026-11-27T10:00:00.000Z' },
      ],
      stills: [],
    });
    expect([review.marked()?.clip, review.marked()?.view]).toEqual([clip, 'front']);
  });

  it('attaches a still only where that is asked for, and takes it away after asking once more', async () => {
    await open();
    await write('Look here.');
    await press('Add the mark');
    http.expectNone(`/api/visits/${SOME_ID}/stills`);
    field<HTMLInputElement>('with its still').click();
    await write('And here.');
    await press('Add the mark');
    const attach = await until(() => http.match(`/api/visits/${SOME_ID}/stills`)[0]);
    const { id, base64 } = attach.request.body as NewStill;
    expect(base64).toBe('AAAA');
    attach.flush({
      reviews: [],
      stills: [{ id, words: 'squat.webm, 0.0 s', width: 4, height: 2, by: 'Wren', at: '2026-11-27T10:00:00.000Z' }],
    });
    await fixture.whenStable();
    expect(review.marks().filter(({ still }) => still === id).length).toBe(1);
    await press('Take away');
    http.expectNone(`/api/stills/${id}/removal`);
    await press('Yes, take it away');
    (await until(() => http.match(`/api/stills/${id}/removal`)[0])).flush({ reviews: [], stills: [] });
    await fixture.whenStable();
    expect(review.marks().some(({ still }) => still !== null)).toBeFalse();
  });

  it('hands to the screens what one is sure of, once', async () => {
    await open();
    await pick('Shows', 'squatCheck/squat');
    for (const [fault, sure] of [
      ['heelLifts', 'sure'],
      ['notDeep', 'unsure'],
    ] as const) {
      await pick('What of it', fault);
      await press(sure);
      await press('Add the mark');
    }
    await press('Take over');
    const [sent] = queue.commands.filter(({ route }) => route === 'holdScreenTry');
    expect(sent!.body).toEqual(
      jasmine.objectContaining({
        screen: 'squatCheck',
        item: 'squat',
        view: 'side',
        try: { faults: ['heelLifts'], picture: { words: 'clip squat.webm at 0.0 s, sure', error: null } },
      }),
    );
    expect(button('Taken over').disabled).toBeTrue();
  });
});
