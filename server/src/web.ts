import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { extname, join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler, type Response } from 'express';

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
  const page = withDemo(withoutBase(readFileSync(indexFile, 'utf8')), demo);
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
    response.type('html').send(shown.replaceAll('CSP_NONCE', nonceOf(response)));
  };
  app.use(packed(webRoot));
  // Files only: answers of the API carry records, and are small.
  app.use(compression());
  // The page under its own name is the same page, never the file with its place-holder.
  app.get('/index.html', sendPage);
  app.use(express.static(webRoot, { index: false, maxAge: '1y', immutable: true }));
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
    response.sendFile(name, { root: webRoot, maxAge: '1y', immutable: true });
  };
}

/** The page's own addresses from the root, and no base of its own: then nobody can plant one either. */
function withoutBase(page: string): string {
  return page
    .replace(/<base\b[^>]*>/i, '')
    .replace(/\b(src|href)="(?![a-z]+:|\/|#)([^"]+)"/gi, (_, name: string, address: string) => `${name}="/${address}"`);
}
