import { readFileSync, rmSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { PrivateDatabase } from './lib/database.mjs';
import { buildAll } from './lib/build.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { DATA } from './lib/paths.mjs';
import { needPort } from './lib/ports.mjs';
import { main, say, Stop } from './lib/say.mjs';
import { ServerProcess } from './lib/server.mjs';

const PORT = portOf('DIAL_GAUGE_PORT', 4310);
const DB_PORT = portOf('DIAL_GAUGE_DB_PORT', 4311);

/** Phones of the same network are wanted: over https, under this machine's own addresses. */
const PHONES = process.argv.includes('--phones');

/** A clinic of one's own, empty at first, beside the demo and apart from it. */
const CLINIC = process.argv.includes('--clinic');

function forPhones(folder) {
  say(`Listening to the whole network, for phones${CLINIC ? '.' : ': the password of the demo is known to everybody.'}`);
  return { DIAL_GAUGE_HOST: '0.0.0.0', DIAL_GAUGE_TLS: 'self-signed', DIAL_GAUGE_TLS_FOLDER: join(folder, 'tls') };
}

function addresses() {
  const all = Object.values(networkInterfaces()).flat();
  const outside = all.filter(({ family, internal }) => family === 'IPv4' && !internal).map(({ address }) => address);
  return [...outside, '127.0.0.1'].map((address) => `https://${address}:${PORT}`);
}

function portOf(variable, usual) {
  const port = Number(process.env[variable] ?? usual);
  if (Number.isInteger(port) && port > 0 && port < 65_536) return port;
  process.stderr.write(`${variable} is "${process.env[variable]}"; allowed: a whole number from 1 to 65535\n`);
  process.exit(1);
}

/** From here on there is a database to stop in order. Before, an end is just an end. */
let running = false;

/** Resolves at the first Ctrl-C or request to end. Listened for from the very start, so that nothing is left running. */
const stopAsked = new Promise((resolve) => {
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => {
      if (running) return resolve('asked');
      say('\nStopped before everything was ready. The next start goes on from there.');
      process.exit(130);
    });
  }
});

/**
 * Run by npm, it ends with npm: whoever ends npm alone leaves nothing running.
 * npm has a shell between itself and this, so the shell's parent is watched too.
 */
const above = () => [process.ppid, parentOf(process.ppid)].join();
const started = above();
if (process.env.npm_lifecycle_event) setInterval(() => above() !== started && process.emit('SIGTERM'), 500).unref();

/** The parent of a process, as the kernel tells it; nothing where it is gone. */
function parentOf(pid) {
  try {
    return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ')[1];
  } catch {
    return '';
  }
}

/** A server that ends by itself is started again, with longer and longer waits; one that keeps ending is not. */
const RESTARTS = { most: 5, withinMs: 10 * 60_000, firstWaitMs: 500 };

/** Resolves when the end is asked for. The database goes on running whatever the server does. */
async function stayUp(server) {
  let ends = [];
  while ((await Promise.race([stopAsked, server.gone])) !== 'asked') {
    ends = [...ends.filter((at) => Date.now() - at < RESTARTS.withinMs), Date.now()];
    if (ends.length > RESTARTS.most)
      throw new Stop(`The server keeps ending by itself; see ${server.log}. Saved readings are kept. Run npm start again.`);
    say(`The server has ended by itself; see ${server.log}. Saved readings are kept. Starting it again …`);
    if ((await Promise.race([stopAsked, wait(RESTARTS.firstWaitMs * 2 ** (ends.length - 1))])) === 'asked') return;
    if ((await Promise.race([stopAsked, server.start().catch(() => undefined)])) === 'asked') return;
  }
}

const DEMO_WORDS = '  e-mail    wren@saltmarsh.example\n  password  tide-and-table\n';

/** Whoever sees this founds the clinic; once there is one, they sign in. */
const foundingWords = ({ foundingCode }) =>
  foundingCode ? `There is no clinic here yet. Open the page and found it with this code, once:\n\n  ${foundingCode}\n` : '';

await main(async () => {
  needNode();
  await needPort(PORT, 'the interface', 'DIAL_GAUGE_PORT');
  await needDebian('mariadb-server');
  await needPackages();
  await buildAll();

  const folder = join(DATA, CLINIC ? 'clinic' : 'demo');
  const database = new PrivateDatabase(folder, DB_PORT, { binlog: CLINIC });
  await database.stopLeftover();
  await needPort(DB_PORT, 'the database', 'DIAL_GAUGE_DB_PORT');
  if (process.argv.includes('--reset')) {
    if (CLINIC) throw new Stop(`The records of a clinic are not removed by a switch; they lie in ${folder}.`);
    say('Removing the demo and its readings …');
    rmSync(folder, { recursive: true, force: true });
  }

  let server;
  running = true;
  try {
    say('Starting the database …');
    await database.start();
    say('Starting the server …');
    const env = { ...database.environment(), DIAL_GAUGE_DEMO: CLINIC ? 'no' : 'yes', ...(PHONES ? forPhones(folder) : {}) };
    server = new ServerProcess({ port: PORT, log: join(folder, 'server.log'), env });
    if ((await Promise.race([server.start(), stopAsked])) === 'asked') return say('\nStopping …');
    say(
      `\nDial Gauge is ready:  ${PHONES ? addresses().join('  ') : server.url}\n${CLINIC ? foundingWords(server) : DEMO_WORDS}\nCtrl-C stops it. Readings are kept in ${folder}.`,
    );
    await stayUp(server);
    say('\nStopping …');
  } finally {
    await server?.stop();
    await database.stop();
  }
  say('Stopped.');
});
process.exit();
