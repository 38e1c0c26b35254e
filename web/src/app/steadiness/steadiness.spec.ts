import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { NormsView, StudyView } from '@dial-gauge/contract';
import { bootstrapAtOnce, DEFAULT_NORM_ORDER, DEFAULT_THRESHOLDS, seededRandom } from '@dial-gauge/core';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue, refusal } from '../testing/fake-queue';
import { SOME_ID } from '../testing/records';
import { until } from '../testing/until';
import { Bootstrapping } from './bootstrapping';
import { PlanStudy } from './plan-study';
import { SteadinessPage } from './steadiness';

/** Shrout PE, Fleiss JL. Psychol Bull 1979;86:420-428, table 2 (from memory). */
const SHROUT_FLEISS = [
  [9, 2, 5, 8],
  [6, 1, 3, 2],
  [8, 4, 6, 8],
  [7, 1, 2, 6],
  [10, 5, 6, 9],
  [6, 2, 4, 7],
];

const STUDY: StudyView = {
  id: SOME_ID,
  name: 'Wrists',
  motion: 'wrist.extension',
  protocol: 'wrist.extension/sitting',
  mode: 'passive',
  instrument: 'goniometer',
  kind: 'raters',
  subjects: 6,
  raters: 4,
  turns: Array.from({ length: 24 }, (_, at) => ({ subject: at % 6, rater: Math.floor(at / 6) })),
  read: Array.from({ length: 24 }, (_, at) => at),
  table: SHROUT_FLEISS,
  by: 'Wren',
  startedOn: '2026-11-03',
  isPractice: false,
  adopted: null,
};
const NORMS_VIEW: NormsView = {
  normSets: [...DEFAULT_NORM_ORDER],
  ranking: 'largest-first',
  ownErrors: [],
  valueChecks: [],
  thresholds: { ...DEFAULT_THRESHOLDS, severityPercent: [10, 25, 50], severityTimes: [0.5, 1.5, 2.5] },
  sets: [],
  ownSets: [],
};

