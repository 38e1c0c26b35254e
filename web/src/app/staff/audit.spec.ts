import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter, Router } from '@angular/router';
import { AUDIT_DEEDS } from '@dial-gauge/contract';
import { CommandQueue } from '../data/command-queue';
import { FakeQueue } from '../testing/fake-queue';
import { SOME_ID } from '../testing/records';
import { until } from '../testing/until';
import { AuditPage, deedWords } from './audit';

const entry = (over: object = {}) => ({
  id: crypto.randomUUID(),
  at: '2026-11-27T09:00:00.000Z',
  by: 'Rook Ansty',
  did: 'looked',
  about: '/visits/:id/judgement',
  patient: { id: SOME_ID, name: 'Ilka Marsh' },
  ...over,
});

describe('AuditPage', () => {
  let http: HttpTestingController;
  beforeEach(() => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideRouter([]), { provide: CommandQueue, useValue: new FakeQueue() }],
    });
    http = TestBed.inject(HttpTestingController);
  });
  const people = [{ id: SOME_ID, name: 'Rook Ansty' }];

  it('tells who did what, earlier entries on demand, and one record alone', async () => {
    const fixture = TestBed.createComponent(AuditPage);
    fixture.detectChanges();
    http.expectOne('/api/audit').flush({ rows: [entry()], next: 'further', people });
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const press = (name: string) => [...page.querySelectorAll('button')].find((one) => one.textContent.trim() === name)!.click();
    expect(page.querySelector('tbody')!.textContent.replace(/\s+/g, ' ')).toContain('Rook Anstylooked at findings Ilka Marsh');
    press('Earlier entries');
    http.expectOne('/api/audit?after=further').flush({ rows: [entry({ did: 'changed', about: 'birthDate' })], next: null, people });
    await fixture.whenStable();
    expect(page.querySelectorAll('tbody tr').length).toBe(2);
    expect(page.textContent).toContain('changed birth date');
    press('Ilka Marsh');
    await until(() => TestBed.inject(Router).url.includes(`patient=${SOME_ID}`));
    fixture.componentRef.setInput('patient', SOME_ID);
    await fixture.whenStable();
    http.expectOne(`/api/audit?patient=${SOME_ID}`).flush({ detail: 'The database does not answer.' }, { status: 503, statusText: 'x' });
    await fixture.whenStable();
    expect(page.querySelector('[role=alert]')?.textContent).toBe('The database does not answer.');
  });

  it('has words for every deed, and for parts and fields that it does not know by name', () => {
    for (const did of AUDIT_DEEDS) expect(deedWords({ did, about: '/visits/:id' })).toMatch(/^[a-z]+/);
    expect(deedWords({ did: 'signed-in', about: '/session' })).toBe('signed in');
    expect(deedWords({ did: 'looked', about: '/visits/:id/screen-plan' })).toBe('looked at screen plan');
  });
});
