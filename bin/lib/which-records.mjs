import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { PrivateDatabase } from './database.mjs';
import { DATA } from './paths.mjs';
import { Records } from './records.mjs';
import { Stop } from './say.mjs';

/**
 * Does something with the records that the environment names; otherwise with
 * the demo's, or with --clinic those of a clinic of one's own, whose database
 * is started for it where it is not running.
 *
 * @param make whether the folder may be made: for a restore
 */
export async function withRecords(doing, make = false) {
  const named = Records.ofEnvironment(make);
  const folder = join(DATA, process.argv.includes('--clinic') ? 'clinic' : 'demo');
  if (named) return doing({ records: named, folder: DATA, serverKey: process.env.DIAL_GAUGE_KEY_FILE, database: undefined });
  if (!existsSync(folder) && !make)
    throw new Stop(
      `There is nothing in ${folder} yet. Run npm start first, or name a database by DIAL_GAUGE_DB_HOST, _PORT, _USER, _PASSWORD and _NAME.`,
    );
  const database = new PrivateDatabase(folder, Number(process.env.DIAL_GAUGE_DB_PORT ?? 4311));
  const runs = existsSync(folder) && (await database.admin('ping')).code === 0;
  if (!runs) await database.start();
  try {
    return await doing({ records: Records.ofPrivate(database), folder, serverKey: join(folder, 'server.key'), database });
  } finally {
    if (!runs) await database.stop();
  }
}
