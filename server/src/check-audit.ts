import { checkChain, chainOpen } from './records/audit/chain.js';
import { Clinic } from './records/clinic/entities.js';
import { connect, createDataSource } from './database/database.js';
import { ENTITIES } from './http/endpoints/index.js';
import { readSettings } from './settings.js';

/*
 * Checks the audit of every clinic in the database: says how many links there
 * are, the last of them to be noted down, and where the chain breaks. Ends with
 * 1 where it does.
 */
const settings = readSettings({ DIAL_GAUGE_PORT: '1', ...process.env });
const dataSource = await connect(createDataSource(settings.database, ENTITIES));
await chainOpen(dataSource, settings.key);
let broken = false;
for (const { id, name } of await dataSource.manager.find(Clinic)) {
  const { links, head, faults } = await checkChain(dataSource.manager, settings.key, id);
  broken ||= faults.length > 0;
  process.stdout.write(`${name}: ${links} links, the last is ${head}\n${faults.map((fault) => `  BROKEN: ${fault}\n`).join('')}`);
}
if (!settings.key) process.stdout.write('Without DIAL_GAUGE_KEY_FILE whoever has the database can make the chain anew.\n');
await dataSource.destroy();
process.exit(broken ? 1 : 0);
