import { randomBytes, randomUUID } from 'node:crypto';
import { openApiDocument } from '@dial-gauge/contract';
import express, { type Express, type Response } from 'express';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { DataSource } from 'typeorm';
import { signInGuard } from './account/guard.js';
import { Database } from './platform/database.js';
import { problemHandler } from './platform/problem-handler.js';
import { HttpProblem } from './platform/problems.js';
import { fromOurselves, routerOf } from './platform/router.js';
import { sessions, type SessionSettings } from './platform/session.js';
import type { Threads } from './platform/threads.js';
import { RESOURCES } from './resources.js';
import { serveWeb, type DemoDoor } from './web.js';

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

/** An answer of the interface is data: as a page it may do nothing at all. */
const apiHeaders = helmet({
  contentSecurityPolicy: { useDefaults: false, directives: { defaultSrc: ["'none'"], frameAncestors: ["'none'"], baseUri: ["'none'"] } },
  referrerPolicy,
});

/** The whole server, wired but not listening. */
export function createApp(settings: AppSettings): Express {
  const { dataSource, logger, webRoot, threads, session, trustProxy = false, demo } = settings;
  const app = express();
  app.disable('x-powered-by');
  // Answers are never stored by whoever asks: nobody compares them.
  app.disable('etag');
  app.set('trust proxy', trustProxy);
  app.locals['session'] = session;
  app.locals['guard'] = signInGuard(dataSource);
  app.use('/api', apiHeaders);
  app.use(/^\/(?!api\/)/, (_request, response, next) => {
    response.locals['nonce'] = randomBytes(16).toString('base64');
    next();
  });
  app.use(/^\/(?!api\/)/, pageHeaders);
  // Identifiers only: no names, no bodies, no cookies reach the log.
  app.use(
    pinoHttp({
      logger,
      genReqId: () => randomUUID(),
      serializers: {
        req: (request: { id: string; method: string; url: string }) => ({
          id: request.id,
          method: request.method,
          path: request.url.split('?')[0],
        }),
        res: (response: { statusCode: number }) => ({ status: response.statusCode }),
      },
    }),
  );
  app.get('/api/openapi.json', (_request, response) => {
    response.type('json').set('Cache-Control', 'public, max-age=3600').send(openApiText());
  });
  app.use(
    '/api',
    (_request, response, next) => {
      response.setHeader('Cache-Control', 'no-store');
      next();
    },
    fromOurselves,
    sessions(dataSource, session),
    routerOf(RESOURCES, new Database(dataSource), threads ?? null),
    () => {
      throw new HttpProblem(404, 'Not found', 'There is no such address in the interface; see /api/openapi.json.');
    },
  );
  if (webRoot) serveWeb(app, webRoot, nonceOf, demo ?? null);
  app.use(problemHandler(logger));
  return app;
}

let text: string | undefined;
const openApiText = (): string => (text ??= JSON.stringify(openApiDocument()));
