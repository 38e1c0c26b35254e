import type { IncomingMessage, ServerResponse } from 'node:http';
import { openApiDocument } from '@dial-gauge/contract';
import express, { type Express, type RequestHandler, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { AttemptLimiter } from './records/identity/attempts.js';
import { KnownDevices } from './http/known-devices.js';
import type { AccountMeans } from './http/proof.js';
import { judgePassword } from './records/identity/strength.js';
import { Auditor } from './use-cases/auditing/auditor.js';
import { Cohorts } from './use-cases/cohort/cohorts.js';
import { Database } from './database/database.js';
import { deadline } from './http/deadline.js';
import type { Mailer } from './shared/mail.js';
import { problemHandler } from './http/problem-handler.js';
import { HttpProblem } from './shared/problems.js';
import { requestLog } from './http/request-log.js';
import { fromOurselves, routerOf } from './http/router.js';
import { Sessions, type SessionSettings } from './http/session.js';
import type { Watch } from './http/health.js';
import type { Threads } from './http/threads.js';
import { RESOURCES } from './http/endpoints/index.js';
import { USUAL_KEEP_YEARS } from './settings.js';
import { Standings } from './use-cases/queue/standings.js';
import { clinicIsThere } from './use-cases/accounts/links.js';
import { nonceFor, serveWeb, type DemoDoor } from './http/static-web.js';

export interface AppSettings {
  readonly dataSource: DataSource;
  readonly session: SessionSettings;
  readonly logger: Logger;
  /** Folder of the built interface; without it only the API is served. */
  readonly webRoot?: string;
  /** Whom to believe about the address and scheme of a request. */
  readonly trustProxy?: string | number | false;
  /** Where what takes long is done; without them it is done here. */
  readonly threads?: Threads;
  /** Whom the sign-in page offers to be, in the demo. */
  readonly demo?: DemoDoor;
  /** What second factors are kept with: 32 bytes. */
  readonly key?: Buffer | null | undefined;
  /** Years that a record is kept, before it may be erased. */
  readonly keepYears?: number;
  /** What tells others how this server is. */
  readonly watch?: Watch;
  /** After how many milliseconds a request is answered that it took too long; a minute where it is left out. */
  readonly longestRequestMs?: number;
  /** Sends mails; without it links for others need their second factor. */
  readonly mailer?: Mailer | null;
  /** What time it is; the system's where it is left out. */
  readonly clock?: () => Date;
}

export const nonceOf = (response: Response): string => response.locals['nonce'] as string;

const referrerPolicy = { policy: 'no-referrer' } as const;

/** What a page may do: everything from here, styles with the nonce of this answer. */
const pageHeaders = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'none'"],
      scriptSrc: ["'self'"],
      styleSrc: ["'self'", (_request, response) => `'nonce-${nonceOf(response as Response)}'`],
      imgSrc: ["'self'", 'data:'],
      // A clip that somebody opens plays in the page that opened it, and comes from nowhere else.
      mediaSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'"],
      connectSrc: ["'self'"],
      workerSrc: ["'self'"],
      manifestSrc: ["'self'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
      baseUri: ["'none'"],
    },
  },
  referrerPolicy,
});

/** An answer of the interface is data: as a page it may do nothing at all, and nobody stores it. */
const apiHeaders = alwaysThese(
  helmet({
    contentSecurityPolicy: { useDefaults: false, directives: { defaultSrc: ["'none'"], frameAncestors: ["'none'"], baseUri: ["'none'"] } },
    referrerPolicy,
  }),
  { 'Cache-Control': 'no-store' },
);

/** Headers that are the same for every answer, asked for once. */
function alwaysThese(middleware: ReturnType<typeof helmet>, more: Readonly<Record<string, string>>): RequestHandler {
  const headers = new Map(Object.entries(more));
  const answer = { setHeader: (name: string, value: string) => headers.set(name, value), removeHeader: () => {} };
  middleware({} as IncomingMessage, answer as unknown as ServerResponse, () => {});
  return (_request, response, next) => {
    response.setHeaders(headers);
    next();
  };
}

/** The whole server, wired but not listening. */
export function createApp(settings: AppSettings): Express {
  const { dataSource, logger, webRoot, threads, session, trustProxy = false, demo, watch, key, clock = () => new Date() } = settings;
  const app = express();
  const sessions = new Sessions(dataSource, session, clock);
  app.disable('x-powered-by');
  // Answers are never stored by whoever asks: nobody compares them.
  app.disable('etag');
  app.set('trust proxy', trustProxy);
  app.locals['sessions'] = sessions;
  app.locals['keepYears'] = settings.keepYears ?? USUAL_KEEP_YEARS;
  app.locals['accounts'] = {
    limiter: new AttemptLimiter(dataSource, clock),
    devices: new KnownDevices(key ?? null, session.secure),
    mailer: settings.mailer ?? null,
    key: key ?? null,
    judgePassword: (password, words, from) => (threads ? threads.judgePassword(password, words, from) : judgePassword(password, words)),
  } satisfies AccountMeans;
  const standings = new Standings(dataSource, threads, logger, clock);
  app.locals['standings'] = standings;
  app.locals['cohorts'] = new Cohorts(dataSource, logger);
  const auditor = new Auditor(dataSource, key ?? null, logger);
  app.locals['auditor'] = auditor;
  app.use(requestLog(logger));
  if (watch) {
    app.use(watch.time);
    watch.serve(app);
  }
  app.use('/api', apiHeaders, deadline(settings.longestRequestMs));
  app.get('/api/openapi.json', (_request, response) => {
    response.type('json').set('Cache-Control', 'public, max-age=3600').send(openApiText());
  });
  app.use(
    '/api',
    fromOurselves,
    sessions.tell,
    routerOf(RESOURCES, { database: new Database(dataSource, clock), sessions, threads, episodeTouched: () => standings.soon(), auditor }),
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
  return app;
}

let text: string | undefined;
const openApiText = (): string => (text ??= JSON.stringify(openApiDocument()));
