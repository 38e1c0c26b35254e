import { openDatabase } from '../records/open-database.js';
import { randomUUID } from 'node:crypto';
import { SecondFactorRow, SessionRow, User } from '../records/identity/entities.js';
import { startClinics, type Clinics } from '../testing/harness.js';
import { Patient } from '../records/patients/entities.js';
import { connect, createDataSource, type Database } from './database.js';
import { ENTITIES } from '../http/endpoints/index.js';
import { BACKGROUND_HEADER, SessionCookies } from '../http/session.js';
import { sessionKey, SessionStore, type Session, type Verified } from '../records/identity/session-store.js';
import { clientClockOf } from '../shared/client-clock.js';

describe('platform', () => {
  let clinics: Clinics;
  let database: Database;
  const caller = () => ({ clinicId: clinics.clinicId, userId: clinics.ids.ours, name: 'ours', role: 'lead' as const, session: '' });
  const rows = () => clinics.dataSource.getRepository(SessionRow);
  beforeAll(async () => {
    clinics = await startClinics();
    database = openDatabase(clinics.dataSource);
  });
  afterAll(() => clinics.stop());

  it('tells every connection how to behave, the very first one too', async () => {
    const fresh = await connect(createDataSource({ ...clinics.settings.database, connections: 4 }, ENTITIES));
    try {
      const runners = [1, 2, 3, 4].map(() => fresh.createQueryRunner());
      for (const runner of runners) await runner.connect();
      for (const runner of runners) {
        const [row] = await runner.query(
          'SELECT @@tx_isolation AS isolation, @@innodb_lock_wait_timeout AS wait, @@max_statement_time AS most',
        );
        expect([row.isolation, Number(row.wait), Number(row.most)]).toEqual(['READ-COMMITTED', 5, 30]);
      }
      for (const runner of runners) await runner.release();
    } finally {
      await fresh.destroy();
    }
  });

  const patient = (over: Partial<Patient> = {}): Patient => ({
    id: randomUUID(),
    clinicId: clinics.clinicId,
    givenName: 'A',
    familyName: 'B',
    birthDate: '1970-01-01',
    sex: 'female',
    occupation: '',
    gender: '',
    fileNumber: '',
    revision: 0,
    mergedInto: null,
    ...over,
  });

  describe('a unit of work', () => {
    it('is done as a whole or not at all', async () => {
      const one = patient();
      const work = database.transaction(caller(), async (unit) => {
        await unit.insertFact(Patient, one, 'patient', ['givenName']);
        throw new Error('and then it broke');
      });
      await expectAsync(work).toBeRejectedWithError('and then it broke');
      expect(await clinics.dataSource.getRepository(Patient).existsBy({ id: one.id })).toBeFalse();
    });

    it('inserts a fact once, tells a repeat from another one, and writes over nothing', async () => {
      const one = patient();
      const insert = (row: Patient, as = caller()) =>
        database.transaction(as, (unit) => unit.insertFact(Patient, row, 'patient', ['givenName', 'familyName']));
      expect(await insert(one)).toBeTrue();
      expect(await insert(one)).toBeFalse();
      await expectAsync(insert({ ...one, givenName: 'C' })).toBeRejected();
      const [{ id: otherClinic } = { id: '' }] = await clinics.dataSource.query("SELECT clinic_id AS id FROM user WHERE name = 'other'");
      await expectAsync(insert({ ...one, clinicId: otherClinic }, { ...caller(), clinicId: otherClinic })).toBeRejected();
      expect((await clinics.dataSource.getRepository(Patient).findOneByOrFail({ id: one.id })).givenName).toBe('A');
    });

    it('is done again when it took part in a deadlock', async () => {
      const [a, b] = [patient(), patient()];
      await clinics.dataSource.getRepository(Patient).insert([a, b]);
      let met = 0;
      // Each holds its first record before it asks for the other's.
      let release = () => {};
      const bothHold = new Promise<void>((resolve) => (release = resolve));
      const both = async (first: Patient, second: Patient) =>
        database.transaction(caller(), async (unit) => {
          await unit.one(Patient, first.id, 'patient', 'pessimistic_write');
          met += 1;
          if (met === 2) release();
          await bothHold;
          await unit.one(Patient, second.id, 'patient', 'pessimistic_write');
        });
      await Promise.all([both(a, b), both(b, a)]);
      expect(met).withContext('one of the two was begun again').toBeGreaterThan(2);
    });

    it('says that it is busy when no connection comes free, and gives back the one that comes late', async () => {
      let release = () => {};
      const held = new Promise<void>((resolve) => (release = resolve));
      const holding = Array.from({ length: 10 }, () => database.connection(caller(), () => held));
      await expectAsync(database.connection(caller(), () => Promise.resolve(1))).toBeRejectedWith(
        jasmine.objectContaining({ status: 503 }),
      );
      release();
      await Promise.all(holding);
      const after = await Promise.all(Array.from({ length: 20 }, (_, n) => database.connection(caller(), () => Promise.resolve(n))));
      expect(after.length).toBe(20);
    });
  });

  describe('sessions', () => {
    const sessions = (idleMs = 3_600_000, longestMs = 7_200_000) =>
      new SessionStore(clinics.dataSource, { secure: false, idleMs, longestMs });
    /** Signs in, and answers the session id that the cookie carries. */
    const begin = async (at: SessionStore): Promise<string> => {
      const user = await clinics.dataSource.getRepository(User).findOneByOrFail({ id: caller().userId });
      return at.begin({ user, factor: null }, 'a tablet');
    };
    /** A request with the cookie: whose it is, and whether the cookie was sent again. */
    const ask = async (at: SessionStore, sid: string, headers: Record<string, string> = {}) => {
      const request = { headers: { cookie: `dial-gauge=${sid}`, ...headers }, session: null as Session | null };
      let sent = false;
      await new SessionCookies(at).attach(request as never, { cookie: () => (sent = true) } as never, () => {});
      return { session: request.session, sent };
    };
    const row = (sid: string) => rows().findOneByOrFail({ id: sessionKey(sid) });

    it('come back with their user, and are gone when ended', async () => {
      const at = sessions();
      const sid = await begin(at);
      expect((await at.find(sid))?.caller).toEqual({ ...caller(), session: sessionKey(sid) });
      await at.end(sid);
      expect((await ask(at, sid)).session).toBeNull();
    });

    it('begin only while the password, the account and the second factor are those that were verified', async () => {
      const users = clinics.dataSource.getRepository(User);
      const someone = await clinics.somebody();
      const at = sessions();
      const start = (verified: Verified) =>
        at.begin(verified, '').then(
          () => 'begun',
          ({ status }: { status: number }) => status,
        );
      const user = await users.findOneByOrFail({ id: someone.id });
      expect(await start({ user, factor: null })).toBe('begun');
      // The password is changed between the check and the session.
      const old = { ...user };
      await users.update(
        { id: user.id },
        { passwordHash: `${user.passwordHash.slice(0, -1)}${user.passwordHash.endsWith('A') ? 'a' : 'A'}` },
      );
      const changed = await users.findOneByOrFail({ id: user.id });
      expect(await start({ user: old, factor: null })).toBe(401);
      expect(await start({ user: changed, factor: 'one that was taken off' })).toBe(401);
      const factors = clinics.dataSource.getRepository(SecondFactorRow);
      await factors.insert({ userId: user.id, secret: 'sealed', confirmedAt: null, lastStep: 0 });
      expect(await start({ user: changed, factor: null }))
        .withContext('not confirmed, it does not count')
        .toBe('begun');
      await factors.update({ userId: user.id }, { confirmedAt: new Date() });
      expect(await start({ user: changed, factor: null })).toBe(401);
      expect(await start({ user: changed, factor: 'Sealed' })).toBe(401);
      expect(await start({ user: changed, factor: 'sealed' })).toBe('begun');
      await users.update({ id: user.id }, { endedAt: new Date() });
      expect(await start({ user: changed, factor: 'sealed' })).toBe(401);
      expect((await rows().findBy({ userId: user.id })).length)
        .withContext('the one of somebody() and three')
        .toBe(4);
    });

    it('are not proved by a password that is another one by now', async () => {
      const at = sessions();
      const sid = await begin(at);
      const session = (await at.find(sid))!;
      const user = await clinics.dataSource.getRepository(User).findOneByOrFail({ id: caller().userId });
      await rows().update({ id: sessionKey(sid) }, { wantsProof: true });
      await expectAsync(at.proved(session, { passwordHash: 'the one before' })).toBeRejectedWith(jasmine.objectContaining({ status: 401 }));
      expect((await at.find(sid))?.wantsProof).toBeTrue();
      await at.proved(session, user);
      expect((await at.find(sid))?.wantsProof).toBeFalse();
    });

    it('are not held open by what a page asks by itself', async () => {
      let now = Date.now();
      const at = new SessionStore(
        clinics.dataSource,
        { secure: false, idleMs: 3_600_000, longestMs: 72_000_000, restMs: 900_000 },
        () => new Date(now),
      );
      const sid = await begin(at);
      const first = await row(sid);
      for (let minutes = 0; minutes < 50; minutes += 1) {
        now += 60_000;
        expect((await ask(at, sid, { [BACKGROUND_HEADER]: '1' })).sent).toBeFalse();
      }
      expect(await row(sid))
        .withContext('neither seen nor moved')
        .toEqual(first);
      // Somebody touches it again: they go on measuring, and are asked for the password before they sign.
      expect((await ask(at, sid)).sent).toBeTrue();
      expect((await at.find(sid))?.wantsProof).toBeTrue();
      now += 3_600_001;
      expect((await ask(at, sid, { [BACKGROUND_HEADER]: '1' })).session).toBeNull();
    });

    it('end when nobody comes, and at the latest after their longest time', async () => {
      const idle = await begin(sessions(-1));
      expect(await sessions().find(idle)).toBeNull();
      const long = await begin(sessions());
      await rows().update({ id: sessionKey(long) }, { startedAt: new Date(Date.now() - 7_300_000) });
      expect(await sessions().find(long)).toBeNull();
      expect((await row(await begin(sessions(3_600_000, 1_000)))).expiresAt.getTime()).toBeLessThanOrEqual(Date.now() + 1_000);
      await sessions().prune();
      expect(await rows().existsBy({ id: sessionKey(idle) })).toBeFalse();
      expect(await rows().existsBy({ id: sessionKey(long) })).toBeFalse();
    });

    it('move their end on at most once a minute, and are not brought back by it once they were ended', async () => {
      const at = sessions();
      const sid = await begin(at);
      const before = await row(sid);
      expect(await ask(at, sid)).toEqual({ session: jasmine.objectContaining({ remembered: false }), sent: false });
      expect(await ask(at, sid)).toEqual({ session: jasmine.objectContaining({ remembered: true }), sent: false });
      expect(await row(sid)).toEqual(before);
      await rows().update({ id: sessionKey(sid) }, { seenAt: new Date(Date.now() - 61_000) });
      expect((await ask(sessions(), sid)).sent).toBeTrue();
      expect((await row(sid)).seenAt.getTime()).toBeGreaterThanOrEqual(before.seenAt.getTime());
      await rows().update({ id: sessionKey(sid) }, { seenAt: new Date(Date.now() - 61_000) });
      const other = sessions();
      await other.find(sid);
      await rows().delete({ id: sessionKey(sid) });
      expect((await ask(other, sid)).session?.remembered)
        .withContext('to be asked for')
        .toBeTrue();
      expect(await rows().existsBy({ id: sessionKey(sid) })).toBeFalse();
      expect((await ask(other, sid)).session).toBeNull();
    });
  });

  it('measures how far the sender’s clock is off, and puts right when something was entered', () => {
    const now = new Date('2026-11-26T10:00:00.000Z');
    const sent = (clock?: string, entered?: string) =>
      clientClockOf((name) => (name === 'x-dial-gauge-clock' ? clock : name === 'x-dial-gauge-entered' ? entered : undefined), now);
    expect(sent()).toEqual({ ahead: null, enteredAt: null });
    expect(sent('2026-11-26T10:00:01.000Z').ahead).withContext('a request takes a moment').toBe(0);
    expect(sent('2026-11-26T10:12:00.000Z', '2026-11-26T10:10:00.000Z')).toEqual({
      ahead: 720_000,
      enteredAt: new Date('2026-11-26T09:58:00.000Z'),
    });
    expect(sent('noon', 'soon')).toEqual({ ahead: null, enteredAt: null });
    // The ends of the calendar, and far beyond.
    for (const moment of [
      '0000-01-01T00:00:00Z',
      '1899-12-31',
      '+275760-09-13T00:00:00.000Z',
      '-271821-04-20T00:00:00.000Z',
      '9999-12-31T23:59:59Z',
    ])
      expect(sent(moment, moment)).withContext(moment).toEqual({ ahead: null, enteredAt: null });
  });
});
