import type { IncomingMessage, ServerResponse } from 'node:http';
import type { RequestHandler, Response } from 'express';
import helmet from 'helmet';

export const nonceOf = (response: Response): string => response.locals['nonce'] as string;

const referrerPolicy = { policy: 'no-referrer' } as const;

/** What a page may do: everything from here, styles with the nonce of this answer. */
export const pageHeaders = helmet({
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
export const apiHeaders = alwaysThese(
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
