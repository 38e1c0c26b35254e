import { parseArgs } from 'node:util';
import { asSchemaAccount, connect, createDataSource, migrate } from './database/database.js';
import { migrateBack } from './database/migrate-back.js';
import { MIGRATIONS } from './database/migrations/index.js';
import { readSettings } from './settings.js';

/*
 * Brings the schema up to date and ends: for an upgrade, before the servers of
 * the new version start. As the account of the schema where one is named.
 *
 *   --back-to N   takes back what came after change N, for the version before; --lose: also where that loses what was entered
 *   --number      says the number of the last change that this version knows, and changes nothing
 */
try {
  const { values } = parseArgs({ options: { 'back-to': { type: 'string' }, lose: { type: 'boolean' }, number: { type: 'boolean' } } });
  const to = values['back-to'];
  if (values.number) process.stdout.write(`${MIGRATIONS.length}\n`);
  else {
    if (to !== undefined && !/^\d{1,4}$/.test(to)) throw new Error(`--back-to is "${to}"; allowed: the number of a change, as 24.`);
    const settings = readSettings({ DIAL_GAUGE_PORT: '1', ...process.env });
    const own = await connect(createDataSource(settings.database, []));
    try {
      await asSchemaAccount(settings, own, async (dataSource, account) => {
        if (to === undefined) {
          await migrate(dataSource, account);
          process.stdout.write('The schema is up to date.\n');
        } else {
          const names = await migrateBack(dataSource, Number(to), values.lose === true);
          process.stdout.write(names.length > 0 ? `Taken back: ${names.join(', ')}.\n` : 'There is nothing to take back.\n');
        }
      });
    } finally {
      await own.destroy();
    }
  }
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exitCode = 1;
}
process.exit();
