import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import { assessmentOfVisit, type JudgementView, type NormsView, type VisitRecord } from '@dial-gauge/contract';
import { assess, DEFAULT_NORM_ORDER, DEFAULT_THRESHOLDS } from '@dial-gauge/core';
import { noScreens, SOME_ID, storedMeasurement, visitRecord } from '../testing/records';
import { until } from '../testing/until';
import { JudgePage } from './judge';

const NORMS_VIEW: NormsView = {
  normSets: [...DEFAULT_NORM_ORDER],
  ranking: 'largest-first',
  ownErrors: [],
  valueChecks: [],
  thresholds: { ...DEFAULT_THRESHOLDS, severityPercent: [10, 25, 50], severityTimes: [0.5, 1.5, 2.5] },
  sets: [],
  ownSets: [],
};

/** A stiff knee and, worse, a stiff shoulder; the knee hurts, one shoulder reading was helped along. */
const RECORD: VisitRecord = visitRecord({
  episode: { ...visitRecord().episode, complaintAt: 'knee' },
  measurements: [
    storedMeasurement({ motion: 'shoulder.flexion', side: 'right', position: 'supine', substitutions: ['ribs flare'] }, 100),
    storedMeasurement({ motion: 'shoulder.flexion', side: 'left', position: 'supine' }, 165),
    storedMeasurement({ motion: 'knee.flexion', side: 'right', position: 'supine', pain: 4, painWhere: 'front' }, 110),
    storedMeasurement({ motion: 'knee.flexion', side: 'left', position: 'supine' }, 142),
  ],
});

const SEEN = { revision: 'as-seen', at: '2026-11-20T10:00:00.000Z' };

function judged(over: Partial<JudgementView> = {}): JudgementView {
  return {
    visit: { ...RECORD.visit, readings: 4 },
    patient: RECORD.patient,
    episode: RECORD.episode,
    previousOn: null,
    aside: [],
    judgement: assess(assessmentOfVisit(RECORD)),
    seen: SEEN,
    odd: [],
    summary: null,
    signing: { notYours: null, signatures: [], amending: null, changes: [], late: [] },
    ...over,
  };
}

const SIGNED = {
  id: '11111111-2222-4333-8444-555555555555',
  number: 1,
  at: '2026-11-20T15:00:00.000Z',
  by: 'Wren',
  byMe: false,
  countersigned: null,
  summary: 'As signed.',
  why: '',
};

