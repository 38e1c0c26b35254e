import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildAll } from './lib/build.mjs';
import { PrivateDatabase } from './lib/database.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { inRoot } from './lib/paths.mjs';
import { freePort } from './lib/ports.mjs';
import { run } from './lib/run.mjs';
import { main, say, Stop } from './lib/say.mjs';
import { ServerProcess } from './lib/server.mjs';

await main(async () => {
  needNode();
  await needDebian('mariadb-server', 'chromium');
  await needPackages();
  await buildAll();
  say('Building the empty page to compare with …');
  const empty = await run('npx', ['ng', 'build', 'empty', '--progress=false'], {
    cwd: inRoot('web'),
    quiet: true,
    env: { NG_CLI_ANALYTICS: 'false' },
  });
  if (empty.code !== 0) throw new Stop(empty.output);

  say('');
  await run(process.execPath, ['--import', 'tsx', inRoot('bench/assess.ts')]);

  const { benchSave } = await import('../bench/save.mjs');
  const { firstScreenBytes } = await import('../bench/bytes.mjs');
  const folder = await mkdtemp(join(tmpdir(), 'dial-gauge-bench-'));
  const database = new PrivateDatabase(folder, await freePort());
  const servers = [];
  const serve = async (env) => {
    const server = new ServerProcess({
      port: await freePort(),
      log: join(folder, 'server.log'),
      env: { ...database.environment(), DIAL_GAUGE_LOG: 'warn', ...env },
    });
    servers.push(server);
    await server.start();
    return server;
  };
  try {
    await database.start();
    const server = await serve({ DIAL_GAUGE_DEMO: 'yes' });
    await benchSave({ server, database });
    const ours = await firstScreenBytes(server.url);
    const bare = await firstScreenBytes((await serve({ DIAL_GAUGE_WEB_ROOT: inRoot('web/dist/empty/browser') })).url);
    const kB = (bytes) => `${(bytes / 1000).toFixed(1)} kB`;
    const parts = Object.entries(ours.sums)
      .map(([type, bytes]) => `${type.toLowerCase()} ${kB(bytes)}`)
      .join(', ');
    say(`first screen, compressed: ${kB(ours.total)} (${parts})`);
    say(`empty Angular + Material page of the same version, same server: ${kB(bare.total)}; ratio ${(ours.total / bare.total).toFixed(2)}`);
  } finally {
    for (const server of servers) await server.stop();
    await database.stop();
    await rm(folder, { recursive: true, force: true });
  }
});
