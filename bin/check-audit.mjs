import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { buildAll } from './lib/build.mjs';
import { PrivateDatabase } from './lib/database.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { DATA, inRoot } from './lib/paths.mjs';
import { main, Stop } from './lib/say.mjs';

/** The demo's audit, or the clinic's with --clinic: its database is started for it where it is not running. A server elsewhere: node server/dist/check-audit.js with its environment. */
await main(async () => {
  needNode();
  await needDebian('mariadb-server');
  await needPackages();
  await buildAll();
  const folder = join(DATA, process.argv.includes('--clinic') ? 'clinic' : 'demo');
  if (!existsSync(folder)) throw new Stop(`There is nothing in ${folder} yet. Run npm start first.`);
  const database = new PrivateDatabase(folder, Number(process.env.DIAL_GAUGE_DB_PORT ?? 4311));
  const runs = (await database.admin('ping')).code === 0;
  if (!runs) await database.start();
  try {
    const env = { ...process.env, ...database.environment() };
    process.exitCode =
      spawnSync(process.execPath, ['--enable-source-maps', inRoot('server/dist/check-audit.js')], { env, stdio: 'inherit' }).status ?? 1;
  } finally {
    if (!runs) await database.stop();
  }
});
process.exit();
