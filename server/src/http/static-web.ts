import { randomBytes } from 'node:crypto';
import { existsSync, readdirSync, readFileSync } from 'node:fs';
import type { ServerResponse } from 'node:http';
import { extname, join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler, type Response } from 'express';

/** Where the nonce of an answer stands in the built page. */
const PLACE = 'CSP_NONCE';

/** The page as a device keeps it, so that it opens without a network. */
const KEPT_PAGE = '/index.html';

/** A nonce of its own for every answer; the page that is kept is the same for everybody, and has the one that stands in it. */
export const nonceFor = (path: string): string => (path === KEPT_PAGE ? PLACE : randomBytes(16).toString('base64'));

/** Files whose name tells what is in them are kept for a year; others are asked for anew. */
function cacheFor(response: ServerResponse, file: string): void {
  response.setHeader('Cache-Control', HASHED.test(file) ? 'public, max-age=31536000, immutable' : 'no-cache');
}

const HASHED = /-[A-Z0-9]{8}\.\w+(\.br)?$/;

/** The built interface: hashed files for a year, and the page itself with a fresh nonce at every other address. */
export function serveWeb(
  app: Express,
  webRoot: string,
  nonceOf: (response: Response) => string,
  demo: DemoDoor | null,
  isFounded: () => Promise<boolean>,
): void {
  const indexFile = join(webRoot, 'index.html');
  if (!existsSync(indexFile)) throw new Error(`${indexFile} is missing: build the interface first (npm run build)`);
  const built = readFileSync(indexFile, 'utf8');
  const page = withDemo(built, demo);
  // Once there is a clinic there is one for good.
  let founded = false;
  const isEmpty = async (): Promise<boolean> => {
    if (founded) return false;
    // Where the database cannot be asked the page is sent all the same, and nothing is remembered.
    const there = await isFounded().catch(() => null);
    founded = there === true;
    return there === false;
  };
  const sendPage: RequestHandler = async (_request, response) => {
    const shown = (await isEmpty()) ? page.replace('</head>', '<meta name="dial-gauge-empty" content="yes" /></head>') : page;
    response.setHeader('Cache-Control', 'no-store');
    response.type('html').send(shown.replaceAll(PLACE, nonceOf(response)));
  };
  app.use(packed(webRoot));
  // Files only: answers of the API carry records, and are small.
  app.use(compression());
  // What a device keeps has to be the file to the letter, by which it is known: the place-holder is its nonce.
  app.get(KEPT_PAGE, (_request, response) => {
    response.setHeader('Cache-Control', 'no-cache');
    response.type('html').send(built);
  });
  app.use(express.static(webRoot, { index: false, cacheControl: false, setHeaders: (response, file) => cacheFor(response, file) }));
  // Anything with an ending was meant to be a file, and is not there.
  app.get(/^\/(?!api\/)[^.]*$/, sendPage);
}

/** What the door of the demo offers: who may sign in, and their password. */
export interface DemoDoor {
  readonly people: readonly { readonly name: string; readonly email: string; readonly role: string }[];
  readonly password: string;
}

/** The page says it itself: the door asks nothing of the server before somebody signs in. */
function withDemo(page: string, demo: DemoDoor | null): string {
  const content = JSON.stringify(demo).replace(/&/g, '&amp;').replace(/"/g, '&quot;').replace(/</g, '&lt;');
  return demo ? page.replace('</head>', `<meta name="dial-gauge-demo" content="${content}" /></head>`) : page;
}

const TYPES: Readonly<Record<string, string>> = { '.js': 'text/javascript', '.css': 'text/css', '.svg': 'image/svg+xml' };

/** Files that the build has packed already are sent as they lie there, to whoever can unpack them. */
function packed(webRoot: string): RequestHandler {
  const names = new Set(readdirSync(webRoot).filter((name) => name.endsWith('.br')));
  return (request, response, next) => {
    const name = `${request.path.slice(1)}.br`;
    if (!names.has(name) || !['GET', 'HEAD'].includes(request.method) || !request.acceptsEncodings('br')) return next();
    response.vary('Accept-Encoding');
    response.set({ 'Content-Encoding': 'br', 'Content-Type': `${TYPES[extname(request.path)]}; charset=utf-8` });
    cacheFor(response, name);
    response.sendFile(name, { root: webRoot, cacheControl: false });
  };
}
