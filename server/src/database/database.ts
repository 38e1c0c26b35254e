import { setTimeout as wait } from 'node:timers/promises';
import { DataSource, type QueryRunner } from 'typeorm';
import { MIGRATIONS } from './migrations/index.js';
import type { Caller } from '../shared/caller.js';
import { destroyOpenTransactions, type ConnectionPool } from './open-transactions.js';
import type { DatabasePorts } from './ports.js';
import { makeProcedures, PROCEDURES } from './procedures.js';
import { busy } from '../shared/problems.js';
import { grantRights } from './rights.js';
import { codeOf, executeOn, UnitOfWork, type Prepares } from './unit-of-work.js';

export interface DatabaseSettings {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
  readonly database: string;
  /** Certificate of the authority that the database's own was signed by, in PEM: then nothing goes unencrypted. */
  readonly authority?: string;
  /** How many connections at the most. */
  readonly connections?: number;
}

/** Waiting for a connection, a lock or one statement, and taking part in a deadlock, have their limits: nobody waits for ever. */
const LIMITS = { connectionMs: 5_000, lockSeconds: 5, statementSeconds: 30, tries: 6 };

/**
 * What every connection is told before its first statement. Strict: a value
 * that does not fit is refused, never bent. Read committed: a repeated request
 * must find its first copy.
 */
const SESSION = [
  "SET SESSION sql_mode = 'TRADITIONAL,NO_ENGINE_SUBSTITUTION'",
  'SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED',
  `SET SESSION innodb_lock_wait_timeout = ${LIMITS.lockSeconds}`,
];

/** A data source over the clinic's database; connect with `initialize()`. */
export function createDataSource(settings: DatabaseSettings, entities: readonly (new () => object)[]): DataSource {
  const { user, authority, connections = 10, ...rest } = settings;
  return new DataSource({
    type: 'mariadb',
    ...rest,
    username: user,
    charset: 'utf8mb4',
    timezone: 'Z',
    dateStrings: ['DATE'],
    synchronize: false,
    migrationsRun: false,
    entities: [...entities],
    migrations: MIGRATIONS,
    ...(authority ? { ssl: { ca: authority, minVersion: 'TLSv1.2', verifyIdentity: true } } : {}),
    connectTimeout: LIMITS.connectionMs,
    extra: { decimalNumbers: true, connectionLimit: connections, maxIdle: connections },
  });
}

/** Told where a connection came back to the pool with a transaction open: a fault of the program. */
export type OpenTransactionFound = () => void;

/**
 * Connects, and sees to it that every connection is told how to behave and
 * comes back without an open transaction.
 *
 * @param found throws where it is left out: outside of the server nobody would hear it
 */
export async function connect(dataSource: DataSource, found: OpenTransactionFound = throwOpen): Promise<DataSource> {
  await dataSource.initialize();
  const { pool } = dataSource.driver as unknown as { pool: ConnectionPool };
  const told = [...SESSION, `SET SESSION max_statement_time = ${LIMITS.statementSeconds}`];
  // Sent before whatever the connection is wanted for: a connection does one thing after another.
  pool.on('connection', (connection) => {
    for (const statement of told) connection.query(statement);
  });
  // Those statements open nothing: what is sent from here on is looked at.
  const lookAfter = destroyOpenTransactions(pool, found);
  // The one that it was tried with is there already, and is told by hand.
  const first = dataSource.createQueryRunner();
  lookAfter(await first.connect());
  for (const statement of told) await first.query(statement);
  await first.release();
  return dataSource;
}

const throwOpen: OpenTransactionFound = () => {
  throw new Error('a connection came back to the pool with an open transaction');
};

/** A prepared statement on whichever connection is free: for what is asked with every request. */
export function executed<T>({ driver }: DataSource, sql: string, values: readonly unknown[]): Promise<T> {
  return executeOn((driver as unknown as { pool: Prepares }).pool, sql, values);
}

const LOCK = 'dial_gauge_migrate';
const LONGEST_MIGRATION = 600;

/**
 * Does something as the account that looks after the schema, where there is one of its own; it is let go of afterwards.
 *
 * @param doing is told the server's own account, where that is another one: it is given its rights
 */
export async function asSchemaAccount<T>(
  { schema }: { readonly schema: DatabaseSettings | null },
  otherwise: DataSource,
  doing: (dataSource: DataSource, account: string | null) => Promise<T>,
): Promise<T> {
  if (!schema) return doing(otherwise, null);
  const dataSource = await connect(createDataSource(schema, []));
  try {
    const [own] = await otherwise.query<{ account: string }[]>('SELECT CURRENT_USER() AS account');
    return await doing(dataSource, own!.account);
  } finally {
    await dataSource.destroy();
  }
}

/**
 * Brings the schema up to date, and then does what else only one server may.
 * Others that start meanwhile wait. The lock is local to one node of a
 * database cluster: there, start one server first.
 *
 * MariaDB commits every change of a schema by itself, so a migration can be
 * cut off after any of its statements; each of them may be done again.
 *
 * @param account the server's own account, as the database names it, where another one looks after the schema
 */
export function migrate(dataSource: DataSource, account: string | null, afterwards: () => Promise<void> = async () => {}): Promise<void> {
  return withLock(dataSource, async () => {
    await dataSource.runMigrations({ transaction: 'none' });
    await ownTriggers(dataSource);
    await makeProcedures(dataSource);
    if (account !== null) await grantRights(dataSource, account);
    await afterwards();
  });
}

