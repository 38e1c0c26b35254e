import { randomUUID } from 'node:crypto';
import { addClinic, startHarness, type Harness } from '../testing/harness.js';
import { createDataSource, migrate } from './database.js';
import { Episode, Patient, SessionRow, Visit } from './entities/index.js';
import { Readings } from './readings.js';
import { Records } from './records.js';
import { DatabaseSessionStore } from './session-store.js';

describe('store', () => {
  let harness: Harness;
  beforeAll(async () => {
    harness = await startHarness();
  }, 120_000);
  afterAll(() => harness.stop());

  it('holds every column that the entities name, in tables of its own engine', async () => {
    const columns = (await harness.dataSource.query(
      'SELECT table_name AS t, column_name AS c FROM information_schema.columns WHERE table_schema = DATABASE()',
    )) as { t: string; c: string }[];
    const known = new Set(columns.map(({ t, c }) => `${t}.${c}`));
    for (const entity of harness.dataSource.entityMetadatas) {
      for (const column of entity.columns)
        expect(known.has(`${entity.tableName}.${column.databaseName}`))
          .withContext(`${entity.tableName}.${column.databaseName}`)
          .toBeTrue();
    }
  });

  it('puts a clinic on every table but its own, the sessions and the migrations', async () => {
    const rows = (await harness.dataSource.query(
      "SELECT table_name AS t, SUM(column_name = 'clinic_id') AS owned FROM information_schema.columns WHERE table_schema = DATABASE() GROUP BY table_name",
    )) as { t: string; owned: number }[];
    expect(
      rows
        .filter((r) => Number(r.owned) === 0)
        .map((r) => r.t)
        .sort(),
    ).toEqual(['clinic', 'migrations', 'session']);
  });

  it('migrates back and forth, and a second time changes nothing', async () => {
    const again = await createDataSource(harness.settings.database).initialize();
    try {
      expect((await again.runMigrations()).length).toBe(0);
      // All the way down: every step has a way back.
      for (const migration of again.migrations) {
        void migration;
        await again.undoLastMigration();
      }
      expect((await again.query("SHOW TABLES LIKE 'trial'")).length).toBe(0);
      await migrate(again);
      expect((await again.query("SHOW TABLES LIKE 'trial'")).length).toBe(1);
    } finally {
      await again.destroy();
    }
  });

  /** A clinic with one visit, and readings to be held in it. */
  const openVisit = async () => {
    const [clinicId = '', userId = '', patientId = '', episodeId = '', visitId = ''] = Array.from({ length: 5 }, () => randomUUID());
    await addClinic(harness.dataSource, clinicId, userId, `${clinicId}@clinic.example`, 'password');
    const { manager } = harness.dataSource;
    const person = {
      id: patientId,
      clinicId,
      givenName: 'A',
      familyName: 'B',
      birthDate: '1970-01-01',
      sex: 'female',
      occupation: '',
    } as const;
    await manager.insert(Patient, person);
    await manager.insert(Episode, { id: episodeId, clinicId, patientId, complaint: 'hip', involvedSide: null, openedOn: '2026-01-01' });
    await manager.insert(Visit, {
      id: visitId,
      clinicId,
      episodeId,
      examinerId: userId,
      assessedOn: '2026-01-01',
      startedAt: new Date(),
      sheet: null,
    });
    const readings = new Readings(harness.dataSource, { clinicId, userId, name: 'x' });
    const hold = (end: number) =>
      readings.hold(visitId, {
        id: randomUUID(),
        motion: 'hip.flexion',
        side: 'left',
        mode: 'active',
        position: 'supine',
        instrument: 'goniometer',
        start: 0,
        end,
        heldAt: new Date().toISOString(),
      });
    const counts = async (): Promise<number[]> => {
      const [row] = await harness.dataSource.query(
        'SELECT (SELECT COUNT(*) FROM measurement WHERE visit_id = ?) AS m, (SELECT COUNT(*) FROM trial WHERE clinic_id = ?) AS t',
        [visitId, clinicId],
      );
      return [Number(row.m), Number(row.t)];
    };
    return { clinicId, visitId, hold, counts };
  };

  it('makes one measurement of many first readings at once', async () => {
    const { hold, counts } = await openVisit();
    await Promise.all(Array.from({ length: 8 }, (_, i) => hold(90 + i)));
    expect(await counts()).toEqual([1, 8]);
  });

  it('keeps the readings of a database from before fingers and ways of measuring', async () => {
    const { clinicId, visitId, hold, counts } = await openVisit();
    await hold(90);
    const older = await createDataSource(harness.settings.database).initialize();
    for (let back = 0; back < 3; back += 1) await older.undoLastMigration();
    await migrate(older);
    await older.destroy();
    await hold(92);
    expect(await counts())
      .withContext('the old row is found again, not doubled')
      .toEqual([1, 2]);
    const { measurements } = await new Records(harness.dataSource, clinicId).visit(visitId);
    expect(measurements.map((m) => [m.motion, m.digit, m.protocol, m.trials.length])).toEqual([['hip.flexion', undefined, undefined, 2]]);
  });

  describe('sessions', () => {
    const done = <T>(work: (callback: (error?: unknown, value?: T) => void) => void) =>
      new Promise<T | undefined>((resolve, reject) => work((error, value) => (error ? reject(error as Error) : resolve(value))));
    const session = (expires: Date) => ({ cookie: { originalMaxAge: 1000, expires }, caller: { userId: 'u', name: 'n', clinicId: 'c' } });
    const inAnHour = () => new Date(Date.now() + 3_600_000);

    it('come back until they run out, and are gone when destroyed', async () => {
      const store = new DatabaseSessionStore(harness.dataSource);
      await done((cb) => store.set('one', session(inAnHour()) as never, cb));
      await done((cb) => store.set('old', session(new Date(Date.now() - 1000)) as never, cb));
      expect((await done<unknown>((cb) => store.get('one', cb as never))) as object).toEqual(
        jasmine.objectContaining({ caller: { userId: 'u', name: 'n', clinicId: 'c' } }),
      );
      expect(await done((cb) => store.get('old', cb as never))).toBeNull();
      await done((cb) => store.destroy('one', cb));
      expect(await done((cb) => store.get('one', cb as never))).toBeNull();
    });

    it('are pruned once they have run out, the others stay', async () => {
      const store = new DatabaseSessionStore(harness.dataSource);
      await done((cb) => store.set('keep', session(inAnHour()) as never, cb));
      await done((cb) => store.set('drop', session(new Date(Date.now() - 1000)) as never, cb));
      const before = await harness.dataSource.getRepository(SessionRow).count();
      await store.prune();
      expect(await harness.dataSource.getRepository(SessionRow).count()).toBeLessThan(before);
      expect(await done((cb) => store.get('keep', cb as never))).not.toBeNull();
    });

    it('move their end on when touched, but not for less than a minute', async () => {
      const store = new DatabaseSessionStore(harness.dataSource);
      const endOf = async () => (await harness.dataSource.query('SELECT MAX(expires_at) AS e FROM session'))[0].e as Date;
      const start = Date.now() + 10 * 3_600_000;
      await done((cb) => store.set('touched', session(new Date(start)) as never, cb));
      await done((cb) => store.touch('touched', session(new Date(start + 30_000)) as never, cb));
      expect((await endOf()).getTime()).toBe(start);
      await done((cb) => store.touch('touched', session(new Date(start + 90_000)) as never, cb));
      expect((await endOf()).getTime()).toBe(start + 90_000);
    });
  });
});