describe('JudgePage', () => {
  beforeEach(() => localStorage.clear());

  let fixture: ComponentFixture<JudgePage>;
  let http: HttpTestingController;
  const page = () => fixture.nativeElement as HTMLElement;
  const text = (element: Element | null = page()) => element?.textContent?.replace(/\s+/g, ' ').trim() ?? '';
  const losses = () =>
    [...page().querySelectorAll('dg-findings ol > li')].map((li) => text(li)).filter((line) => /short of \d+°, by/.test(line));
  const button = (words: string, within: ParentNode = page()) =>
    [...within.querySelectorAll('button')].find((b) => b.textContent!.includes(words))!;
  const dialog = () => until(() => document.querySelector('mat-dialog-container mat-dialog-content')?.closest('mat-dialog-container'));
  const choose = async (label: RegExp, value: string) => {
    const select = [...page().querySelectorAll('label')].find((l) => label.test(l.textContent!))!.querySelector('select')!;
    select.value = value;
    select.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };

  const open = async (view = judged()) => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(JudgePage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    http.expectOne('/api/norms').flush(NORMS_VIEW);
    http.expectOne(`/api/visits/${SOME_ID}/judgement`).flush(view);
    await fixture.whenStable();
  };

  it('says of a rehearsal that it is one', async () => {
    await open(judged({ visit: { ...RECORD.visit, readings: 4, simulated: 3 } }));
    expect(text(page().querySelector('.rehearsal'))).toContain('3 of the readings are made-up numbers of simulated instruments');
  });

  it('puts pain first, offers to take a suspect reading again, and draws the body', async () => {
    await open();
    const lines = [...page().querySelectorAll('dg-findings ol > li')].map((li) => text(li));
    expect(lines[0]).toContain('hurts, 4 of 10, front');
    expect(lines[1]).toContain('helped along (ribs flare): measure again');
    const again = page().querySelector<HTMLAnchorElement>('a.retake')!;
    expect(again.getAttribute('href')).toBe(`/visits/${SOME_ID}/measure?at=${encodeURIComponent('shoulder.flexion/supine||right|active')}`);
    const marks = [...page().querySelectorAll('dg-body-map .mark')].map((m) => m.getAttribute('aria-label'));
    expect(marks).toContain('right knee: hurts, short');
    expect(marks).toContain('left knee: as expected');
  });

  it('shows what was found at one joint of the body map, and all of it again', async () => {
    await open();
    page()
      .querySelector('dg-body-map [aria-label^="right shoulder"]')!
      .dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    await fixture.whenStable();
    expect(text(page().querySelector('dg-findings h2'))).toBe('What matters: right shoulder');
    expect(losses().every((line) => line.includes('shoulder'))).toBeTrue();
    button('Show all').click();
    await fixture.whenStable();
    expect(losses().some((line) => line.includes('knee'))).toBeTrue();
  });

  it('tries another order, says what it moved and why, and makes it the clinic’s', async () => {
    await open();
    expect(losses()[0]).toContain('shoulder');
    await choose(/order/, 'nearest-complaint');
    expect(losses()[0]).toContain('knee');
    const moved = page().querySelector('.moved')!;
    expect(text(moved)).toMatch(/Right knee flexion: .* place \d → \d \(knee: the joint of the complaint\)/);
    button('Make it the clinic’s order').click();
    const request = http.expectOne({ method: 'PUT', url: '/api/norms' });
    expect(request.request.body).toEqual({ ranking: 'nearest-complaint' });
    request.flush({ ...NORMS_VIEW, ranking: 'nearest-complaint' });
    const again = await until(() => http.match({ method: 'GET', url: `/api/visits/${SOME_ID}/judgement` })[0]);
    again.flush(judged({ judgement: assess(assessmentOfVisit(RECORD), { ranking: 'nearest-complaint' }) }));
    await fixture.whenStable();
    expect(page().querySelector('.moved')).toBeNull();
    expect(losses()[0]).toContain('knee');
  });

  it('holds the readings against another norm set without touching summary or signature', async () => {
    await open();
    await choose(/asked first/, 'ama-guides-4');
    http.expectOne(`/api/visits/${SOME_ID}`).flush(RECORD);
    http.expectOne(`/api/visits/${SOME_ID}/screens`).flush(noScreens());
    await fixture.whenStable();
    expect(text(page().querySelector('.comparing'))).toContain('AMA Guides');
    expect(losses()[0]).toContain('80° short of 180°, by AMA Guides');
    expect(page().querySelector('dg-summary')).toBeNull();
    button('Back to the clinic’s order').click();
    await fixture.whenStable();
    expect(losses()[0]).not.toContain('180°');
    expect(page().querySelector('dg-summary')).not.toBeNull();
  });

  it('opens the evidence of a figure: readings, error, every set, reasons', async () => {
    await open();
    page().querySelector<HTMLButtonElement>('[aria-label="Evidence of right Flexion, 110"]')!.click();
    const evidence = text(await dialog());
    expect(evidence).toContain('Right knee flexion, active: 110°');
    expect(evidence).toContain('SEM 3°, MDC95 8.3°');
    expect(evidence).toMatch(/\d of \d that may be compared call it short/);
    expect(evidence).toContain('AAOS 1965');
    expect(evidence).toContain('hurts, 4 of 10, front');
  });

  it('drafts a summary, keeps what is written by hand, and goes back to the draft', async () => {
    await open();
    const area = page().querySelector('textarea')!;
    expect(area.value).toContain('Short of normal: right shoulder flexion; right knee flexion.');
    expect(area.value).toContain('First:');
    area.value = 'By hand.';
    area.dispatchEvent(new Event('input'));
    area.dispatchEvent(new Event('blur'));
    const request = http.expectOne({ method: 'PUT', url: `/api/visits/${SOME_ID}/summary` });
    expect(request.request.body).toEqual({ summary: 'By hand.', was: null });
    request.flush({}, { status: 500, statusText: 'x' });
    await fixture.whenStable();
    expect(text(page().querySelector('dg-summary [role="alert"]'))).toContain('What you wrote stays here.');
    expect(area.value).toBe('By hand.');
    button('Back to the draft').click();
    expect(http.expectOne({ method: 'PUT', url: `/api/visits/${SOME_ID}/summary` }).request.body).toEqual({ summary: '', was: null });
    await fixture.whenStable();
    expect(area.value).toContain('Short of normal');
  });

  it('signs after asking once more, and shows who signed when', async () => {
    await open();
    button('Sign the visit').click();
    const ask = await dialog();
    expect(text(ask)).toContain('are kept as they stand now');
    button('Sign', ask.querySelector('mat-dialog-actions')!.lastElementChild!.parentElement!).click();
    [...ask.querySelectorAll('button')].pop()!.click();
    const request = await until(() => http.match({ method: 'POST', url: `/api/visits/${SOME_ID}/signatures` })[0]);
    const { summary, seen } = request.request.body as { summary: string; seen: unknown };
    expect(seen).withContext('one signs what one has seen').toEqual(SEEN);
    expect(summary).toContain('Short of normal');
    request.flush(
      judged({
        visit: { ...RECORD.visit, signed: true },
        signing: { notYours: null, signatures: [{ ...SIGNED, summary }], amending: null, changes: [], late: [] },
      }),
    );
    await fixture.whenStable();
    expect(text(page().querySelector('dg-summary'))).toContain('Signed by Wren, 20 Nov 2026');
    expect(page().querySelector('textarea')).toBeNull();
    expect(page().querySelector('a.retake')).withContext('nothing of it is measured again').toBeNull();
  });

  it('amends a signed visit with a reason of some length', async () => {
    await open(
      judged({
        visit: { ...RECORD.visit, signed: true },
        signing: { notYours: null, signatures: [SIGNED], amending: null, changes: [], late: [] },
      }),
    );
    button('Amend the visit').click();
    const ask = await dialog();
    button('Open it', ask).click();
    await fixture.whenStable();
    expect(text(ask)).toContain('Type the reason, three letters or more');
    const input = ask.querySelector('input')!;
    input.value = 'wrong side';
    input.dispatchEvent(new Event('input'));
    button('Open it', ask).click();
    const request = await until(() => http.match({ method: 'POST', url: `/api/visits/${SOME_ID}/amendment` })[0]);
    expect(request.request.body).toEqual({ why: 'wrong side' });
    request.flush(
      judged({
        signing: {
          notYours: null,
          signatures: [SIGNED],
          amending: { why: 'wrong side', by: 'Wren', at: SIGNED.at },
          changes: [{ at: SIGNED.at, by: 'Wren', what: 'right knee flexion, active 112°' }],
          late: [],
        },
      }),
    );
    await fixture.whenStable();
    expect(text(page().querySelector('dg-summary'))).toContain('Being amended: wrong side');
    expect(text(page().querySelector('dg-summary'))).toContain('1 changed since it was signed');
    expect(button('Sign the amended visit')).toBeTruthy();
  });

  it('names all that changed when the findings are others by then, and reads them again', async () => {
    await open();
    button('Sign the visit').click();
    const ask = await dialog();
    [...ask.querySelectorAll('button')].pop()!.click();
    const request = await until(() => http.match({ method: 'POST', url: `/api/visits/${SOME_ID}/signatures` })[0]);
    const errors = ['right knee flexion: 131° added (Rook)', 'right knee flexion: pain was nothing, now 3 (Rook)'];
    const problem = {
      detail: 'Nothing was signed: the findings are not those you saw.',
      errors: errors.map((message) => ({ path: 'findings', message })),
    };
    request.flush(problem, { status: 409, statusText: 'x' });
    const again = await until(() => http.match({ method: 'GET', url: `/api/visits/${SOME_ID}/judgement` })[0]);
    again.flush(judged());
    await fixture.whenStable();
    for (const error of errors) expect(text(page().querySelector('dg-summary [role="alert"]'))).toContain(error);
  });

  it('shows what arrived after the signature, and takes it in or leaves it out', async () => {
    const late = [{ id: SOME_ID, what: 'right knee flexion, passive: 131°', by: 'Rook', enteredAt: SIGNED.at, receivedAt: SIGNED.at }];
    await open(
      judged({
        visit: { ...RECORD.visit, signed: true },
        signing: { notYours: null, signatures: [SIGNED], amending: null, changes: [], late },
      }),
    );
    const entries = () => page().querySelector('dg-late-entries')!;
    expect(text(entries())).toContain('right knee flexion, passive: 131° · Rook');
    expect((button('Take in', entries()) as HTMLButtonElement).disabled)
      .withContext('not while it is signed')
      .toBeTrue();
    button('Leave out', entries()).click();
    const ask = await dialog();
    const input = ask.querySelector('input')!;
    input.value = 'noted already';
    input.dispatchEvent(new Event('input'));
    button('Leave it out', ask).click();
    const request = await until(() => http.match({ method: 'POST', url: `/api/late-entries/${SOME_ID}/dismissal` })[0]);
    expect(request.request.body).toEqual({ why: 'noted already' });
    const amending = { why: 'late', by: 'Wren', at: SIGNED.at };
    request.flush(judged({ signing: { notYours: null, signatures: [SIGNED], amending, changes: [], late } }));
    await fixture.whenStable();
    button('Take in', entries()).click();
    http.expectOne({ method: 'POST', url: `/api/late-entries/${SOME_ID}/taking` }).flush(judged());
    await fixture.whenStable();
    expect(text(entries())).toBe('');
  });

  it('brings back what was typed and not saved before a reload', async () => {
    await open();
    const area = page().querySelector('textarea')!;
    area.value = 'Half a sent';
    area.dispatchEvent(new Event('input'));
    TestBed.resetTestingModule();
    await open();
    expect(page().querySelector('textarea')!.value).toBe('Half a sent');
    http.expectOne({ method: 'PUT', url: `/api/visits/${SOME_ID}/summary` }).flush(judged({ summary: 'Half a sent' }));
  });
});
