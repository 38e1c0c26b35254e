import { execFile } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { promisify } from 'node:util';
import { expect, test } from '@playwright/test';
import { PrivateDatabase } from '../../bin/lib/database.mjs';
import { inRoot } from '../../bin/lib/paths.mjs';
import { freePort } from '../../bin/lib/ports.mjs';
import { startStack, type Stack } from '../../bin/lib/stack.mjs';
import { client } from '../client';

const run = promisify(execFile);
const WAY = { motion: 'hip.flexion', side: 'left', mode: 'active', position: 'supine', instrument: 'goniometer', start: 0 };
const today = () => new Date().toISOString().slice(0, 10);

interface Record_ {
  readonly measurements: readonly { readonly trials: readonly { readonly id: string }[] }[];
}

test.describe('a backup', () => {
  test.describe.configure({ mode: 'serial', timeout: 900_000 });
  let stack: Stack;
  let folder: string;
  let visit: string;
  let file: string;
  let api: Awaited<ReturnType<typeof client>>;
  /** Readings that were acknowledged, with the moment. */
  const held = new Map<string, number>();

  const hold = async (end: number): Promise<void> => {
    const id = crypto.randomUUID();
    await api(`/visits/${visit}/readings`, { id, ...WAY, end, heldAt: new Date().toISOString() });
    held.set(id, Date.now());
  };
  const idsOf = ({ measurements }: Record_): string[] => measurements.flatMap(({ trials }) => trials.map(({ id }) => id));
  /** A command as whoever looks after the server calls it. */
  const command = async (name: string, args: string[], env: Record<string, string>) =>
    run(process.execPath, [inRoot('bin', name), ...args], {
      env: { ...process.env, ...env, DIAL_GAUGE_BACKUP_KEY_FILE: join(folder, 'backup.key') },
    });
  /** An empty server, and what is read into it by its user. */
  const restored = async (args: string[], then: (database: PrivateDatabase, ids: string[]) => Promise<void>) => {
    const place = await mkdtemp(join(folder, 'other-'));
    const database = new PrivateDatabase(place, await freePort());
    await database.start();
    // What is done again from the binary log is done as it was.
    await database.sql("GRANT BINLOG REPLAY ON *.* TO dial_gauge_schema@'127.0.0.1'");
    const environment = database.environment();
    try {
      await command('restore.mjs', [file, ...args], { ...environment, DIAL_GAUGE_KEY_FILE: join(place, 'from-backup.key') });
      const server = await stack.serve({ ...environment, DIAL_GAUGE_KEY_FILE: join(place, 'from-backup.key') });
      const there = await client(server.url);
      await then(database, idsOf((await there(`/visits/${visit}`)) as Record_));
      await server.stop();
    } finally {
      await database.discard();
    }
  };

  test.beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'dial-gauge-backup-'));
    stack = await startStack({}, { binlog: true });
    api = await client(stack.url);
    const { rows } = (await api('/caseload?order=latest')) as { rows: { episode: { id: string } }[] };
    visit = crypto.randomUUID();
    await api(`/episodes/${rows[0]!.episode.id}/visits`, { id: visit, assessedOn: today() });
    // Who backs up reads everything and changes nothing.
    await stack.database.sql(
      "CREATE USER backup@'127.0.0.1' IDENTIFIED BY 'only-reads';" +
        "GRANT RELOAD, BINLOG MONITOR ON *.* TO backup@'127.0.0.1';" +
        "GRANT SELECT, SHOW VIEW, TRIGGER, LOCK TABLES ON dial_gauge.* TO backup@'127.0.0.1';",
    );
  });
  test.afterAll(async () => {
    await stack.stop();
    await rm(folder, { recursive: true, force: true });
  });

  test('is made while four write, proves itself, and opens with its key alone', async () => {
    let going = true;
    const writers = [0, 1, 2, 3].map(async (writer) => {
      for (let n = 0; going; n += 1) await hold(60 + ((writer * 20 + n) % 60));
    });
    await expect.poll(() => held.size).toBeGreaterThan(20);
    const before = held.size;
    const { stdout } = await command('backup.mjs', [], {
      ...stack.database.environment(),
      DIAL_GAUGE_DB_USER: 'backup',
      DIAL_GAUGE_DB_PASSWORD: 'only-reads',
      DIAL_GAUGE_BACKUP_FOLDER: join(folder, 'backups'),
    }).finally(() => (going = false));
    await Promise.all(writers);
    const meanwhile = held.size - before;
    expect(meanwhile, 'they wrote all the while').toBeGreaterThan(20);
    expect(stdout).toMatch(/read into a server of its own and compared: \d+ tables, [\d,]+ rows/);
    const [name, ...others] = await readdir(join(folder, 'backups'));
    expect(others).toEqual([]);
    file = join(folder, 'backups', name!);
    const bytes = await readFile(file);
    for (const word of ['Corin', 'wren@', 'INSERT']) expect(bytes.includes(word)).toBe(false);

    // Changed by a bit, cut off, or with another key: nothing is read in.
    const check = async (content: Buffer, env: Record<string, string> = {}) => {
      const path = join(folder, 'changed.backup');
      await writeFile(path, content);
      return run(process.execPath, [inRoot('bin/restore.mjs'), path, '--check'], {
        env: { ...process.env, DIAL_GAUGE_BACKUP_KEY_FILE: join(folder, 'backup.key'), ...env },
      }).then(
        () => '',
        (error: { stderr: string }) => error.stderr,
      );
    };
    const flipped = Buffer.from(bytes);
    flipped[bytes.length >> 1]! ^= 1;
    expect(await check(flipped)).toContain('it was changed, or made with another key');
    expect(await check(bytes.subarray(0, bytes.length - 5))).toContain('ends too early');
    await writeFile(join(folder, 'other.key'), `${Buffer.alloc(32, 7).toString('base64')}\n`);
    expect(await check(bytes, { DIAL_GAUGE_BACKUP_KEY_FILE: join(folder, 'other.key') })).toContain('made with another key');
    expect(await check(bytes, { DIAL_GAUGE_BACKUP_KEY_FILE: join(folder, 'no.key') })).toContain('There is no key in');
  });

  test('is read into an empty database alone, and the clinic goes on there', async () => {
    await expect(command('restore.mjs', [file], stack.database.environment())).rejects.toThrow(/is not empty: nothing was read in/);
    await restored([], async (_, ids) => {
      expect(ids.length).toBeGreaterThan(0);
      for (const id of ids) expect(held.has(id)).toBe(true);
      expect(new Set(ids).size).toBe(ids.length);
    });
  });

  test('with the binary log is brought to any moment after it: what was acknowledged by then is there, and nothing later', async () => {
    await hold(91);
    await wait(1_100);
    const until = new Date(Math.ceil(Date.now() / 1000) * 1000);
    await wait(1_100);
    await hold(92);
    const late = [...held].filter(([, at]) => at >= until.getTime()).map(([id]) => id);
    expect(late.length).toBe(1);
    await stack.database.sql('FLUSH BINARY LOGS');
    await restored(['--binlogs', stack.database.data, '--until', until.toISOString()], async (_, ids) => {
      expect([...ids].sort()).toEqual([...held.keys()].filter((id) => !late.includes(id)).sort());
    });
    await restored(['--binlogs', stack.database.data], async (_, ids) => {
      expect([...ids].sort()).toEqual([...held.keys()].sort());
    });
  });

  test('is read in beside the records on the same server: its binary log holds that too, and it is not done again', async () => {
    const again = async (over: Record<string, string>) =>
      command('restore.mjs', [file, '--binlogs', stack.database.data], {
        ...stack.database.environment(),
        DIAL_GAUGE_KEY_FILE: join(folder, 'again.key'),
        ...over,
      });
    await expect(again({}), 'into itself').rejects.toThrow(/the binary log of the server itself, and dial_gauge the database it is about/);
    const beside = { DIAL_GAUGE_DB_NAME: 'dial_gauge_again' };
    const empty =
      "DROP DATABASE IF EXISTS dial_gauge_again; CREATE DATABASE dial_gauge_again; GRANT ALL ON dial_gauge_again.* TO dial_gauge_schema@'127.0.0.1';";
    await stack.database.sql(empty);
    await expect(again(beside), 'by whom may not').rejects.toThrow(/may not do a binary log again: nothing was read in/);
    await stack.database.sql(
      "GRANT BINLOG REPLAY ON *.* TO dial_gauge_schema@'127.0.0.1'; USE dial_gauge; ALTER TABLE clinic ADD COLUMN later INT",
    );
    await again(beside);
    // Also a change of the schema after the backup; and all that was entered.
    await stack.database.sql('SELECT later FROM dial_gauge_again.clinic');
    const left = 'SELECT id FROM dial_gauge.trial WHERE id NOT IN (SELECT id FROM dial_gauge_again.trial)';
    const same = '(SELECT COUNT(*) FROM dial_gauge.trial) = (SELECT COUNT(*) FROM dial_gauge_again.trial)';
    // More than one row is none.
    await stack.database.sql(`SELECT IF(${same} AND NOT EXISTS (${left}), 1, (SELECT 1 UNION SELECT 2))`);
    // Done twice it would be in the way of itself.
    await stack.database.sql(empty);
    await again(beside);
    await stack.database.sql(`${empty} ALTER DATABASE dial_gauge COMMENT 'of the clinic'`);
    await expect(again(beside), 'what is about a database itself').rejects.toThrow(/a database is made, changed or dropped at 20/);
  });
});
