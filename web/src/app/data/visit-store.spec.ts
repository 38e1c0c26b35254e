import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { EPISODES, type VisitRecord } from '@dial-gauge/contract';
import { SOME_ID, visitRecord } from '../testing/records';
import { Api } from './api';
import { VisitStore } from './visit-store';

describe('the visit that its steps share', () => {
  let store: VisitStore;
  let http: HttpTestingController;
  const address = `/api/visits/${SOME_ID}`;
  const seen: VisitRecord[] = [];
  const look = () => store.visit(SOME_ID).subscribe({ next: (record) => seen.push(record), error: () => {} });
  const answer = () => http.expectOne(address).flush(visitRecord());

  beforeEach(() => {
    seen.length = 0;
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    [store, http] = [TestBed.inject(VisitStore), TestBed.inject(HttpTestingController)];
  });
  afterEach(() => http.verify());

  it('is asked for once, by however many and while it is on its way', () => {
    look();
    look();
    answer();
    look();
    expect(seen.length).toBe(3);
  });

  it('is asked for again after anything was written, before it was answered and after', () => {
    look();
    answer();
    const route = Object.values(EPISODES).find(({ method }) => method !== 'get')!;
    TestBed.inject(Api)
      .send(route, { id: SOME_ID, body: {} as never })
      .subscribe();
    look();
    answer();
    http.expectOne((request) => request.method !== 'GET').flush({});
    look();
    answer();
    expect(seen.length).toBe(3);
  });

  it('is asked for again when others may have entered something, and after a failure', () => {
    jasmine.clock().install().mockDate();
    look();
    answer();
    jasmine.clock().tick(20_001);
    look();
    http.expectOne(address).flush(null, { status: 503, statusText: 'busy' });
    look();
    answer();
    jasmine.clock().uninstall();
    expect(seen.length).toBe(2);
  });

  it('is one: another visit takes its place', () => {
    look();
    answer();
    const other = 'b0000000-0000-4000-8000-000000000009';
    store.visit(other).subscribe();
    http.expectOne(`/api/visits/${other}`).flush(visitRecord());
    look();
    answer();
    expect(seen.length).toBe(2);
  });
});
