import { connect, createDataSource } from './database/database.js';
import { openDatabase } from './records/open-database.js';
import { ENTITIES } from './http/endpoints/index.js';
import { readSettings } from './settings.js';
import { wayBack } from './use-cases/accounts/way-back.js';

/*
 * Makes a link to another password for somebody whom nobody else can help:
 * node server/dist/lead-link.js ADDRESS [--factor-lost]. It works once, for
 * seven days, and is in the audit.
 */
const [email, ...options] = process.argv.slice(2);
const settings = readSettings({ DIAL_GAUGE_PORT: '1', ...process.env });
const dataSource = await connect(createDataSource(settings.database, ENTITIES));
try {
  if (!email) throw new Error('whose? lead-link ADDRESS [--factor-lost]');
  const secret = await wayBack(openDatabase(dataSource), email, options.includes('--factor-lost'));
  process.stdout.write(`Open the page of the clinic at this address, once, within seven days:\n\n    /join#${secret}\n\n`);
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exitCode = 1;
}
await dataSource.destroy();
process.exit();
