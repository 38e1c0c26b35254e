import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatDialogRef } from '@angular/material/dialog';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter, Router } from '@angular/router';
import { formatISO, subDays } from 'date-fns';
import { visitRecord } from '../testing/records';
import { until } from '../testing/until';
import { CaseloadPage } from './caseload';
import { NewPatientDialog } from './new-patient.dialog';
import { PatientPage } from './patient';
import { today } from './words';

const daysAgo = (days: number) => formatISO(subDays(new Date(), days), { representation: 'date' });

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
        .expectOne('/api/caseload?order=latest')
        .flush(Array.isArray(answer) ? { rows: answer, odd: [], next: null } : (answer as object), { status, statusText: 'x' });
      await fixture.whenStable();
      return fixture;
    };
    const row = (assessedOn: string | null) => {
      const { patient, episode, visit } = visitRecord();
      return { patient, episode, visits: 1, lastVisit: assessedOn && { ...visit, assessedOn, readings: 48 } };
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

    it('teaches when it is empty', async () => {
      expect(words(await open([]))).toContain('Nobody is in care yet');
    });

    it('says what to do when it cannot be had, and tries again', async () => {
      const fixture = await open({ detail: 'The database does not answer.' }, 503);
      const page = fixture.nativeElement as HTMLElement;
      expect(page.querySelector('[role=alert]')!.textContent).toBe('The database does not answer.');
      [...page.querySelectorAll('button')].find((b) => b.textContent!.includes('Try again'))!.click();
      fixture.detectChanges();
      http.expectOne('/api/caseload?order=latest').flush({ rows: [row(today())], odd: [], next: null });
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
      http.expectOne('/api/caseload?order=latest').flush({ rows, odd: [], next: 'further' });
      await fixture.whenStable();
      const viewport = fixture.nativeElement.querySelector('cdk-virtual-scroll-viewport') as HTMLElement;
      viewport.style.height = '500px';
      window.dispatchEvent(new Event('resize'));
      await new Promise((resolve) => setTimeout(resolve, 100));
      expect(fixture.nativeElement.querySelectorAll('li').length).toBeLessThan(40);
      viewport.scrollTop = 30 * 74;
      viewport.dispatchEvent(new Event('scroll'));
      const further = await until(() => http.match('/api/caseload?order=latest&after=further')[0]);
      further.flush({ rows: [], odd: [{ id: 'x', what: 'Ilka Odd', why: 'patient.sex is not one of the allowed' }], next: null });
      await fixture.whenStable();
      expect(words(fixture)).toContain('One record cannot be read here.');
      expect(words(fixture)).toContain('Ilka Odd: patient.sex');
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
      http.expectOne('/api/caseload?order=latest&find=stiff').flush({ rows: [], odd: [], next: null });
      await fixture.whenStable();
      expect(words(fixture)).toContain('Nobody in care is found by “stiff”');
    });

    it('refuses an answer that does not keep the contract', async () => {
      expect(words(await open([{ patient: 'somebody' }]))).toContain('could not be read');
    });
  });

  describe('the record', () => {
    it('starts the next visit with an id of its own, and says why when it cannot', async () => {
      const fixture = TestBed.createComponent(PatientPage);
      const { patient, episode, visit } = visitRecord();
      fixture.componentRef.setInput('id', patient.id);
      fixture.detectChanges();
      http.expectOne(`/api/patients/${patient.id}`).flush({ patient, episodes: [{ ...episode, visits: [{ ...visit, number: 1 }] }] });
      await fixture.whenStable();
      const button = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')].find(
        (b) => b.textContent.trim() === 'Start visit 2',
      )!;
      button.click();
      const request = http.expectOne(`/api/episodes/${episode.id}/visits`);
      expect(request.request.body).toEqual({
        id: jasmine.stringMatching(/^[0-9a-f-]{36}$/),
        assessedOn: today(),
      });
      request.flush({ detail: 'no', errors: [{ path: 'assessedOn', message: 'lies in the future' }] }, { status: 422, statusText: 'x' });
      await fixture.whenStable();
      expect(words(fixture)).toContain('assessedOn: lies in the future');
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
      http.expectOne('/api/caseload?order=latest').flush({ rows: [], odd: [], next: null });
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
      second.flush({ patient, episodes: [] });
      expect(close).toHaveBeenCalledOnceWith(patient.id);
    });
  });
});