/** Nobody else changes the schema meanwhile. */
export async function withLock<T>(dataSource: DataSource, doing: () => Promise<T>): Promise<T> {
  const guard = dataSource.createQueryRunner();
  try {
    // The wait for it is longer than any statement may otherwise take.
    await guard.query('SET SESSION max_statement_time = 0');
    const [lock] = (await guard.query(`SELECT GET_LOCK('${LOCK}', ${LONGEST_MIGRATION}) AS got`)) as { got: number }[];
    if (Number(lock?.got) !== 1) throw new Error(`another server has been changing the schema for more than ${LONGEST_MIGRATION} s`);
    return await doing();
  } finally {
    await guard.query(`SELECT RELEASE_LOCK('${LOCK}')`).catch(() => {});
    await guard.query(`SET SESSION max_statement_time = ${LIMITS.statementSeconds}`).catch(() => {});
    await guard.release();
  }
}

/**
 * A trigger acts as whoever made it. One that another account made, before the
 * records were moved or the accounts parted, is made anew by whoever looks
 * after the schema now.
 */
async function ownTriggers(dataSource: DataSource): Promise<void> {
  const foreign: Record<'name' | 'event' | 'target' | 'timing' | 'body', string>[] = await dataSource.query(
    `SELECT TRIGGER_NAME AS name, EVENT_MANIPULATION AS event, EVENT_OBJECT_TABLE AS target, ACTION_TIMING AS timing, ACTION_STATEMENT AS body
      FROM information_schema.TRIGGERS WHERE TRIGGER_SCHEMA = DATABASE() AND DEFINER <> CURRENT_USER()`,
  );
  for (const { name, event, target, timing, body } of foreign)
    await dataSource.query(`CREATE OR REPLACE TRIGGER \`${name}\` ${timing} ${event} ON \`${target}\` FOR EACH ROW ${body}`);
}

/** @throws where the schema is not the one of this version: older, or of a version that came later */
export async function mustBeMigrated(dataSource: DataSource): Promise<void> {
  const wanted = MIGRATIONS.map(({ name }) => name);
  const there: string[] = await dataSource
    .query<{ name: string }[]>('SELECT name FROM migrations')
    .then((rows) => rows.map(({ name }) => name))
    .catch((error: unknown) => {
      if (codeOf(error) === 'ER_NO_SUCH_TABLE') return [];
      throw error;
    });
  const missing = wanted.filter((name) => !there.includes(name));
  const later = there.filter((name) => !wanted.includes(name));
  if (missing.length > 0)
    throw new Error(
      `the schema of the database is older than this server: ${missing.length} changes are missing. Run migrate.js with the account of the schema first.`,
    );
  const [made] = await dataSource.query<{ n: string }[]>(
    `SELECT COUNT(*) AS n FROM information_schema.ROUTINES WHERE ROUTINE_SCHEMA = DATABASE() AND ROUTINE_TYPE = 'PROCEDURE'`,
  );
  if (Number(made!.n) < Object.keys(PROCEDURES).length)
    throw new Error('procedures of the database are missing, as after a restore. Run migrate.js with the account of the schema first.');
  if (later.length > 0)
    throw new Error(`the schema of the database is of a later version than this server (${later[0]}). Start that version.`);
}

/** The way to the records: units of work, each with one connection. */
export class Database {
  constructor(
    readonly dataSource: DataSource,
    private readonly ports: DatabasePorts,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  /** All or nothing: one transaction. Taken part in a deadlock, it is done again from the start. */
  transaction<T>(caller: Caller, work: (unit: UnitOfWork) => Promise<T>): Promise<T> {
    return this.run(caller, async (unit, runner) => {
      await runner.startTransaction();
      try {
        const done = await work(unit);
        await unit.writeMarks();
        await runner.commitTransaction();
        return done;
      } catch (error) {
        await runner.rollbackTransaction().catch(() => {});
        throw error;
      }
    });
  }

  /** Every statement by itself: for reading, and for a fact that one statement writes. */
  connection<T>(caller: Caller, work: (unit: UnitOfWork) => Promise<T>): Promise<T> {
    return this.run(caller, work);
  }

  /** Every statement on whichever connection is free: for what has to wait for something else meanwhile, and must not keep one. */
  pooled<T>(caller: Caller, work: (unit: UnitOfWork) => Promise<T>): Promise<T> {
    return work(new UnitOfWork(this.dataSource.manager, caller, this.clock(), this.ports));
  }

  private async run<T>(caller: Caller, work: (unit: UnitOfWork, runner: QueryRunner) => Promise<T>): Promise<T> {
    for (let tried = 1; ; tried += 1) {
      const runner = await this.connected();
      try {
        return await work(new UnitOfWork(runner.manager, caller, this.clock(), this.ports), runner);
      } catch (error) {
        const code = codeOf(error);
        if (code === 'ER_LOCK_WAIT_TIMEOUT') throw busy();
        if (code !== 'ER_LOCK_DEADLOCK') throw error;
        if (tried === LIMITS.tries) throw busy();
      } finally {
        await runner.release().catch(() => {});
      }
      await wait(5 * tried + Math.random() * 20 * tried);
    }
  }

  /** A connection, or word that there is none: whoever waits too long is told so. */
  private async connected(): Promise<QueryRunner> {
    const runner = this.dataSource.createQueryRunner();
    const connecting = runner.connect();
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<'late'>((resolve) => (timer = setTimeout(() => resolve('late'), LIMITS.connectionMs)));
    try {
      if ((await Promise.race([connecting, late])) !== 'late') return runner;
    } finally {
      clearTimeout(timer);
    }
    connecting.then(() => runner.release()).catch(() => {});
    throw busy();
  }
}
