import { createServer, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { Server as Listener } from 'node:net';
import { pino } from 'pino';
import { composeServer, type ComposedServer } from './compose.js';
import { asSchemaAccount, connect, createDataSource, migrate, mustBeMigrated } from './database/database.js';
import { DEMO_DOOR } from './demo/clinic.js';
import { seedDemo } from './demo/seed.js';
import { ENTITIES } from './http/endpoints/index.js';
import { Health } from './http/health.js';
import { Threads } from './http/threads.js';
import { tlsOf } from './http/tls.js';
import { readSettings } from './settings.js';
import { LogOutput } from './shared/log-output.js';
import { Mailer } from './shared/mail.js';
import { newFoundingCode } from './use-cases/accounts/links.js';
import { brokerBus, OwnBus } from './use-cases/live/bus.js';

/** Requests on the way get so long to end, when the server is to stop. */
const LAST_REQUESTS = 4_000;
const LAST_GOODBYES = 2_000;
/** After a fault nothing is sure to come to an end by itself. */
const LONGEST_STOP = 15_000;
/** A connection that was just made has not said yet what it wants: it gets so long to. */
const FIRST_WORDS = 200;

const settings = readSettings(process.env);
const logger = pino({ level: settings.logLevel }, new LogOutput());

let server: Server | undefined;
let threads: Threads | undefined;
let composed: ComposedServer | undefined;
let health: Health | undefined;
let migrating: Promise<void> = Promise.resolve();
let stopping = false;

// Listened for from the start: a stop that comes while the schema is changed waits for that.
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
process.on('SIGHUP', () => void stop());
// Started as a child: when the parent is gone, so is the reason to run.
process.on('disconnect', () => void stop());
// A fault of the program: what is on its way is answered, and whoever started this starts it again.
for (const fault of ['uncaughtException', 'unhandledRejection'] as const)
  process.on(fault, (error: unknown) => {
    logger.fatal({ err: error }, 'the server ends because of a fault of the program');
    setTimeout(() => process.exit(1), LONGEST_STOP).unref();
    void stop(1);
  });

const dataSource = await connect(createDataSource(settings.database, ENTITIES), () =>
  logger.error('a connection came back to the pool with an open transaction: it was destroyed'),
);
process.send?.('migrating');
migrating = settings.migrates
  ? asSchemaAccount(settings, dataSource, (schema, account) =>
      migrate(schema, account, async () => {
        if (settings.demo && !stopping && (await seedDemo(dataSource, new Date()))) logger.info('demo clinic seeded');
      }),
    )
  : mustBeMigrated(dataSource);
await migrating;
if (!stopping) await listen();

async function listen(): Promise<void> {
  const { session, webRoot, trustProxy, demo, host, port, database, key, keepYears, bus, busAuthority, mail } = settings;
  const tls = await tlsOf(settings.tls, host);
  threads = new Threads(database, (error) => logger.error({ err: error }, 'a worker thread ended and was replaced'));
  // Nobody waits later for a thread that loads its program.
  await threads.warm();
  health = new Health(dataSource, settings);
  health.ofProcess();
  composed = composeServer({
    ...{ dataSource, logger, session, webRoot, trustProxy, threads, health, key, keepYears },
    demo: demo ? DEMO_DOOR : undefined,
    mailer: mail && new Mailer(mail),
    bus: bus
      ? brokerBus(bus, (error) => logger.warn({ err: error }, 'the broker of live instruments is not there'), busAuthority)
      : new OwnBus(),
  });
  const { app, services } = composed;
  composed.start();
  server = tls ? createSecureServer(tls, app) : createServer(app);
  services.live?.attach(server);
  health.gauge('live_connections', 'Instruments, phones and screens that are connected', () => services.live?.size ?? 0);
  server.on('error', (error) => {
    logger.fatal({ code: (error as NodeJS.ErrnoException).code, host, port }, 'cannot listen');
    process.exit(1);
  });
  server.listen(port, host, () => {
    logger.info({ host, port }, 'listening');
    void tellFoundingCode().finally(() => process.send?.('ready'));
  });
}

/** While there is no clinic, whoever sees what this server prints may found it. Printed, and never logged. */
async function tellFoundingCode(): Promise<void> {
  const code = await newFoundingCode(dataSource.manager, new Date());
  if (code === null) return;
  process.send?.({ foundingCode: code });
  process.stdout.write(`\nThere is no clinic here yet. Whoever opens the page founds it with this code, once:\n\n    ${code}\n\n`);
}

/** In order, and within a time: others are told, no new requests, those on the way end or are cut, threads and connections close. */
async function stop(exitCode = 0): Promise<void> {
  if (stopping) return;
  stopping = true;
  await migrating.catch(() => {});
  // Said before it is done: what comes meanwhile is answered.
  health?.drain();
  if (server?.listening) await after(settings.drainMs);
  await composed?.close();
  if (server) {
    const ending = server;
    // Only the door: closed as a web server closes it, whoever came through it this moment would be cut off unheard.
    const closed = new Promise((resolve) => void Listener.prototype.close.call(ending, resolve));
    await Promise.race([closed, after(FIRST_WORDS)]);
    server.closeIdleConnections();
    await Promise.race([closed, after(LAST_REQUESTS)]);
    server.closeAllConnections();
  }
  await Promise.race([Promise.allSettled([threads?.close(), dataSource.destroy()]), after(LAST_GOODBYES)]);
  process.exit(exitCode);
}

function after(ms: number): Promise<void> {
  return new Promise((resolve) => void setTimeout(resolve, ms).unref());
}
