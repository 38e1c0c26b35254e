import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import type { ReportView } from '@dial-gauge/contract';
import type { Report } from '@dial-gauge/core';
import { nothingLogged, SOME_ID, visitRecord } from '../testing/records';
import { ReportPage } from './report';

const REPORT: Report = {
  ...{ kind: 'referrer', title: 'Ilka Marsh: report', subtitle: 'Clinic', foot: 'foot', draft: true, large: false },
  blocks: [
    { kind: 'heading', text: 'Findings' },
    { kind: 'table', caption: 'What was found', head: ['About', 'Found'], rows: [['Left hip flexion', '20° short']], figures: [1] },
    {
      kind: 'drill',
      title: 'Heel slide, left',
      dose: 'Do it 12 times.',
      cues: ['Slide.'],
      stop: 'Stop if it hurts.',
      start: { protocol: 'knee.flexion/supine', value: 10 },
      end: { protocol: 'knee.flexion/supine', value: 90 },
    },
  ],
};

describe('ReportPage', () => {
  let fixture: ComponentFixture<ReportPage>;
  let http: HttpTestingController;
  const page = () => fixture.nativeElement as HTMLElement;
  const button = (name: string) => [...page().querySelectorAll('button')].find((one) => one.textContent!.includes(name))!;
  const asked = (kind: string) =>
    http.expectOne(({ url, params }) => url === `/api/visits/${SOME_ID}/report` && params.get('for') === kind);
  const view = (report: Partial<Report> = {}, signed = false): ReportView => {
    const { visit, patient, episode } = visitRecord();
    const signatures = signed
      ? [{ id: SOME_ID, number: 1, at: '2026-11-21T09:00:00Z', by: 'Wren', byMe: false, countersigned: null, summary: 'x', why: '' }]
      : [];
    return {
      visit: { ...visit, signed },
      patient,
      episode,
      signing: { notYours: null, signatures, amending: null, changes: [], late: [] },
      report: { ...REPORT, ...report },
      pages: 1,
      breaks: [],
    };
  };
  const open = async (report: ReportView) => {
    localStorage.clear();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([])],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(ReportPage);
    fixture.componentRef.setInput('id', SOME_ID);
    fixture.detectChanges();
    asked('referrer').flush(report);
    fixture.detectChanges();
    await nothingLogged(http);
    await fixture.whenStable();
  };
  afterEach(() => localStorage.clear());

  it('shows the page as it prints, as a draft until it is signed', async () => {
    await open(view());
    const sheet = page().querySelector('dg-sheet')!;
    expect(sheet.textContent).toContain('DRAFT, not signed');
    expect(sheet.querySelectorAll('table tbody tr').length).toBe(1);
    expect(sheet.querySelector('dg-pose-figure svg')!.getAttribute('aria-label')).toBe('Heel slide, left');
    expect(button('Write draft PDF')).toBeDefined();
    TestBed.resetTestingModule();
    await open(view({ draft: false }, true));
    expect(page().querySelector('dg-sheet')!.textContent).not.toContain('DRAFT');
    expect(page().textContent).toContain('signed by Wren');
  });

  it('shows where the paper ends, and how many pages there are', async () => {
    const blocks: Report['blocks'] = [
      { kind: 'list', items: ['one', 'two'] },
      {
        kind: 'table',
        caption: 'x',
        head: ['a', 'b'],
        rows: [
          ['1', '2'],
          ['3', '4'],
        ],
        figures: [],
      },
      { kind: 'paragraph', text: 'last' },
    ];
    const breaks = [
      { page: 2, block: 0, item: 1 },
      { page: 3, block: 1, item: 1 },
      { page: 4, block: 2, item: 0 },
    ];
    await open({ ...view({ blocks }), pages: 4, breaks });
    const sheet = page().querySelector('dg-sheet')!;
    const ends = [...sheet.querySelectorAll('.page-end')];
    expect(ends.map((one) => one.textContent!.trim())).toEqual(['page 2 of 4', 'page 3 of 4', 'page 4 of 4']);
    expect(ends.map((one) => one.nextElementSibling!.textContent!.replace(/\s+/g, ''))).toEqual(['two', '34', 'last']);
    expect(page().querySelector('.bench')!.textContent).toContain('4 pages on A4');
    button('Letter').click();
    fixture.detectChanges();
    expect(asked('referrer').request.params.get('paper')).toBe('letter');
  });

  it('keeps for whom it was opened, and shows the page before until the next has come', async () => {
    await open(view());
    button('the patient').click();
    fixture.detectChanges();
    expect(page().querySelector('dg-sheet')!.textContent).toContain('Ilka Marsh: report');
    asked('patient').flush(view({ kind: 'patient', title: 'For Ilka', large: true }));
    await fixture.whenStable();
    expect(page().querySelector('dg-sheet')!.textContent).toContain('For Ilka');
    const again = TestBed.createComponent(ReportPage);
    again.componentRef.setInput('id', SOME_ID);
    again.detectChanges();
    asked('patient');
  });

  it('hands files over by their names, and says what went wrong', async () => {
    await open(view());
    const clicked: string[] = [];
    spyOn(HTMLAnchorElement.prototype, 'click').and.callFake(function (this: HTMLAnchorElement) {
      clicked.push(this.download);
    });
    button('CSV').click();
    http
      .expectOne(({ url, params }) => url === `/api/visits/${SOME_ID}/export` && params.get('to') === 'csv')
      .flush({ fileName: 'marsh-visit.csv', mediaType: 'text/csv', base64: btoa('a,b') });
    await fixture.whenStable();
    expect(clicked).toEqual(['marsh-visit.csv']);
    expect(page().querySelector('.done')!.textContent).toContain('marsh-visit.csv was written.');
    button('Calendar').click();
    http
      .expectOne(({ params }) => params.get('to') === 'ics')
      .flush({ title: 'No programme', detail: 'No programme was given yet.' }, { status: 409, statusText: 'Conflict' });
    await fixture.whenStable();
    expect(page().querySelector('[role=alert]')!.textContent).toContain('No programme was given yet.');
  });

  it('tells link and code of a page once, and closes it', async () => {
    await open(view());
    const url = `/api/episodes/${SOME_ID}/patient-pages`;
    button('Make a page').click();
    const made = http.expectOne({ method: 'POST', url });
    expect((made.request.body as { days: number }).days).toBe(30);
    const id = (made.request.body as { id: string }).id;
    made.flush({ id, token: 'abc', code: '123456', expiresAt: '2099-01-01T00:00:00Z' });
    TestBed.tick();
    const row = { id, madeBy: 'Wren', madeAt: '2026-11-20T09:00:00Z', expiresAt: '2099-01-01T00:00:00Z', revokedAt: null, openedAt: null };
    http.expectOne(url).flush({ pages: [row], logged: [], steps: [] });
    await fixture.whenStable();
    expect(page().textContent).toContain(`${location.origin}/p/abc`);
    expect(page().querySelector('.made .code')!.textContent).toBe('123456');
    button('Close it').click();
    http.expectOne(`/api/patient-pages/${id}/revocation`).flush({});
    TestBed.tick();
    http.expectOne(url).flush({ pages: [{ ...row, revokedAt: '2026-11-21T09:00:00Z' }], logged: [], steps: [] });
    await fixture.whenStable();
    expect(page().querySelector('.made')).toBeNull();
    expect(page().textContent).not.toContain('Close it');
  });
});
