import { openApiDocument } from '@dial-gauge/contract';
import express, { type Express, type RequestHandler } from 'express';
import type { Logger } from 'pino';
import proxyAddress from 'proxy-addr';
import type { DataSource } from 'typeorm';
import { deadline } from './http/deadline.js';
import { Door } from './http/door.js';
import { RESOURCES } from './http/endpoints/index.js';
import type { Health } from './http/health.js';
import { KnownDevices } from './http/known-devices.js';
import { problemHandler } from './http/problem-handler.js';
import { requestLog } from './http/request-log.js';
import { fromOurselves, routerOf } from './http/router.js';
import { apiHeaders, nonceOf, pageHeaders } from './http/security-headers.js';
import type { Services } from './http/services.js';
import { SessionCookies } from './http/session.js';
import { nonceFor, serveWeb, type DemoDoor } from './http/static-web.js';
import type { Threads } from './http/threads.js';
import { AttemptLimiter } from './records/identity/attempts.js';
import { SessionStore, type SessionSettings } from './records/identity/session-store.js';
import { judgePassword } from './records/identity/strength.js';
import { openDatabase } from './records/open-database.js';
import { USUAL_KEEP_YEARS } from './settings.js';
import type { Mailer } from './shared/mail.js';
import { HttpProblem } from './shared/problems.js';
import { clinicIsThere } from './use-cases/accounts/links.js';
import { Auditor } from './use-cases/auditing/auditor.js';
import { Cohorts } from './use-cases/cohort/cohorts.js';
import type { Bus } from './use-cases/live/bus.js';
import { LiveHub } from './use-cases/live/hub.js';
import { QueueRefresher } from './use-cases/queue/queue-refresher.js';

export interface ServerSettings {
  readonly dataSource: DataSource;
  readonly session: SessionSettings;
  readonly logger: Logger;
  /** Folder of the built interface; without it only the API is served. */
  readonly webRoot?: string;
  /** Whom to believe about the address and scheme of a request. */
  readonly trustProxy?: string | number | false;
  /** Where what takes long is done; without them it is done here. */
  readonly threads?: Threads;
  /** Over which live instruments are shared; without it there are none. */
  readonly bus?: Bus;
  /** Whom the sign-in page offers to be, in the demo. */
  readonly demo?: DemoDoor;
  /** What second factors are kept with: 32 bytes. */
  readonly key?: Buffer | null | undefined;
  /** Years that a record is kept, before it may be erased. */
  readonly keepYears?: number;
  /** What tells others how this server is. */
  readonly health?: Health;
  /** Sends mails; without it links for others need their second factor. */
  readonly mailer?: Mailer | null;
  /** After how many milliseconds a request is answered that it took too long; a minute where it is left out. */
  readonly longestRequestMs?: number;
  /** After how many milliseconds somebody hears that they asked too much; a quarter of a second where it is left out. */
  readonly refusalDelayMs?: number;
  /** Whether answers are held against the contract before they go out: in tests and in development. */
  readonly checksAnswers?: boolean;
  /** What time it is; the system's where it is left out. */
  readonly clock?: () => Date;
}

export interface ComposedServer {
  readonly app: Express;
  readonly services: Services;
  /** Begins with what is done beside the requests. */
  start(): void;
  /** Ends it, in order. */
  close(): Promise<void>;
}

const PRUNE_EVERY_MS = 3_600_000;

/** The whole server, put together but not listening: everything it consists of is made here, and handed to what needs it. */
export function composeServer(settings: ServerSettings): ComposedServer {
  const {
    dataSource,
    logger,
    webRoot,
    threads,
    session,
    trustProxy = false,
    demo,
    health,
    key = null,
    clock = () => new Date(),
  } = settings;
  const app = express();
  app.disable('x-powered-by');
  // Answers are never stored by whoever asks: nobody compares them.
  app.disable('etag');
  app.set('trust proxy', trustProxy);

  const database = openDatabase(dataSource, clock);
  const store = new SessionStore(dataSource, session, clock);
  const sessions = new SessionCookies(store, clock);
  const auditor = new Auditor(dataSource, key, logger, clock);
  const queue = new QueueRefresher(database, threads, logger, clock);
  const cohorts = new Cohorts(dataSource, logger, clock);
  const limiter = new AttemptLimiter(dataSource, clock);
  const devices = new KnownDevices(key, session.secure);
  const services: Services = {
    ...{ sessions, auditor, queue, cohorts, limiter, key, clock },
    live: settings.bus ? liveHub(settings.bus) : null,
    devices,
    mailer: settings.mailer ?? null,
    keepYears: settings.keepYears ?? USUAL_KEEP_YEARS,
    judgePassword: (password, words, from) => (threads ? threads.judgePassword(password, words, from) : judgePassword(password, words)),
  };

  app.use(requestLog(logger));
  if (health) {
    app.use(health.time);
    health.serve(app);
  }
  app.use('/api', apiHeaders, deadline(settings.longestRequestMs));
  app.get('/api/openapi.json', (_request, response) => {
    response.type('json').set('Cache-Control', 'public, max-age=3600').send(openApiText());
  });
  app.use(
    '/api',
    fromOurselves,
    withServices(services),
    sessions.attach,
    routerOf(RESOURCES, {
      ...{ database, threads, auditor, sessions: store },
      door: new Door(devices, settings.refusalDelayMs),
      checksAnswers: settings.checksAnswers ?? false,
      episodeMarked: () => queue.refreshSoon(),
    }),
    () => {
      throw new HttpProblem(404, 'Not found', 'There is no such address in the interface; see /api/openapi.json.');
    },
  );
  app.use((request, response, next) => {
    response.locals['nonce'] = nonceFor(request.path);
    next();
  }, pageHeaders);
  if (webRoot) serveWeb(app, webRoot, nonceOf, demo ?? null, () => clinicIsThere(dataSource.manager));
  app.use(problemHandler(logger));

  let pruning: NodeJS.Timeout | undefined;
  return {
    app,
    services,
    start() {
      for (const part of [queue, cohorts, auditor]) part.start();
      pruning = setInterval(() => void Promise.all([store.prune(), limiter.prune()]).catch(() => {}), PRUNE_EVERY_MS);
      pruning.unref();
    },
    async close() {
      clearInterval(pruning);
      await services.live?.close();
      for (const part of [queue, cohorts, auditor]) await part.close();
    },
  };

  function liveHub(bus: Bus): LiveHub {
    const trusted = app.get('trust proxy fn') as (address: string, hop: number) => boolean;
    return new LiveHub(
      dataSource,
      store,
      bus,
      logger,
      { sidOf: ({ headers }) => sessions.sidOf(headers.cookie), addressOf: (request) => proxyAddress(request, trusted) },
      clock,
    );
  }
}

const withServices =
  (services: Services): RequestHandler =>
  (request, _response, next) => {
    request.services = services;
    next();
  };

let text: string | undefined;
const openApiText = (): string => (text ??= JSON.stringify(openApiDocument()));