describe('SteadinessPage', () => {
  let fixture: ComponentFixture<SteadinessPage>;
  let http: HttpTestingController;
  const queue = () => TestBed.inject(CommandQueue) as unknown as FakeQueue;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (selector = '.main') => page().querySelector(selector)?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const button = (words: string) => [...page().querySelectorAll('button')].find((b) => b.textContent!.includes(words))!;

  /** What a page before this one had left waiting. */
  let left: FakeQueue['left'];
  beforeEach(() => (left = []));

  const open = async (...studies: StudyView[]) => {
    const box = new FakeQueue();
    box.left = left;
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [
        provideHttpClient(),
        provideHttpClientTesting(),
        provideRouter([{ path: '**', children: [] }]),
        { provide: CommandQueue, useValue: box },
      ],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(SteadinessPage);
    fixture.detectChanges();
    http.expectOne('/api/norms').flush(NORMS_VIEW);
    http.expectOne('/api/studies').flush(studies);
    await fixture.whenStable();
  };

  it('shows the six coefficients of the published example, the errors and the limits of agreement', async () => {
    await open(STUDY);
    const rows = [...page().querySelectorAll('dg-study-result tbody tr')].map((row) =>
      [...row.querySelectorAll('.figure')]
        .slice(0, 2)
        .map((cell) => cell.textContent!.trim())
        .join(' '),
    );
    // Values as the paper prints them, rounded to two places.
    expect(rows).toEqual(['1,1 0.17', '2,1 0.29', '3,1 0.71', '1,k 0.44', '2,k 0.62', '3,k 0.91']);
    expect(text('.errors')).toContain('± 2.5°');
    expect(text('.errors')).toContain('± 1°');
    expect(text('.errors')).toContain('In use now: default, goniometer, two examiners: SEM 5°, a change counts from 13.9°');
    expect(page().querySelector('canvas')!.getAttribute('aria-label')).toContain('examiner A less examiner B against their mean, 6 points');
  });

  it('holds the limits against another pair', async () => {
    await open(STUDY);
    const select = page().querySelector<HTMLSelectElement>('select[aria-label="Which two"]')!;
    expect(select.options.length).toBe(6);
    select.value = select.options[5]!.value;
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(page().querySelector('canvas')!.getAttribute('aria-label')).toContain('examiner C less examiner D');
  });

  it('adopts the error by choice, reads again what the clinic judges by, and stops using it', async () => {
    await open(STUDY);
    [...page().querySelectorAll<HTMLElement>('mat-radio-button input')][1]!.click();
    await fixture.whenStable();
    button('Judge by this error').click();
    const request = http.expectOne(`/api/studies/${SOME_ID}/adoption`);
    expect(request.request.body).toEqual({ basis: 'consistency' });
    const adopted = { id: SOME_ID, sem: 1.01, basis: 'consistency', on: '2026-11-20', by: 'Wren' } as const;
    request.flush({ ...STUDY, adopted });
    http.expectOne('/api/norms').flush(NORMS_VIEW);
    (await until(() => http.match('/api/studies')[0])).flush([{ ...STUDY, adopted }]);
    await fixture.whenStable();
    expect(text('.adopt')).toContain('In use since 20 Nov 2026 (consistency, Wren)');
    expect(text('nav ul')).toContain('in use since 20 Nov 2026');
    button('Stop using it').click();
    expect(http.expectOne({ method: 'DELETE', url: `/api/studies/${SOME_ID}/adoption` }).request.method).toBe('DELETE');
  });

  it('says why a study cannot be counted', async () => {
    await open({ ...STUDY, table: SHROUT_FLEISS.map(() => [5, 6, 5, 6]) });
    expect(text()).toContain('The study cannot be counted: it everybody has the same mean; allowed: subjects who differ.');
  });

  it('takes readings blind, in the order drawn, and shows none of them', async () => {
    await open({ ...STUDY, read: [0, 1, 2, 3], table: null });
    const entry = () => page().querySelector<HTMLInputElement>('dg-study-entry input')!;
    const type = async (value: string) => {
      entry().value = value;
      entry().dispatchEvent(new Event('input'));
      entry().dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
      await fixture.whenStable();
    };
    expect(text('dg-study-entry')).toContain('Reading 5 of 24 Person or limb 5, examiner A');
    await type('71');
    expect(queue().commands[0]).toEqual(
      jasmine.objectContaining({
        route: 'readStudy',
        target: SOME_ID,
        body: jasmine.objectContaining({ subject: 4, rater: 0, value: 71 }) as never,
      }),
    );
    expect(text('dg-study-entry')).toContain('Reading 6 of 24');
    expect(entry().value).withContext('fast hands type the next figure into an empty field').toBe('');
    expect(page().textContent).not.toContain('71');
    await type('400');
    expect(text('dg-study-entry .problem')).toContain('400');
    button('Read the one before again').click();
    await fixture.whenStable();
    expect(text('dg-study-entry')).toContain('Once more Person or limb 5, examiner A');
    expect(entry().value).toBe('');
    await type('72');
    await type('66');
    queue().next();
    await fixture.whenStable();
    expect(text('dg-study-entry')).withContext('an answer that comes meanwhile takes nobody back').toContain('Reading 7 of 24');
    queue().next();
    await fixture.whenStable();
    expect(text('nav ul')).toContain('5 of 24 read');
  });

  it('goes on after what waits in the browser, and uncovers the study with the last reading', async () => {
    const body = { id: SOME_ID, subject: 4, rater: 3, value: 70 };
    left = [{ id: SOME_ID, userId: '', visitId: SOME_ID, target: SOME_ID, words: '', route: 'readStudy', body }];
    await open({ ...STUDY, read: STUDY.read.slice(0, 22), table: null });
    expect(text('dg-study-entry')).toContain('Reading 24 of 24');
    queue().answers.next({ command: left[0]!, failure: null });
    const input = page().querySelector<HTMLInputElement>('dg-study-entry input')!;
    input.value = '70';
    input.dispatchEvent(new Event('input'));
    input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    queue().next();
    (await until(() => http.match('/api/studies')[0])).flush([STUDY]);
    await fixture.whenStable();
    expect(text()).toContain('Six intraclass correlations');
  });

  it('asks again for a reading that the server would not take', async () => {
    await open({ ...STUDY, read: STUDY.read.slice(0, 5), table: null });
    const input = page().querySelector<HTMLInputElement>('dg-study-entry input')!;
    input.value = '70';
    input.dispatchEvent(new Event('input'));
    input.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await fixture.whenStable();
    expect(text('dg-study-entry')).toContain('Person or limb 1, examiner B');
    queue().next(refusal('no'));
    await fixture.whenStable();
    expect(text('dg-study-entry')).toContain('Reading 6 of 24 Person or limb 6, examiner A');
  });

  it('plans a study: a way of the library, what is missing named', async () => {
    await open();
    expect(text('nav')).toContain('No study yet');
    button('Plan a study').click();
    await fixture.whenStable();
    page().querySelector('form')!.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    expect(text('form')).toContain('Motion: choose one of the list');
    const motionInput = page().querySelector<HTMLInputElement>('input[name="motion"]')!;
    motionInput.focus();
    motionInput.value = 'wrist extension';
    motionInput.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    (await until(() => document.querySelector<HTMLElement>('mat-option'))).click();
    await fixture.whenStable();
    const subjects = page().querySelector<HTMLInputElement>('input[name="subjects"]')!;
    subjects.value = '2';
    subjects.dispatchEvent(new Event('input'));
    page().querySelector('form')!.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    expect(text('form .problem')).toContain('People or limbs:');
    subjects.value = '6';
    subjects.dispatchEvent(new Event('input'));
    page().querySelector('form')!.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    const request = http.expectOne({ method: 'POST', url: '/api/studies' });
    expect(request.request.body).toEqual(
      jasmine.objectContaining({
        protocol: 'wrist.extension/sitting',
        mode: 'passive',
        instrument: 'goniometer',
        subjects: 6,
        raters: 2,
        kind: 'repeats',
      }),
    );
  });
});

