import { openDatabase } from '../../records/open-database.js';
import { randomUUID } from 'node:crypto';
import type { DataSource, QueryRunner } from 'typeorm';
import { MIGRATIONS } from './index.js';
import { connect, createDataSource, migrate, mustBeMigrated } from '../database.js';
import { lossesOf, migrateBack } from '../migrate-back.js';
import { ENTITIES } from '../../http/endpoints/index.js';
import { startClinics, type Clinics } from '../../testing/harness.js';
import { visitRecord } from '../../read-models/visit-record/record.js';

interface Column {
  readonly name: string;
  readonly type: string;
  readonly nullable: boolean;
}

const CUT = 'cut off';

describe('migrations', () => {
  let clinics: Clinics;
  let source: DataSource;
  beforeAll(async () => {
    clinics = await startClinics();
    source = clinics.dataSource;
  });
  afterAll(() => clinics.stop());

  /** Type, length and whether it may be empty, as MariaDB names them. */
  const columnsOf = async (of: DataSource): Promise<Map<string, Column>> => {
    const rows = (await of.query(
      "SELECT CONCAT(table_name, '.', column_name) AS name, column_type AS type, is_nullable = 'YES' AS nullable FROM information_schema.columns WHERE table_schema = DATABASE()",
    )) as { name: string; type: string; nullable: number }[];
    return new Map(rows.map((row) => [row.name, { ...row, nullable: Number(row.nullable) === 1 }]));
  };
  /** What MariaDB calls a type that an entity names. */
  const typeOf = ({
    type,
    length,
    precision,
    scale,
  }: {
    type: string;
    length: string;
    precision?: number | null;
    scale?: number;
  }): string => {
    const known: Record<string, string> = {
      char: `char(${length})`,
      varchar: `varchar(${length})`,
      datetime: `datetime(${precision})`,
      decimal: `decimal(${precision},${scale})`,
      int: 'int(11)',
      smallint: 'smallint(6)',
      tinyint: 'tinyint(4)',
      boolean: 'tinyint(1)',
    };
    return known[type] ?? type;
  };

  it('agree with the entities, column by column: type, length, and whether it may be empty', async () => {
    const columns = await columnsOf(source);
    const named = source.entityMetadatas.flatMap((entity) =>
      entity.columns.map((column) => ({ name: `${entity.tableName}.${column.databaseName}`, column })),
    );
    for (const { name, column } of named) {
      const there = columns.get(name);
      expect(there).withContext(name).toBeDefined();
      // Lists and objects are text, of whichever size.
      const type =
        column.type === 'simple-json' ? /^(medium|long)?text$/ : new RegExp(`^${typeOf(column as never).replace(/[()]/g, '\\$&')}$`);
      expect(there?.type).withContext(name).toMatch(type);
      expect(there?.nullable).withContext(`${name} may be empty`).toBe(column.isNullable);
    }
    const tables = new Set(named.map(({ name }) => name.split('.')[0]));
    const unnamed = [...columns.keys()].filter((name) => tables.has(name.split('.')[0]) && !named.some((column) => column.name === name));
    expect(unnamed).withContext('columns that no entity names').toEqual(['norm_set.in_use']);
  });

  it('put a clinic on every table but its own, what belongs to a user or comes before there is a clinic, and the migrations', async () => {
    const rows = (await source.query(
      "SELECT table_name AS t, SUM(column_name = 'clinic_id') AS owned FROM information_schema.columns WHERE table_schema = DATABASE() GROUP BY table_name",
    )) as { t: string; owned: number }[];
    const free = rows.filter((row) => Number(row.owned) === 0).map((row) => row.t);
    expect(free.sort()).toEqual(['attempt_budget', 'clinic', 'founding_code', 'migrations', 'recovery_code', 'second_factor', 'session']);
  });

  it('wait for one another: of servers that start together one migrates', async () => {
    const others = await Promise.all(
      [1, 2, 3].map(() => connect(createDataSource({ ...clinics.settings.schema!, connections: 3 }, ENTITIES))),
    );
    try {
      await others[0]!.undoLastMigration({ transaction: 'none' });
      let seeding = 0;
      let most = 0;
      const seed = async () => {
        most = Math.max(most, (seeding += 1));
        // Long enough for another one to begin, were it let in.
        for (let n = 0; n < 20; n += 1) await others[1]!.query('SELECT 1');
        seeding -= 1;
      };
      await Promise.all(others.map((other) => migrate(other, null, seed)));
      expect(most).toBe(1);
      expect((await others[0]!.query("SHOW TABLES LIKE 'late_entry'")).length).toBe(1);
    } finally {
      await Promise.all(others.map((other) => other.destroy()));
    }
  });

  /** An empty database of its own, dropped afterwards. */
  const aside = async (work: (other: DataSource) => Promise<void>) => {
    const name = `t_${randomUUID().replaceAll('-', '').slice(0, 12)}`;
    await clinics.database.sql(`CREATE DATABASE ${name}; GRANT ALL ON ${name}.* TO '${clinics.settings.database.user}'@'127.0.0.1';`);
    const other = await connect(createDataSource({ ...clinics.settings.database, database: name, connections: 3 }, ENTITIES));
    try {
      await work(other);
    } finally {
      await other.destroy();
      await clinics.database.sql(`DROP DATABASE ${name};`);
    }
  };

  /** Everything of the schema that a statement of a migration can make. */
  const schemaOf = async (of: DataSource): Promise<string[]> => {
    const tables = (await of.query("SHOW FULL TABLES WHERE Table_type = 'BASE TABLE'")) as Record<string, string>[];
    const made: string[] = [];
    for (const table of tables.map((row) => Object.values(row)[0]!).sort()) {
      const [row] = (await of.query(`SHOW CREATE TABLE \`${table}\``)) as Record<string, string>[];
      const text = row?.['Create Table'] ?? '';
      // Keys in any order are the same keys.
      made.push(
        ...text
          .replace(/ AUTO_INCREMENT=\d+/, '')
          .split(',\n')
          .sort(),
      );
    }
    const triggers = (await of.query('SHOW TRIGGERS')) as Record<string, string>[];
    return [...made, ...triggers.map((trigger) => `${trigger['Trigger']} ${trigger['Event']} ${trigger['Table']}`).sort()];
  };

  /** Lets so many writing statements of a migration pass and then cuts it off, as an ended process would. */
  const cutAfter = (of: DataSource, statements: number): (() => number) => {
    let taken = 0;
    const make = of.createQueryRunner.bind(of);
    of.createQueryRunner = (mode) => {
      const runner = make(mode) as QueryRunner & { query: (sql: string, ...rest: unknown[]) => Promise<unknown> };
      const query = runner.query.bind(runner) as (sql: string, ...rest: unknown[]) => Promise<unknown>;
      runner.query = (async (sql: string, ...rest: unknown[]) => {
        if (/^\s*(CREATE|ALTER|DROP|UPDATE|INSERT|DELETE)/i.test(sql)) {
          if (taken >= statements) throw new Error(CUT);
          taken += 1;
        }
        return query(sql, ...rest);
      }) as never;
      return runner;
    };
    return () => taken;
  };

  it('go on after being cut off after any of their statements', async () => {
    let whole: string[] = [];
    let statements = 0;
    await aside(async (other) => {
      const taken = cutAfter(other, Infinity);
      await migrate(other, null);
      statements = taken();
      whole = await schemaOf(other);
    });
    expect(statements).toBeGreaterThan(60);
    await aside(async (other) => {
      const settings = { ...clinics.settings.database, database: other.options.database as string, connections: 2 };
      const recorded = async (): Promise<number> =>
        (await other.query("SHOW TABLES LIKE 'migrations'")).length
          ? Number((await other.query('SELECT COUNT(*) AS n FROM migrations'))[0].n)
          : 0;
      // One statement further at each start, and from the first again once a migration is on record: every cut is met.
      let cuts = 0;
      for (let [passed, before] = [0, 0]; ; passed += 1) {
        const done = await recorded();
        if (done > before) [passed, before] = [0, done];
        const started = await connect(createDataSource(settings, ENTITIES));
        cutAfter(started, passed);
        const ended = await migrate(started, null).then(
          () => 'done',
          (error: Error) => error.message,
        );
        await started.destroy();
        if (ended === 'done') break;
        expect(ended).toBe(CUT);
        cuts += 1;
      }
      expect(cuts).toBeGreaterThanOrEqual(statements - 6);
      await migrate(other, null);
      expect(await schemaOf(other)).toEqual(whole);
    });
  });

  it('lead all the way back, and there again', async () => {
    await aside(async (other) => {
      await migrate(other, null);
      const before = await schemaOf(other);
      for (const migration of other.migrations) {
        void migration;
        await other.undoLastMigration({ transaction: 'none' });
      }
      expect((await other.query("SHOW TABLES LIKE 'trial'")).length).toBe(0);
      await migrate(other, null);
      expect(await schemaOf(other)).toEqual(before);
    });
  });

  it('say what is lost on the way back: every table and column that goes, and nothing else', async () => {
    await aside(async (other) => {
      await migrate(other, null);
      for (const migration of [...MIGRATIONS].reverse()) {
        const before = await columnsOf(other);
        await other.undoLastMigration({ transaction: 'none' });
        const after = await columnsOf(other);
        const tables = new Set([...after.keys()].map((name) => name.split('.')[0]));
        const gone = [...before.keys()].filter((name) => !after.has(name)).map((name) => name.split('.') as [string, string]);
        const goes = new Set(gone.map(([table, column]) => (tables.has(table) ? `${table}.${column}` : table)));
        const said = lossesOf(new migration()).map(({ table, column }) => (column === null ? table : `${table}.${column}`));
        expect(said.filter((name) => before.has(name) || !name.includes('.')).sort())
          .withContext(migration.name)
          .toEqual([...goes].sort());
      }
    });
  });

  it('are taken back to an earlier version only where nothing is lost, unless it may be', async () => {
    await aside(async (other) => {
      await migrate(other, null);
      const clinic = randomUUID();
      await other.query("INSERT INTO clinic (id, name, norm_set) VALUES (?, 'Saltmarsh', 'boone-azen-1979')", [clinic]);
      await other.query('INSERT INTO audit_open (entry_id, clinic_id) VALUES (?, ?)', [randomUUID(), clinic]);
      const whole = await schemaOf(other);
      await expectAsync(migrateBack(other, 20, false)).toBeRejectedWithError(
        /^This would be lost: audit_open \(1 row\)\. Nothing was changed/,
      );
      expect(await schemaOf(other)).toEqual(whole);
      const later = MIGRATIONS.slice(22).map(({ name }) => name);
      expect(await migrateBack(other, 22, false)).toEqual([...later].reverse());
      expect(await migrateBack(other, 22, false)).toEqual([]);
      await expectAsync(mustBeMigrated(other)).toBeRejectedWithError(new RegExp(`older than this server: ${later.length} changes`));
      expect((await migrateBack(other, 20, true)).length).toBe(2);
      expect(await other.query("SHOW TABLES LIKE 'audit_open'")).toEqual([]);
      await migrate(other, null);
      expect(await schemaOf(other)).toEqual(whole);
    });
  });

  it('keep the readings and the changes of a database from before', async () => {
    // Migrations before this one have ended all sessions.
    const again = await clinics.signIn('ours');
    const { visitId } = await clinics.startVisit(again);
    await clinics.hold(visitId, { end: 90 }, again).expect(200);
    const way = { motion: 'hip.flexion', side: 'left', mode: 'passive', position: 'supine' };
    await again
      .put(`/api/visits/${visitId}/remarks`)
      .send({ ...way, pain: 4 })
      .expect(200);
    const older = await connect(createDataSource(clinics.settings.schema!, ENTITIES));
    for (let back = 0; back < 5; back += 1) await older.undoLastMigration({ transaction: 'none' });
    await migrate(older, null);
    await older.destroy();
    const caller = { clinicId: clinics.clinicId, userId: clinics.ids.ours, name: 'ours', role: 'lead' as const, session: '' };
    const database = openDatabase(source);
    await clinics.hold(visitId, { end: 92 }, await clinics.signIn('ours')).expect(200);
    const { measurements } = await database.connection(caller, (work) => visitRecord(work, visitId));
    expect(measurements.map((m) => [m.motion, m.digit, m.protocol, m.trials.map((trial) => trial.end)])).toEqual([
      ['hip.flexion', undefined, undefined, [90, 92]],
    ]);
    const [row] = await source.query("SELECT COUNT(*) AS n FROM change_log WHERE field = 'pain'");
    // Going back as far as before the log of remarks, that log is made from nothing again; the note itself stays.
    expect(Number(row.n)).toBeLessThanOrEqual(1);
  });
});
