import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PrivateDatabase } from './database.mjs';
import { freePort } from './ports.mjs';
import { ServerProcess } from './server.mjs';

/**
 * The built server over a throw-away database with the demo clinic, on free loopback ports.
 *
 * @param over what is set otherwise: DIAL_GAUGE_DEMO "no" leaves it empty
 * @param options of the database
 */
export async function startStack(over = {}, options = {}) {
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-stack-'));
  const database = new PrivateDatabase(folder, await freePort(), options);
  const servers = [];
  /** One more server over the same database. */
  const serve = async (env = {}) => {
    const server = new ServerProcess({
      port: await freePort(),
      log: join(folder, 'server.log'),
      env: { ...database.environment(), DIAL_GAUGE_DEMO: 'yes', DIAL_GAUGE_LOG: 'warn', ...over, ...env },
    });
    servers.push(server);
    await server.start();
    return server;
  };
  const stop = async () => {
    for (const server of servers) await server.stop();
    await database.discard();
    await rm(folder, { recursive: true, force: true });
  };
  try {
    await database.start();
    const server = await serve();
    return { database, server, url: server.url, serve, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}
