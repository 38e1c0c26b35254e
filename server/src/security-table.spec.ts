import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');
const DOCS = join(ROOT, 'docs');
const NOT_OURS = new Set(['node_modules', 'dist']);

/** Where tests and describes begin in a file of tests: their words. */
const TITLE = /^\s*(?:it|describe|test|test\.describe)\(\s*(['"`])(.*?)\1/gm;

function* specs(folder: string): Generator<string> {
  for (const name of readdirSync(folder)) {
    if (NOT_OURS.has(name) || name.startsWith('.')) continue;
    const path = join(folder, name);
    if (statSync(path).isDirectory()) yield* specs(path);
    else if (name.endsWith('.spec.ts')) yield path;
  }
}

describe('the table of security', () => {
  const text = readFileSync(join(DOCS, 'security.md'), 'utf8');
  const rows = [...text.matchAll(/^\| (\d+\.\d+\.\d+[^|]*)\|([^|]*)\|([^|]*)\|(.*)\|$/gm)].map(([, number, asks, held, why]) => ({
    number: number!.trim(),
    asks: asks!.trim(),
    held: held!.trim(),
    why: why!.trim(),
  }));
  const titles = new Map<string, string[]>();
  for (const path of specs(ROOT)) {
    const name = basename(path);
    const found = [...readFileSync(path, 'utf8').matchAll(TITLE)].map(([, , words]) => words!);
    titles.set(name, [...(titles.get(name) ?? []), ...found]);
  }

  it('has a row a requirement, in order, of every chapter, each with a test, a document or a reason', () => {
    const first = rows.map(({ number }) => number.split(/[–,]/)[0]!.split('.').map(Number));
    expect(rows.length).toBeGreaterThan(150);
    for (let n = 1; n < first.length; n += 1) {
      const [before, now] = [first[n - 1]!, first[n]!];
      const rises = now[0]! - before[0]! || now[1]! - before[1]! || now[2]! - before[2]!;
      expect(rises).withContext(rows[n]!.number).toBeGreaterThan(0);
    }
    expect([...new Set(first.map(([chapter]) => chapter))]).toEqual(Array.from({ length: 17 }, (_, n) => n + 1));
    for (const { number, why, held } of rows) {
      expect(why)
        .withContext(number)
        .toMatch(/^(`[\w-]+\.spec\.ts` “|document|reason: .|not there: .|\*\*open\*\*: .)/);
      if (!why.startsWith('not there')) expect(held).withContext(number).not.toBe('');
    }
  });

  it('names tests that are there, and documents that are', () => {
    let named = 0;
    for (const { number, why, held } of rows) {
      for (const [, file, words] of why.matchAll(/`([\w-]+\.spec\.ts)` “([^”]+)”/g)) {
        named += 1;
        expect(titles.get(file!)?.some((title) => title.includes(words!)))
          .withContext(`${number}: ${file} “${words}”`)
          .toBeTrue();
      }
      for (const [, address] of `${held} ${why}`.matchAll(/\]\(([^)#]+)[^)]*\)/g))
        expect(existsSync(join(DOCS, address!)))
          .withContext(`${number}: ${address}`)
          .toBeTrue();
    }
    expect(named).toBeGreaterThan(80);
  });
});
