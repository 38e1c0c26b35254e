import { randomBytes, randomUUID } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { openApiDocument } from '@dial-gauge/contract';
import compression from 'compression';
import express, { type Express, type Response } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { DataSource } from 'typeorm';
import { clinicRouter } from './http/clinic.js';
import { followingRouter } from './http/following.js';
import { judgingRouter } from './http/judging.js';
import { preparingRouter } from './http/preparing.js';
import { problemHandler } from './http/problem-handler.js';
import { COOKIE_NAME, sessionRouter } from './http/session.js';
import { signingRouter } from './http/signing.js';
import { HttpProblem } from './problem.js';
import { DatabaseSessionStore } from './store/session-store.js';

export interface AppSettings {
  readonly dataSource: DataSource;
  readonly sessionSecret: string;
  readonly logger: Logger;
  /** Folder of the built interface; without it only the API is served. */
  readonly webRoot?: string;
  /** True behind TLS: the cookie then travels encrypted only. */
  readonly secureCookie?: boolean;
  /** How long a session lasts without a request, milliseconds. */
  readonly sessionMs?: number;
}

const TWELVE_HOURS = 12 * 3_600_000;
const nonceOf = (response: Response): string => response.locals['nonce'] as string;

/** The whole server, wired but not listening. */
export function createApp(settings: AppSettings): Express {
  const { dataSource, logger, webRoot } = settings;
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.locals['nonce'] = randomBytes(16).toString('base64');
    next();
  });
  app.use(
    helmet({
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
          baseUri: ["'self'"],
        },
      },
      referrerPolicy: { policy: 'no-referrer' },
    }),
  );
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
    response.json(openApiDocument());
  });
  app.use('/api', api(settings), (_request, _response, next) =>
    next(new HttpProblem(404, 'Not found', 'There is no such address in the interface; see /api/openapi.json.')),
  );
  if (webRoot) serveWeb(app, webRoot);
  app.use(problemHandler(logger));
  return app;

  function api({ sessionSecret, secureCookie = false, sessionMs = TWELVE_HOURS }: AppSettings) {
    const router = express.Router();
    router.use((_request, response, next) => {
      response.setHeader('Cache-Control', 'no-store');
      next();
    });
    // A norm set is a table of its own; nothing else is that large.
    router.use('/norm-sets', express.json({ limit: '2mb' }));
    router.use(express.json({ limit: '100kb' }));
    router.use(
      session({
        name: COOKIE_NAME,
        secret: sessionSecret,
        store: new DatabaseSessionStore(dataSource),
        resave: false,
        saveUninitialized: false,
        rolling: true,
        cookie: { httpOnly: true, sameSite: 'strict', secure: secureCookie, maxAge: sessionMs },
      }),
    );
    router.use(sessionRouter(dataSource));
    router.use(clinicRouter(dataSource));
    router.use(signingRouter(dataSource));
    router.use(judgingRouter(dataSource));
    router.use(followingRouter(dataSource));
    router.use(preparingRouter(dataSource));
    return router;
  }
}

/** The built interface: hashed files for a year, and the page itself with a fresh nonce at every other address. */
function serveWeb(app: Express, webRoot: string): void {
  const indexFile = join(webRoot, 'index.html');
  if (!existsSync(indexFile)) throw new Error(`${indexFile} is missing: build the interface first (npm run build)`);
  const page = readFileSync(indexFile, 'utf8');
  // Files only: answers of the API carry records, and are small.
  app.use(compression());
  app.use(express.static(webRoot, { index: false, maxAge: '1y', immutable: true }));
  // Anything with an ending was meant to be a file, and is not there.
  app.get(/^\/(?!api\/)[^.]*$/, (_request, response) => {
    response.setHeader('Cache-Control', 'no-store');
    response.type('html').send(page.replaceAll('CSP_NONCE', nonceOf(response)));
  });
}
