import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, realpathSync, renameSync, rmSync } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { once } from 'node:events';
import { Readable } from 'node:stream';
import { createGunzip, createGzip } from 'node:zlib';
import { readArchive, writeArchive } from './archive.mjs';
import { PrivateDatabase } from './database.mjs';
import { freePort } from './ports.mjs';
import { differences, Records, rowsIn, tallyOf } from './records.mjs';
import { Stop } from './say.mjs';

const DUMP = ['--single-transaction', '--quick', '--triggers', '--hex-blob', '--no-tablespaces', '--skip-dump-date'];

/**
 * Backs up records while they are written, and proves it: everything is read
 * into a server that is thrown away, and rows and hashes are compared.
 *
 * @param serverKey file of the server's own key: without it second factors cannot be opened, nor the audit checked
 * @returns where it lies, and what is in it
 */
export async function backUp(records, { folder, key, serverKey, now = new Date() }) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const file = join(folder, `dial-gauge-${now.toISOString().replace(/[:.]/g, '-')}.backup`);
  const part = `${file}.part`;
  rmSync(part, { force: true });
  try {
    const manifest = await write(part, records, { key, serverKey, now });
    await prove(part, key);
    renameSync(part, file);
    return { file, manifest };
  } catch (error) {
    rmSync(part, { force: true });
    throw error;
  }
}

