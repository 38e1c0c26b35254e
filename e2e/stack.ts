import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PrivateDatabase } from '../bin/lib/database.mjs';
import { freePort } from '../bin/lib/ports.mjs';
import { ServerProcess } from '../bin/lib/server.mjs';

/** The real server over a real, throw-away database with the demo clinic, on free loopback ports. */
export async function startStack() {
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-e2e-'));
  const database = new PrivateDatabase(folder, await freePort());
  await database.start();
  const server = new ServerProcess({ port: await freePort(), log: join(folder, 'server.log'), env: { ...database.environment(), DIAL_GAUGE_DEMO: 'yes' } });
  await server.start();
  return {
    database,
    server,
    url: server.url,
    async stop() {
      await server.stop();
      await database.stop();
      await rm(folder, { recursive: true, force: true });
    },
  };
}

export type Stack = Awaited<ReturnType<typeof startStack>>;
