import { HttpErrorResponse, provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { ACCOUNT, actOf, JUDGEMENT, RESOURCES, VISITS, type Route, type SessionView } from '@dial-gauge/contract';
import { firstValueFrom } from 'rxjs';
import { SOME_ID, visitRecord } from '../testing/records';
import { until } from '../testing/until';
import { Api } from './api';
import { AtHand, keyOf } from './at-hand';
import { Session } from './session';

const OTHER_ID = '0b9a2f6e-52f6-4d2b-8c7a-1c1f7cf6b1aa';
const session = (id = SOME_ID): SessionView => ({
  user: { id, name: 'Wren', email: 'wren@clinic.example', role: 'lead' },
  clinic: { id: SOME_ID, name: 'Saltmarsh Lane' },
  secondFactorMissing: false,
  passwordLink: null,
});

/** The browser's own database takes its time. */
async function there(look: () => Promise<boolean>): Promise<void> {
  for (let tries = 0; tries < 300; tries += 1) if (await look()) return;
  throw new Error('it never came');
}

describe('what is at hand', () => {
  let now = 0;
  let atHand: AtHand;
  let api: Api;
  let http: HttpTestingController;
  const key = keyOf(`/visits/${SOME_ID}`);

  const opened = () => {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [provideHttpClient(), provideHttpClientTesting()] });
    atHand = TestBed.inject(AtHand);
    api = TestBed.inject(Api);
    http = TestBed.inject(HttpTestingController);
  };
  beforeEach(async () => {
    now = Date.parse('2026-11-27T08:00:00Z');
    spyOn(Date, 'now').and.callFake(() => now);
    opened();
    await atHand.forget();
    await atHand.own(session());
  });
  afterEach(async () => {
    await atHand.forget();
    localStorage.removeItem('dial-gauge.left');
    http.verify();
  });

  const asked = () => firstValueFrom(api.call(VISITS.visit, { id: SOME_ID }));
  /** Asks for the visit, which is answered. */
  const answered = async () => {
    const record = asked();
    http.expectOne(`/api/visits/${SOME_ID}`).flush(visitRecord());
    await record;
    await there(async () => (await atHand.read(key)) !== null);
    atHand.turnPage();
  };
  /** Asks for it again, and nobody is there. */
  const away = (status = 0) => {
    const record = asked();
    const request = http.expectOne(`/api/visits/${SOME_ID}`);
    if (status) request.flush(null, { status, statusText: 'away' });
    else request.error(new ProgressEvent('error'));
    return record;
  };

  it('is shown where nobody answers, with the moment it is from, until the server has answered again', async () => {
    await answered();
    expect(atHand.shownFrom()).toBeNull();
    now = Date.parse('2026-11-27T09:00:00Z');
    for (const status of [0, 502, 503, 504]) expect((await away(status)).visit.id).toBe(SOME_ID);
    expect(atHand.shownFrom()).toBe(Date.parse('2026-11-27T08:00:00Z'));
    await answered();
    expect(atHand.shownFrom()).toBeNull();
  });

  it('is nothing where it was never asked for, and what is refused stays refused', async () => {
    await expectAsync(away()).toBeRejectedWith(jasmine.any(HttpErrorResponse));
    await answered();
    await expectAsync(away(404)).toBeRejectedWith(jasmine.any(HttpErrorResponse));
    expect(atHand.shownFrom()).toBeNull();
  });

  it('is there after a reload, with who is signed in, and goes with them', async () => {
    await answered();
    opened();
    const isIn = firstValueFrom(TestBed.inject(Session).check());
    http.expectOne('/api/session').error(new ProgressEvent('error'));
    expect(await isIn).toBeTrue();
    expect(TestBed.inject(Session).current()?.user.name).toBe('Wren');
    expect((await away()).visit.id).toBe(SOME_ID);
    // Signed out while nobody is there.
    TestBed.inject(Session).signOut().subscribe();
    const telling = await until(() => http.match({ method: 'DELETE', url: '/api/session' })[0]);
    telling.error(new ProgressEvent('error'));
    await until(() => TestBed.inject(Session).current() === null);
    expect(await atHand.read(key)).toBeNull();
    // The next page tells the server before it asks for anything.
    opened();
    const next = firstValueFrom(TestBed.inject(Session).check());
    (await until(() => http.match({ method: 'DELETE', url: '/api/session' })[0])).flush({});
    expect(await next).toBeFalse();
    expect(localStorage.getItem('dial-gauge.left')).toBeNull();
  });

  it('goes when the session has ended, when somebody else signs in, and half a day after the server was heard', async () => {
    await answered();
    await expectAsync(away(401)).toBeRejected();
    await there(async () => (await atHand.read(key)) === null);
    expect(await atHand.read(key)).toBeNull();

    await atHand.own(session());
    await answered();
    await atHand.own(session(OTHER_ID));
    expect(await atHand.read(key)).toBeNull();

    await atHand.own(session());
    await answered();
    now = Date.parse('2026-11-27T20:00:01Z');
    expect(await atHand.read(key)).toBeNull();
  });

  it('is not added to once somebody has left', async () => {
    await atHand.forget();
    await atHand.keep(key, visitRecord());
    expect(await atHand.read(key)).toBeNull();
  });

  it('holds what was looked at, and no judgement: that would leave out what waits to be sent', () => {
    const kept = Object.values(RESOURCES)
      .flatMap((routes): Route[] => Object.values(routes))
      .filter(({ keep }) => keep);
    expect(kept).toContain(VISITS.visit);
    expect(kept).not.toContain(JUDGEMENT.judgement);
    for (const route of kept) {
      expect(route.method).withContext(route.path).toBe('get');
      expect(route === ACCOUNT.session || actOf(route) === 'look')
        .withContext(route.path)
        .toBeTrue();
    }
  });

  it('keeps the latest where there is more than it holds', async () => {
    for (let n = 0; n < 405; n += 1) {
      now += 1;
      await atHand.keep(keyOf(`/visits/${n}`), {});
    }
    expect(await atHand.read(keyOf('/visits/3'))).toBeNull();
    expect(await atHand.read(keyOf('/visits/404'))).not.toBeNull();
  });
});