/** The dump and our own count see the same moment: nobody writes while both begin, a blink of an eye. */
async function write(file, records, { key, serverKey, now }) {
  const lock = await records.connect();
  const seen = await records.connect();
  let manifest;
  try {
    const [[{ binlog }]] = await lock.query('SELECT @@log_bin AS binlog');
    await lock.query('FLUSH TABLES WITH READ LOCK').catch((error) => {
      throw new Stop(
        `The records cannot be held still for the beginning of a backup: ${error.message}. The user needs RELOAD and BINLOG MONITOR on *.*, SELECT, TRIGGER and LOCK TABLES on the database.`,
      );
    });
    await seen.query('SET SESSION TRANSACTION ISOLATION LEVEL REPEATABLE READ');
    await seen.query('START TRANSACTION WITH CONSISTENT SNAPSHOT');
    const [[status]] = binlog ? await lock.query('SHOW MASTER STATUS') : [[]];
    const [command, args, env] = records.tool('mariadb-dump', ...DUMP, records.name);
    const dump = spawn(command, args, { env, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    dump.stderr.on('data', (chunk) => (said += chunk));
    const ended = once(dump, 'close');
    // The first table is in it: its own moment has begun.
    const begun = new Promise((resolve) => dump.stdout.once('readable', resolve));
    await Promise.race([begun, ended]);
    await lock.query('UNLOCK TABLES');
    const tally = tallyOf(seen);
    tally.catch(() => {});
    await writeArchive(file, key, dump.stdout.pipe(createGzip()), async () => {
      const [code] = await ended;
      if (code !== 0) throw new Stop(`The records were not dumped: ${said.trim()}`);
      manifest = {
        madeAt: now.toISOString(),
        database: records.name,
        tables: await tally,
        binlog: status ? { file: status.File, position: Number(status.Position) } : null,
        serverKey: serverKey && existsSync(serverKey) ? readFileSync(serverKey, 'utf8').trim() : null,
      };
      return manifest;
    });
    return manifest;
  } finally {
    await lock.end().catch(() => {});
    await seen.end().catch(() => {});
  }
}

/** What there is to know of a backup, read to its end. @throws where it was changed or cut off */
export async function manifestOf(file, key) {
  let manifest;
  for await (const piece of readArchive(file, key, (known) => (manifest = known))) void piece;
  return manifest;
}

/**
 * Reads a backup into a database that is empty, and compares.
 *
 * @param known what there is to know of it, where it was read to its end already: of one that was changed or cut off nothing is read in
 * @returns that
 */
export async function readIn(file, key, records, known) {
  const manifest = known ?? (await manifestOf(file, key));
  const pieces = Readable.from(readArchive(file, key, () => {}));
  const plain = pieces.pipe(createGunzip());
  pieces.on('error', (error) => plain.destroy(error));
  await records.read(plain);
  const connection = await records.connect();
  try {
    const wrong = differences(manifest.tables, await tallyOf(connection));
    if (wrong.length > 0) throw new Stop(`What was read in is not what was backed up:\n  ${wrong.join('\n  ')}`);
  } finally {
    await connection.end();
  }
  return manifest;
}

/** Reads a backup into a server of its own and throws that away. */
export async function prove(file, key) {
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-proof-'));
  const database = new PrivateDatabase(folder, await freePort());
  try {
    await database.start();
    return await readIn(file, key, Records.ofPrivate(database));
  } finally {
    await database.discard();
    await rm(folder, { recursive: true, force: true });
  }
}

/**
 * Whether the binary log in a folder can be done again here, asked before anything is read in.
 *
 * @throws with what stands against it
 */
export async function canDoAgain(records, folder, backedUp) {
  const connection = await records.connect();
  try {
    const [[{ base }]] = await connection.query('SELECT @@log_bin_basename AS base');
    // It would do again what is read in now, and that the database was made empty.
    if (records.name === backedUp && base && existsSync(folder) && realpathSync(dirname(base)) === realpathSync(folder))
      throw new Stop(`This is the binary log of the server itself, and ${records.name} the database it is about: it would be done again into itself.
Allowed: an empty database of another name on this server, or the same name on another.`);
    // What every binary log begins with.
    await connection.query('SET SESSION pseudo_thread_id = 1').catch(() => {
      throw new Stop(
        `${records.at.user} may not do a binary log again: nothing was read in. Allowed: an account with GRANT BINLOG REPLAY ON *.*`,
      );
    });
  } finally {
    await connection.end();
  }
}

/**
 * Does again what was written after a backup was made, up to a moment.
 *
 * @param binlogs files of the binary log from the one of the backup on, in order
 * @param until a moment, ISO 8601; everything there is where it is left out
 */
export async function doAgain(records, { binlog, database }, binlogs, until) {
  if (!binlog) throw new Stop('The backup knows no place in the binary log: the database kept none when it was made.');
  const from = binlogs.findIndex((path) => path.endsWith(`/${binlog.file}`) || path === binlog.file);
  if (from < 0) throw new Stop(`${binlog.file} is missing: what was written after the backup begins in it.`);
  const stop = until ? [`--stop-datetime=${until.toISOString().slice(0, 19).replace('T', ' ')}`] : [];
  // By the name that it has in the log, also where it gets another.
  const log = (...more) => {
    const [command, , env] = records.tool('mariadb-binlog');
    const args = [
      '--no-defaults',
      `--database=${database}`,
      `--start-position=${binlog.position}`,
      ...stop,
      ...more,
      ...binlogs.slice(from),
    ];
    const reader = spawn(command, args, { env, stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    reader.stderr.on('data', (chunk) => (said += chunk));
    const ended = once(reader, 'close').then(([code]) => {
      if (code !== 0) throw new Stop(`The binary log was not read to its end: ${said.trim()}`);
    });
    ended.catch(() => {});
    return { out: reader.stdout, ended };
  };
  // A database that is dropped or made is named, whatever it is read into.
  const statements = log('--base64-output=decode-rows');
  let when = 0;
  for await (const line of linesOf(statements.out)) {
    when = Number(/^SET TIMESTAMP=(\d+)/.exec(line)?.[1] ?? when);
    if (!line.startsWith('#') && /\b(DROP|CREATE|ALTER)\s+(DATABASE|SCHEMA)\b/i.test(line))
      throw new Stop(`In the binary log a database is made, changed or dropped at ${new Date(when * 1000).toISOString()}: nothing of it was done again.
Allowed: --until an earlier moment, into a database that is empty again.`);
  }
  await statements.ended;
  const again = log(...(database === records.name ? [] : [`--rewrite-db=${database}->${records.name}`]));
  await records.read(Readable.from(asNew(again.out)), '--binary-mode');
  await again.ended;
}

/** Lines of bytes, each a character. */
async function* linesOf(stream) {
  stream.setEncoding('latin1');
  let rest = '';
  for await (const text of stream) {
    const lines = (rest + text).split('\n');
    rest = lines.pop();
    yield* lines;
  }
  if (rest !== '') yield rest;
}

/** What is done again is an entry of its own in the log of the server that does it: two of one number would be in the way of whoever reads it next. */
async function* asNew(stream) {
  let batch = '';
  for await (const line of linesOf(stream)) {
    if (/^\/\*M!\d+ SET @@session\.(gtid_\w+|server_id)=/.test(line)) continue;
    batch += `${line}\n`;
    if (batch.length < 65_536) continue;
    yield Buffer.from(batch, 'latin1');
    batch = '';
  }
  yield Buffer.from(batch, 'latin1');
}

/** "31 tables, 12,345 rows" */
export const sizeWords = ({ tables }) => `${Object.keys(tables).length} tables, ${rowsIn(tables).toLocaleString('en-GB')} rows`;
