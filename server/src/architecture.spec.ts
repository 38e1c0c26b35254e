import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');

describe('the documents', () => {
  for (const name of ['docs/architecture.md', 'docs/security.md', 'docs/operating.md', 'docs/running.md', 'CONTRIBUTING.md', 'README.md'])
    it(`of ${name} name files that are there`, () => {
      const text = readFileSync(join(ROOT, name), 'utf8');
      // As it is written from the root of the repository, from a package, or from the source folder of one.
      const roots = ['', 'server/src', 'core/src', 'web/src/app', 'contract/src', 'web', 'server', 'docs', 'files/src', 'e2e', 'web/src'];
      const named = [...text.matchAll(/`((?:[\w.-]+\/)+[\w.-]+\.(?:ts|mjs|cjs|html|js))`/g)]
        .map(([, path]) => path!)
        .filter((path) => !/NNNN|dist\//.test(path));
      expect(named.length).toBeGreaterThanOrEqual(name === 'docs/architecture.md' ? 10 : 0);
      for (const path of named)
        expect(roots.some((root) => existsSync(join(ROOT, root, path))))
          .withContext(path)
          .toBeTrue();
    });
});
