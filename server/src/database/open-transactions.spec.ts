import { connect, createDataSource } from './database.js';
import { startHarness, type Harness } from '../testing/harness.js';

interface Pool {
  query(sql: string, done: (error: Error | null, rows?: unknown) => void): void;
}

describe('a connection with an open transaction', () => {
  let harness: Harness;
  beforeAll(async () => (harness = await startHarness()));
  afterAll(() => harness.stop());

  const connected = async () => {
    let found = 0;
    let tell: () => void = () => undefined;
    const told = new Promise<void>((resolve) => (tell = resolve));
    const dataSource = await connect(createDataSource({ ...harness.settings.database, connections: 2 }, []), () => {
      found += 1;
      tell();
    });
    const { pool } = dataSource.driver as unknown as { pool: Pool };
    const send = (sql: string) =>
      new Promise<unknown>((resolve, reject) => pool.query(sql, (error, rows) => (error ? reject(error) : resolve(rows))));
    return { dataSource, send, found: () => found, told };
  };
  const open = async (): Promise<number> => {
    const [row] = await harness.asSchema<{ n: string }[]>(
      "SELECT COUNT(*) AS n FROM information_schema.PROCESSLIST WHERE USER = 'dial_gauge' AND DB = DATABASE()",
    );
    return Number(row!.n);
  };

  it('is not handed out again, whichever way it was begun; what was written on it is taken back', async () => {
    const { dataSource, send, found } = await connected();
    try {
      let begun = 0;
      for (const statement of ['BEGIN', 'START TRANSACTION', 'SET autocommit = 0', 'set session autocommit=0', '  begin work']) {
        // As a library does that takes the pool for one connection.
        await send(statement);
        begun += 1;
        // What comes next is written and committed by itself, on another connection.
        await send('INSERT INTO founding_code (code_hash, made_at) VALUES (SHA2(UUID(), 256), NOW(3))');
        for (let n = 0; n < 4; n += 1) {
          const [row] = (await send('SELECT @@in_transaction AS open, @@autocommit AS auto')) as { open: number; auto: number }[];
          expect([Number(row!.open), Number(row!.auto)])
            .withContext(statement)
            .toEqual([0, 1]);
        }
      }
      const [row] = (await send('SELECT COUNT(*) AS n FROM founding_code')) as { n: number }[];
      expect(Number(row!.n)).toBe(begun);
      expect(found()).toBe(begun);
    } finally {
      await dataSource.destroy();
    }
  });

  it('is found on the connection that was there first, and whoever waits gets another', async () => {
    const { dataSource, send, found, told } = await connected();
    try {
      const runner = dataSource.createQueryRunner();
      await runner.query('BEGIN');
      await runner.query("INSERT INTO founding_code (code_hash, made_at) VALUES (SHA2('left open', 256), NOW(3))");
      const waiting = Array.from({ length: 5 }, () => send('SELECT @@in_transaction AS open'));
      await runner.release();
      for (const rows of await Promise.all(waiting)) expect(Number((rows as { open: number }[])[0]!.open)).toBe(0);
      // Those who wait may all be served by the other connection before the database has answered for this one.
      await told;
      expect(found()).toBe(1);
      const [row] = (await send("SELECT COUNT(*) AS n FROM founding_code WHERE code_hash = SHA2('left open', 256)")) as { n: number }[];
      expect(Number(row!.n)).toBe(0);
    } finally {
      await dataSource.destroy();
    }
  });

  it('that was closed properly goes on being used', async () => {
    const { dataSource, found } = await connected();
    try {
      const before = await open();
      for (let n = 0; n < 20; n += 1) await dataSource.transaction((manager) => manager.query('SELECT 1'));
      await expectAsync(dataSource.transaction((manager) => manager.query('SELECT no_such_column'))).toBeRejected();
      expect(found()).toBe(0);
      expect(await open()).toBeLessThanOrEqual(before + 1);
    } finally {
      await dataSource.destroy();
    }
  });
});
