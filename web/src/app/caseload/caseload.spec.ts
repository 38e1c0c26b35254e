import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatDialogRef } from '@angular/material/dialog';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter, Router } from '@angular/router';
import { formatISO, subDays } from 'date-fns';
import { SOME_ID, visitRecord } from '../testing/records';
import { until } from '../testing/until';
import { CaseloadPage } from './caseload';
import { NewPatientDialog } from './new-patient.dialog';
import { asFound, today } from './words';

const daysAgo = (days: number) => formatISO(subDays(new Date(), days), { representation: 'date' });

/** A record of which there is nothing else to say. */
const NOTHING_ELSE = { mergedInto: null, doubles: [], merges: [], episodes: [] };

describe('caseload', () => {
  let http: HttpTestingController;
  const close = jasmine.createSpy('close');
  const words = (fixture: ComponentFixture<unknown>) => (fixture.nativeElement as HTMLElement).textContent!.replace(/\s+/g, ' ');

  beforeEach(() => {
    close.calls.reset();
    localStorage.clear();
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: MatDialogRef, useValue: { close } }],
    });
    http = TestBed.inject(HttpTestingController);
  });

  describe('the list', () => {
    const open = async (answer: unknown, status = 200) => {
      const fixture = TestBed.createComponent(CaseloadPage);
      fixture.detectChanges();
      fixture.nativeElement.style.height = '600px';
      http
        .expectOne('/api/caseload?order=urgent')
        .flush(Array.isArray(answer) ? { rows: answer, odd: [], next: null } : (answer as object), { status, statusText: 'x' });
      await fixture.whenStable();
      return fixture;
    };
    const row = (assessedOn: string | null, over: object = {}) => {
      const { patient, episode, visit } = visitRecord();
      return {
        patient,
        episode,
        visits: 1,
        lastVisit: assessedOn && { ...visit, assessedOn, readings: 48 },
        standing: null,
        ended: null,
        ...over,
      };
    };

    it('says who was seen when, in words', async () => {
      for (const [day, said] of [
        [today(), 'today'],
        [daysAgo(1), 'yesterday'],
        [daysAgo(9), '9 days ago'],
        [daysAgo(28), '4 weeks ago'],
      ] as const) {
        expect(words(await open([row(day)])))
          .withContext(day)
          .toContain(said);
      }
      expect(words(await open([row(null)]))).toContain('not measured yet');
    });

    it('says why somebody needs somebody, by shape and word, the first reason first', async () => {
      const line = {
        name: 'Left knee flexion, active',
        motion: 'knee.flexion',
        points: [
          { on: daysAgo(30), value: 90 },
          { on: daysAgo(3), value: 101 },
        ],
        goal: 118,
      };
      const reasons = [
        { kind: 'stuck', since: daysAgo(42), name: line.name, weeks: 6, missing: 17, motion: 'knee.flexion' },
        { kind: 'due', since: '2026-11-01' },
        { kind: 'wrote', since: '2026-11-02', note: 'a third one' },
      ];
      const fixture = await open([row(daysAgo(3), { standing: { reasons, urgency: 5, since: daysAgo(42), next: daysAgo(-1), line } })]);
      expect(words(fixture)).toContain('no real change for 6 weeks, 17° short of the goal: Left knee flexion, active');
      expect(words(fixture)).toContain('recheck due 1 Nov 2026');
      expect(words(fixture)).not.toContain('a third one');
      expect(words(fixture)).toContain('Left knee flexion, active 101°');
      const page = fixture.nativeElement as HTMLElement;
      expect(page.querySelector('dg-queue-mark svg.today')).not.toBeNull();
      expect(page.querySelectorAll('dg-spark circle').length).toBe(2);
      expect(page.querySelector('dg-spark .goal')).not.toBeNull();
    });

    it('tells how many stand where, and does without that where it cannot be had', async () => {
      const fixture = await open([]);
      http
        .expectOne('/api/queue')
        .flush({ today: 2, due: 1, met: 1, way: 3, ended: 4, untold: 0, examiners: [{ id: SOME_ID, name: 'Rook Ansty' }] });
      await fixture.whenStable();
      expect(words(fixture)).toContain('2 need you1 due1 goal met3 on their way7 in care, 4 discharged');
      expect(words(fixture)).toContain('Rook Ansty’s');
      fixture.componentRef.setInput('whose', SOME_ID);
      await fixture.whenStable();
      http.expectOne(`/api/queue?whose=${SOME_ID}`).flush({}, { status: 503, statusText: 'x' });
      await fixture.whenStable();
      expect(words(fixture)).not.toContain('on their way');
      fixture.componentRef.setInput('state', 'ended');
      await fixture.whenStable();
      const asked = http.match((request) => request.urlWithParams.includes('state=ended'));
      asked.at(-1)!.flush({ rows: [row(daysAgo(3), { ended: { on: '2026-11-20', outcome: 'goal-met' } })], odd: [], next: null });
      await fixture.whenStable();
      expect(words(fixture)).toContain('discharged 20 Nov 2026');
      expect(words(fixture)).toContain('goals met');
    });

    it('is walked through by arrow keys, searched by a slash', async () => {
      const fixture = await open([row(today()), { ...row(today()), episode: { ...row(today()).episode, id: crypto.randomUUID() } }]);
      const page = fixture.nativeElement as HTMLElement;
      document.body.append(page);
      const key = (name: string) =>
        (document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent('keydown', { key: name, bubbles: true }));
      const links = [...page.querySelectorAll<HTMLElement>('li > a')];
      expect(links.length).toBe(2);
      key('ArrowDown');
      expect(document.activeElement).toBe(links[0]!);
      key('ArrowDown');
      expect(document.activeElement).toBe(links[1]!);
      key('ArrowUp');
      expect(document.activeElement).toBe(links[0]!);
      key('/');
      expect(document.activeElement).toBe(page.querySelector('input[type=search]'));
      page.remove();
    });

    it('reads a day with slashes as the reader’s region writes it', () => {
      expect(asFound('marsh 3/9/1958', 'en-GB')).toBe('marsh 1958-09-03');
      expect(asFound('9/3/1958', 'en-US')).toBe('1958-09-03');
      expect(asFound('1958-09-03 knee', 'de-DE')).toBe('1958-09-03 knee');
    });

    it('teaches when it is empty', async () => {
      expect(words(await open([]))).toContain('Nobody is in care yet');
    });

    it('says what to do when it cannot be had, and tries again', async () => {
      const fixture = await open({ detail: 'The database does not answer.' }, 503);
      const page = fixture.nativeElement as HTMLElement;
      expect(page.querySelector('[role=alert]')!.textContent).toBe('The database does not answer.');
      [...page.querySelectorAll('button')].find((b) => b.textContent!.includes('Try again'))!.click();
      fixture.detectChanges();
      http.expectOne('/api/caseload?order=urgent').flush({ rows: [row(today())], odd: [], next: null });
      await fixture.whenStable();
      expect(words(fixture)).toContain('Ilka Marsh');
    });

    it('asks for the next page before the end of this one, and draws only what is in sight', async () => {
      const fixture = TestBed.createComponent(CaseloadPage);
      document.body.append(fixture.nativeElement);
      fixture.nativeElement.style.cssText = 'display: block; height: 600px';
      fixture.detectChanges();
      const rows = Array.from({ length: 50 }, (_, n) => {
        const one = row(today());
        return { ...one, episode: { ...one.episode, id: crypto.randomUUID() }, patient: { ...one.patient, familyName: `Marsh${n}` } };
      });
      http.expectOne('/api/caseload?order=urgent').flush({ rows, odd: [], next: 'further' });
      await fixture.whenStable();
      const viewport = fixture.nativeElement.querySelector('cdk-virtual-scroll-viewport') as HTMLElement;
      viewport.style.height = '500px';
      window.dispatchEvent(new Event('resize'));
      const drawn = () => fixture.nativeElement.querySelectorAll('li').length as number;
      await until(() => drawn() > 0 && drawn() < 40);
      viewport.scrollTop = 30 * 74;
      viewport.dispatchEvent(new Event('scroll'));
      const further = await until(() => http.match('/api/caseload?order=urgent&after=further')[0]);
      // Somebody has moved down meanwhile, and comes again.
      further.flush({ rows: [rows[3]!], odd: [{ id: 'x', what: 'Ilka Odd', why: 'patient.sex is not one of the allowed' }], next: null });
      await fixture.whenStable();
      expect(words(fixture)).toContain('One record cannot be read here.');
      expect(words(fixture)).toContain('Ilka Odd: patient.sex');
      const { rows: shown } = fixture.componentInstance as unknown as { rows: () => typeof rows };
      expect([shown().length, shown().at(-1)!.patient.familyName]).toEqual([50, 'Marsh3']);
      fixture.nativeElement.remove();
    });

    it('finds by what is typed, and says so when nobody is found', async () => {
      const fixture = await open([]);
      const router = TestBed.inject(Router);
      const field = fixture.nativeElement.querySelector('input[type=search]') as HTMLInputElement;
      field.value = 'stiff';
      field.dispatchEvent(new Event('input'));
      await until(() => router.url.includes('find=stiff'));
      fixture.componentRef.setInput('find', 'stiff');
      fixture.detectChanges();
      http.expectOne('/api/caseload?order=urgent&find=stiff').flush({ rows: [], odd: [], next: null });
      await fixture.whenStable();
      expect(words(fixture)).toContain('Nobody in care is found by “stiff”');
    });

    it('refuses an answer that does not keep the contract', async () => {
      expect(words(await open([{ patient: 'somebody' }]))).toContain('could not be read');
    });
  });

  describe('a new patient', () => {
    const open = async () => {
      const fixture = TestBed.createComponent(NewPatientDialog);
      await fixture.whenStable();
      const page = fixture.nativeElement as HTMLElement;
      const fill = (name: string, value: string) => {
        const field = page.querySelector<HTMLInputElement>(`[formControlName=${name}]`)!;
        field.value = value;
        field.dispatchEvent(new Event('input'));
      };
      const submit = async () => {
        page.querySelector('form')!.dispatchEvent(new Event('submit'));
        await fixture.whenStable();
      };
      return { fixture, page, fill, submit };
    };

    it('is sent only when it is whole', async () => {
      const { page, fill, submit } = await open();
      fill('givenName', '   ');
      fill('birthDate', '2999-01-01');
      await submit();
      http.expectNone('/api/patients');
      for (const text of ['Type the given name', 'Type the family name', 'today at the latest', 'Type what brings them'])
        expect(page.textContent).toContain(text);
    });

    it('is there again, half entered, after the dialog or the page was left, and gone when that was wanted', async () => {
      const { fill } = await open();
      fill('givenName', 'Ilka');
      fill('complaint', 'stiff hip');
      const list = TestBed.createComponent(CaseloadPage);
      list.detectChanges();
      http.expectOne('/api/caseload?order=urgent').flush({ rows: [], odd: [], next: null });
      await list.whenStable();
      expect(words(list)).toContain('Go on adding Ilka');
      const { page } = await open();
      const value = (name: string) => page.querySelector<HTMLInputElement>(`[formControlName=${name}]`)!.value;
      expect([value('givenName'), value('familyName'), value('complaint')]).toEqual(['Ilka', '', 'stiff hip']);
      [...page.querySelectorAll('button')].find((button) => button.textContent!.includes('Leave without adding'))!.click();
      expect(close).toHaveBeenCalledTimes(1);
      const { page: empty } = await open();
      expect(empty.querySelector<HTMLInputElement>('[formControlName=givenName]')!.value).toBe('');
    });

    it('keeps its ids when it is sent again, so that nobody is added twice', async () => {
      const { fixture, page, fill, submit } = await open();
      for (const [name, value] of [
        ['givenName', 'Ilka'],
        ['familyName', 'Marsh'],
        ['birthDate', '1970-04-01'],
        ['complaint', 'stiff hip'],
      ] as const)
        fill(name, value);
      await submit();
      const first = http.expectOne('/api/patients');
      first.flush({ detail: 'The database does not answer.' }, { status: 503, statusText: 'x' });
      await fixture.whenStable();
      expect(page.querySelector('[role=alert]')!.textContent).toContain('The database does not answer.');
      await submit();
      const second = http.expectOne('/api/patients');
      expect(second.request.body).toEqual(first.request.body);
      const { patient } = visitRecord();
      second.flush({ ...NOTHING_ELSE, patient: { ...patient, gender: '', fileNumber: '', revision: 0 } });
      expect(close).toHaveBeenCalledOnceWith(patient.id);
    });
  });
});
