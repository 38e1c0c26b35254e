import { HttpErrorResponse, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { ACCOUNT, READINGS, VISITS, RESOURCES, type Route } from '@dial-gauge/contract';
import { SOME_ID } from '../testing/records';
import { Api } from './api';
import { describeFailure, toFailure } from './problem';

describe('Api', () => {
  let api: Api;
  let http: HttpTestingController;
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    api = TestBed.inject(Api);
    http = TestBed.inject(HttpTestingController);
  });
  afterEach(() => http.verify());

  it('asks nothing before it is subscribed, and asks by the contract', () => {
    const call = api.call(READINGS.withdrawReading, { id: SOME_ID, body: {} });
    http.expectNone(() => true);
    call.subscribe();
    const { method, url } = http.expectOne(() => true).request;
    expect([method, url]).toEqual(['POST', `/api/readings/${SOME_ID}/withdrawal`]);
  });

  it('says of what no act precedes that this page asks it by itself', () => {
    const asked = (enteredAt?: string) => {
      api.call(READINGS.withdrawReading, { id: SOME_ID, body: {}, enteredAt }).subscribe();
      return http.expectOne(() => true).request.headers.get('x-dial-gauge-background');
    };
    const now = Date.now();
    const clock = spyOn(Date, 'now').and.returnValue(now + 60_000);
    expect(asked()).toBe('1');
    document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '9', bubbles: true }));
    expect(asked()).toBeNull();
    clock.and.returnValue(now + 80_000);
    expect(asked()).withContext('twenty seconds later').toBe('1');
    // A reading that was held with an instrument a moment ago, and one that waited in the outbox.
    expect(asked(new Date(now + 79_000).toISOString())).toBeNull();
    expect(asked(new Date(now + 10_000).toISOString())).toBe('1');
    document.body.dispatchEvent(new Event('pointerdown', { bubbles: true }));
    expect(asked()).toBeNull();
  });

  it('never lets an id leave its place in the address', () => {
    api.call(VISITS.visit, { id: '../../session?x=' }).subscribe();
    http.expectOne('/api/visits/..%2F..%2Fsession%3Fx%3D');
  });

  it('knows a place for the id in every route that wants one', () => {
    for (const route of Object.values(RESOURCES).flatMap((routes): Route[] => Object.values(routes)))
      expect((route.path.match(/:/g) ?? []).length)
        .withContext(route.path)
        .toBeLessThanOrEqual(1);
  });

  it('refuses an answer that does not keep the contract', () => {
    let failure = toFailure(null);
    api.call(ACCOUNT.session).subscribe({ error: (error: unknown) => (failure = toFailure(error)) });
    http.expectOne('/api/session').flush({ user: 'somebody' });
    expect(failure.passing).toBeFalse();
    expect(failure.message).toContain('could not be read');
  });
});

describe('failures', () => {
  const failure = (status: number, error?: object) => toFailure(new HttpErrorResponse({ status, error }));

  it('pass by themselves when the server, the database or the session is away', () => {
    expect([0, 401, 429, 500, 503].map((status) => failure(status).passing)).toEqual([true, true, true, true, true]);
    expect([400, 404, 409, 413, 422].map((status) => failure(status).passing)).toEqual([false, false, false, false, false]);
  });

  it('say the words of the server, with the first refused field', () => {
    expect(describeFailure(failure(503, { detail: 'The database does not answer.' }))).toBe('The database does not answer.');
    expect(describeFailure(failure(422, { detail: 'no', errors: [{ path: 'end', message: 'is missing' }] }))).toBe('end: is missing');
    expect(failure(502).message).toContain('cannot be reached');
  });
});
