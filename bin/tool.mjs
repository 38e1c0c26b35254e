import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { buildAll } from './lib/build.mjs';
import { PrivateDatabase } from './lib/database.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { DATA, inRoot } from './lib/paths.mjs';
import { main, Stop } from './lib/say.mjs';

/**
 * Runs one of the server's own tools over the demo's records, or with --clinic over those of a clinic of one's own; the database is started
 * for it where it is not running. Over a server elsewhere: node server/dist/NAME.js with its environment.
 */
await main(async () => {
  const [name, ...args] = process.argv.slice(2).filter((arg) => arg !== '--clinic');
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
      spawnSync(process.execPath, ['--enable-source-maps', inRoot(`server/dist/${name}.js`), ...args], { env, stdio: 'inherit' }).status ??
      1;
  } finally {
    if (!runs) await database.stop();
  }
});
process.exit();
