import { connect, createDataSource, migrate } from './platform/database.js';
import { readSettings } from './settings.js';

/*
 * Brings the schema up to date and ends: for an upgrade, before the servers of
 * the new version start. As the account of the schema where one is named.
 */
const settings = readSettings({ DIAL_GAUGE_PORT: '1', ...process.env });
const dataSource = await connect(createDataSource(settings.schema ?? settings.database, []));
await migrate(dataSource);
await dataSource.destroy();
process.stdout.write('The schema is up to date.\n');
process.exit(0);
