import { existsSync, readdirSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { backupKey } from './lib/archive.mjs';
import { canDoAgain, doAgain, manifestOf, prove, readIn, sizeWords } from './lib/backup.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { DATA } from './lib/paths.mjs';
import { main, say, Stop } from './lib/say.mjs';
import { withRecords } from './lib/which-records.mjs';

const USE = `npm run restore -- FILE [--check] [--binlogs FOLDER [--until 2026-11-27T12:00:00Z]] [--clinic]
  --check    reads it into a server of its own, compares, and throws that away
  --binlogs  does again what was written after it, from the files of the binary log in a folder
  --until    and no further than this moment`;

/** Reads a backup into the empty database that DIAL_GAUGE_DB_* name, or that of npm start. */
await main(async () => {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { check: { type: 'boolean' }, clinic: { type: 'boolean' }, binlogs: { type: 'string' }, until: { type: 'string' } },
  });
  const [file] = positionals;
  if (!file || !existsSync(file)) throw new Stop(`${file ? `There is no ${file}.` : 'Which backup?'}\n${USE}`);
  const until = values.until ? new Date(values.until) : undefined;
  if (until && Number.isNaN(until.getTime())) throw new Stop(`--until is "${values.until}"; allowed: a moment as 2026-11-27T12:00:00Z`);
  needNode();
  await needDebian('mariadb-server');
  await needPackages();
  const keyIn = (folder) => backupKey(process.env.DIAL_GAUGE_BACKUP_KEY_FILE ?? join(folder, 'backup.key'), false);
  if (values.check) {
    const manifest = await prove(file, await keyIn(join(DATA, values.clinic ? 'clinic' : 'demo')));
    return say(`It is whole: ${sizeWords(manifest)}, as they were ${manifest.madeAt}.`);
  }
  await withRecords(async ({ records, folder, serverKey, database }) => {
    const key = await keyIn(folder);
    const known = values.binlogs && (await manifestOf(file, key));
    if (known) await canDoAgain(records, values.binlogs, known.database);
    await mustBeEmpty(records);
    const manifest = await readIn(file, key, records, known);
    say(`Read in and compared: ${sizeWords(manifest)}, as they were ${manifest.madeAt}.`);
    if (values.binlogs) {
      const files = readdirSync(values.binlogs)
        .filter((name) => /\.\d{6}$/.test(name))
        .sort()
        .map((name) => join(values.binlogs, name));
      await doAgain(records, manifest, files, until);
      say(`Done again what was written after it${until ? `, up to ${until.toISOString()}` : ''}.`);
    }
    keepServerKey(manifest.serverKey, serverKey, database !== undefined);
  }, true);
});
process.exit();

async function mustBeEmpty(records) {
  const connection = await records.connect();
  try {
    const [tables] = await connection.query('SHOW TABLES');
    if (tables.length > 0)
      throw new Stop(`The database ${records.name} is not empty: nothing was read in. Allowed: an empty one; what is in this one stays.`);
  } finally {
    await connection.end();
  }
}

/** The key that second factors and the audit were kept with goes with the records. */
function keepServerKey(key, file, ours) {
  if (!key)
    return say('The backup holds no key of the server: second factors were not in use, or it was made without DIAL_GAUGE_KEY_FILE.');
  if (!file) return say('DIAL_GAUGE_KEY_FILE is not set: the key of the server is in the backup, and was not written.');
  if (existsSync(file) && !ours) return say(`${file} is there already and was left. The key of the backup was not written.`);
  if (existsSync(file)) renameSync(file, `${file}.before`);
  writeFileSync(file, `${key}\n`, { mode: 0o600 });
  say(`The key of the server was written to ${file}.`);
}