describe('planning by keyboard', () => {
  it('takes the first motion of the list with Enter also before the list is drawn', async () => {
    TestBed.configureTestingModule({ imports: [MatIconTestingModule], providers: [provideHttpClient(), provideHttpClientTesting()] });
    const fixture = TestBed.createComponent(PlanStudy);
    await fixture.whenStable();
    const element = fixture.nativeElement as HTMLElement;
    const input = element.querySelector<HTMLInputElement>('input[name="motion"]')!;
    input.focus();
    input.value = 'knee to wall';
    input.dispatchEvent(new Event('input'));
    const enter = new KeyboardEvent('keydown', { key: 'Enter', keyCode: 13, cancelable: true, bubbles: true });
    input.dispatchEvent(enter);
    expect(enter.defaultPrevented).toBeTrue();
    await fixture.whenStable();
    expect(input.value).toContain('Knee to wall');
    expect(element.querySelector('input[name="subjects"]')).not.toBeNull();
  });
});

describe('Bootstrapping', () => {
  const request = { table: SHROUT_FLEISS, resamples: 4000, seed: 7 };

  it('comes in a worker to what the core comes to here, with its progress told', async () => {
    const seen: number[] = [];
    const result = await new Promise((resolve, reject) =>
      TestBed.inject(Bootstrapping)
        .run(request)
        .subscribe({
          next: (message) =>
            'done' in message ? seen.push(message.done) : resolve('result' in message ? message.result : message.problem),
          error: reject,
        }),
    );
    expect(result).toEqual(bootstrapAtOnce(SHROUT_FLEISS, request.resamples, seededRandom(request.seed)));
    expect(seen.length).toBe(8);
  });

  it('says why a table cannot be counted', async () => {
    const message = await new Promise((resolve) =>
      TestBed.inject(Bootstrapping)
        .run({ ...request, table: [[1, 2]] })
        .subscribe(resolve),
    );
    expect(message).toEqual({ problem: 'has 1 subjects; allowed: 3 or more' });
  });

  it('ends the worker when nobody waits for it any more', async () => {
    const ended = spyOn(Worker.prototype, 'terminate').and.callThrough();
    const running = TestBed.inject(Bootstrapping)
      .run({ ...request, resamples: 10_000_000 })
      .subscribe();
    running.unsubscribe();
    expect(ended).toHaveBeenCalledTimes(1);
  });
});
