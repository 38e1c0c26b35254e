import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { DataSource } from 'typeorm';
import { PrivateDatabase } from '../../../bin/lib/database.mjs';
import { freePort } from '../../../bin/lib/ports.mjs';
import { ENTITIES } from '../http/endpoints/index.js';
import { readSettings } from '../settings.js';
import { startClinics, type Clinics } from '../testing/harness.js';
import { tlsOf } from '../http/tls.js';
import { asSchemaAccount, connect, createDataSource, migrate, mustBeMigrated } from './database.js';

describe('the accounts of the database', () => {
  let clinics: Clinics;
  let source: DataSource;
  beforeAll(async () => {
    clinics = await startClinics();
    source = clinics.dataSource;
  });
  afterAll(() => clinics.stop());

  it('of the server reads and writes rows, and changes neither tables, triggers nor other accounts', async () => {
    const { visitId } = await clinics.startVisit();
    await clinics.hold(visitId).expect(200);
    const triggers: { name: string }[] = await asSchemaAccount(clinics.settings, source, (schema) =>
      schema.query('SELECT TRIGGER_NAME AS name FROM information_schema.TRIGGERS WHERE TRIGGER_SCHEMA = DATABASE()'),
    );
    expect(triggers.length).toBeGreaterThan(10);
    for (const statement of [
      'CREATE TABLE more (id INT)',
      'ALTER TABLE patient ADD COLUMN more INT',
      'DROP TABLE audit_open',
      'TRUNCATE TABLE audit_entry',
      'CREATE OR REPLACE TRIGGER t BEFORE DELETE ON patient FOR EACH ROW SET @a = 1',
      ...triggers.map(({ name }) => `DROP TRIGGER ${name}`),
      "CREATE USER more@'127.0.0.1'",
      'GRANT ALL ON dial_gauge.* TO CURRENT_USER()',
      "SELECT 'x' INTO OUTFILE '/tmp/dial-gauge-never'",
      'SELECT * FROM mysql.global_priv',
    ])
      await expectAsync(source.query(statement))
        .withContext(statement)
        .toBeRejectedWithError(/denied/);
  });

  it('of the schema makes triggers its own: those of another account act no more as that one', async () => {
    const { visitId } = await clinics.startVisit();
    await clinics.hold(visitId).expect(200);
    await clinics.database.sql('USE dial_gauge; CREATE OR REPLACE TRIGGER trial_tried BEFORE DELETE ON trial FOR EACH ROW SET @tried = 1');
    const definers = (schema: DataSource): Promise<{ definer: string }[]> =>
      schema.query('SELECT DISTINCT DEFINER AS definer FROM information_schema.TRIGGERS WHERE TRIGGER_SCHEMA = DATABASE()');
    await asSchemaAccount(clinics.settings, source, async (schema) => {
      expect((await definers(schema)).length).toBe(2);
      await migrate(schema, 'dial_gauge@127.0.0.1');
      expect(await definers(schema)).toEqual([{ definer: 'dial_gauge_schema@127.0.0.1' }]);
    });
    await expectAsync(source.query('DELETE FROM trial')).toBeRejected();
    await clinics.database.sql('DROP TRIGGER dial_gauge.trial_tried');
  });

  it('that finds another schema than its own does not begin: older, empty, or of a later version', async () => {
    await expectAsync(mustBeMigrated(source)).toBeResolved();
    const asSchema = (sql: string, values: unknown[] = []) =>
      asSchemaAccount(clinics.settings, source, (schema) => schema.query(sql, values));
    await asSchema("INSERT INTO migrations (timestamp, name) VALUES (1, 'Later9900000000000')");
    await expectAsync(mustBeMigrated(source)).toBeRejectedWithError(/of a later version than this server \(Later/);
    await asSchema("DELETE FROM migrations WHERE name LIKE 'Later%'");
    const [last] = await source.query('SELECT * FROM migrations ORDER BY timestamp DESC LIMIT 1');
    await asSchema('DELETE FROM migrations WHERE id = ?', [last.id]);
    await expectAsync(mustBeMigrated(source)).toBeRejectedWithError(/older than this server: 1 changes are missing/);
    await asSchema('INSERT INTO migrations (id, timestamp, name) VALUES (?, ?, ?)', [last.id, last.timestamp, last.name]);
    await clinics.database.sql("CREATE DATABASE empty_one; GRANT SELECT ON empty_one.* TO 'dial_gauge'@'127.0.0.1'");
    const empty = await connect(createDataSource({ ...clinics.settings.database, database: 'empty_one' }, []));
    await expectAsync(mustBeMigrated(empty)).toBeRejectedWithError(/older than this server/);
    await empty.destroy();
  });

  it('come in encrypted where an authority is named, and to that server alone', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-tls-'));
    const other = await mkdtemp(join(tmpdir(), 'dial-gauge-tls-'));
    await tlsOf({ how: 'self-signed', folder }, '127.0.0.1');
    await tlsOf({ how: 'self-signed', folder: other }, '127.0.0.1');
    const database = new PrivateDatabase(folder, await freePort(), { tls: folder });
    await database.start();
    const as = (more: NodeJS.ProcessEnv) => readSettings({ ...database.environment(), DIAL_GAUGE_PORT: '1', ...more }).database;
    const cipher = async (more: NodeJS.ProcessEnv): Promise<string> => {
      const dataSource = await connect(createDataSource(as(more), ENTITIES));
      const [{ Value }] = await dataSource.query("SHOW STATUS LIKE 'Ssl_cipher'");
      await dataSource.destroy();
      return Value;
    };
    try {
      expect(await cipher({ DIAL_GAUGE_DB_CA: join(folder, 'cert.pem') })).toMatch(/^(TLS|ECDHE)/);
      await expectAsync(cipher({ DIAL_GAUGE_DB_CA: join(other, 'cert.pem') })).toBeRejected();
      await expectAsync(cipher({})).toBeRejectedWithError(/denied|secure/);
      expect(() => as({ DIAL_GAUGE_DB_CA: join(other, 'none.pem') })).toThrowError(/DIAL_GAUGE_DB_CA cannot be read/);
    } finally {
      await database.stop();
      for (const path of [folder, other]) await rm(path, { recursive: true, force: true });
    }
  });
});
