import { randomUUID } from 'node:crypto';
import type { RequestHandler } from 'express';
import type { Logger } from 'pino';

declare module 'express-serve-static-core' {
  interface Request {
    /** Names the request in the log. */
    id: string;
    log: Logger;
  }
}

/** One line a request, of identifiers only: no names, no bodies, no cookies reach the log. */
export function requestLog(logger: Logger): RequestHandler {
  return (request, response, next) => {
    request.id = randomUUID();
    request.log = logger;
    if (logger.isLevelEnabled('info')) {
      const { id, method, originalUrl } = request;
      const begun = performance.now();
      response.once('close', () => {
        const line = {
          id,
          method,
          path: originalUrl.split('?')[0],
          status: response.statusCode,
          ms: Math.round(performance.now() - begun),
        };
        if (response.writableFinished) logger[level(line)](line, 'answered');
        else logger.warn(line, 'cut off');
      });
    }
    next();
  };
}

/** What whoever watches asks every second is only worth a line where the answer is a bad one. */
const WATCHED: readonly (string | undefined)[] = ['/healthz', '/readyz', '/metrics'];
const level = ({ path, status }: { path: string | undefined; status: number }) =>
  WATCHED.includes(path) && status < 400 ? 'debug' : 'info';
