import { DataSource } from 'typeorm';
import { ENTITIES } from './entities/index.js';
import { First1700000000001 } from './migrations/0001-first.js';
import { Library1700000000002 } from './migrations/0002-library.js';
import { Sheet1700000000003 } from './migrations/0003-sheet.js';
import { Prepare1700000000004 } from './migrations/0004-prepare.js';
import { Judge1700000000005 } from './migrations/0005-judge.js';

export interface DatabaseSettings {
  readonly host: string;
  readonly port: number;
  readonly user: string;
  readonly password: string;
  readonly database: string;
}

/** A data source over the clinic's database; connect with `initialize()`. */
export function createDataSource(settings: DatabaseSettings): DataSource {
  const { user, ...rest } = settings;
  return new DataSource({
    type: 'mariadb',
    ...rest,
    username: user,
    charset: 'utf8mb4',
    timezone: 'Z',
    dateStrings: ['DATE'],
    synchronize: false,
    migrationsRun: false,
    entities: ENTITIES,
    migrations: [First1700000000001, Library1700000000002, Sheet1700000000003, Prepare1700000000004, Judge1700000000005],
    connectTimeout: 5_000,
    extra: { decimalNumbers: true, connectionLimit: 10 },
  });
}

/** Brings the schema up to date. */
export async function migrate(dataSource: DataSource): Promise<void> {
  await dataSource.runMigrations({ transaction: 'each' });
}
