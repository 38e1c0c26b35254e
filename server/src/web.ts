import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler, type Response } from 'express';

/** The built interface: hashed files for a year, and the page itself with a fresh nonce at every other address. */
export function serveWeb(app: Express, webRoot: string, nonceOf: (response: Response) => string): void {
  const indexFile = join(webRoot, 'index.html');
  if (!existsSync(indexFile)) throw new Error(`${indexFile} is missing: build the interface first (npm run build)`);
  const page = withoutBase(readFileSync(indexFile, 'utf8'));
  const sendPage: RequestHandler = (_request, response) => {
    response.setHeader('Cache-Control', 'no-store');
    response.type('html').send(page.replaceAll('CSP_NONCE', nonceOf(response)));
  };
  // Files only: answers of the API carry records, and are small.
  app.use(compression());
  // The page under its own name is the same page, never the file with its place-holder.
  app.get('/index.html', sendPage);
  app.use(express.static(webRoot, { index: false, maxAge: '1y', immutable: true }));
  // Anything with an ending was meant to be a file, and is not there.
  app.get(/^\/(?!api\/)[^.]*$/, sendPage);
}

/** The page's own addresses from the root, and no base of its own: then nobody can plant one either. */
function withoutBase(page: string): string {
  return page
    .replace(/<base\b[^>]*>/i, '')
    .replace(/\b(src|href)="(?![a-z]+:|\/|#)([^"]+)"/gi, (_, name: string, address: string) => `${name}="/${address}"`);
}
