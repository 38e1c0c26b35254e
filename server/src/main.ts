import { createServer } from 'node:http';
import { pino } from 'pino';
import { createApp } from './app.js';
import { seedDemo } from './demo/seed.js';
import { readSettings } from './settings.js';
import { createDataSource, migrate } from './store/database.js';
import { DatabaseSessionStore } from './store/session-store.js';

const settings = readSettings(process.env);
const logger = pino({ level: settings.logLevel });

const dataSource = await createDataSource(settings.database).initialize();
await migrate(dataSource);
if (settings.demo && (await seedDemo(dataSource, new Date()))) logger.info('demo clinic seeded');

const app = createApp({
  dataSource,
  logger,
  sessionSecret: settings.sessionSecret,
  webRoot: settings.webRoot,
  secureCookie: settings.secureCookie,
});
const server = createServer(app);
server.listen(settings.port, '127.0.0.1', () => {
  logger.info({ port: settings.port }, 'listening');
  process.send?.('ready');
});
server.on('error', (error) => {
  logger.fatal({ code: (error as NodeJS.ErrnoException).code, port: settings.port }, 'cannot listen');
  process.exit(1);
});

const pruning = setInterval(() => void new DatabaseSessionStore(dataSource).prune().catch(() => {}), 3_600_000);
pruning.unref();

async function stop(): Promise<void> {
  clearInterval(pruning);
  server.close();
  server.closeIdleConnections();
  await dataSource.destroy().catch(() => {});
  process.exit(0);
}
process.on('SIGTERM', () => void stop());
process.on('SIGINT', () => void stop());
// Started as a child: when the parent is gone, so is the reason to run.
process.on('disconnect', () => void stop());
