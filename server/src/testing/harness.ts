import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import { PrivateDatabase } from '../../../bin/lib/database.mjs';
import { freePort } from '../../../bin/lib/ports.mjs';
import { createApp } from '../app.js';
import { readSettings } from '../settings.js';
import { createDataSource, migrate } from '../store/database.js';
import { Clinic, User } from '../store/entities/index.js';
import { hashPassword } from '../store/password.js';

/** A throw-away MariaDB of its own, migrated, with the app over it. */
export async function startHarness() {
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-test-'));
  const database = new PrivateDatabase(folder, await freePort());
  await database.start();
  const settings = readSettings({ ...database.environment(), DIAL_GAUGE_PORT: '1' });
  const dataSource = await createDataSource(settings.database).initialize();
  await migrate(dataSource);
  const lines: string[] = [];
  const logger = pino({ level: 'info' }, { write: (line: string) => void lines.push(line) });
  const appWith = (sessionMs?: number) => createApp({ dataSource, logger, sessionSecret: settings.sessionSecret, sessionMs });
  return {
    dataSource,
    database,
    settings,
    appWith,
    /** Everything the app has logged so far. */
    log: () => lines.join(''),
    async stop() {
      await dataSource.destroy().catch(() => {});
      await database.stop();
      await rm(folder, { recursive: true, force: true });
    },
  };
}

export type Harness = Awaited<ReturnType<typeof startHarness>>;

/** A clinic with one person who may sign in. */
export async function addClinic(dataSource: DataSource, clinicId: string, userId: string, email: string, password: string): Promise<void> {
  await dataSource.getRepository(Clinic).insert({ id: clinicId, name: `Clinic of ${email}`, normSet: 'boone-azen-1979' });
  await dataSource
    .getRepository(User)
    .insert({ id: userId, clinicId, email, name: email.split('@')[0]!, passwordHash: await hashPassword(password) });
}
