/**
 * Makes plain modules of the core, beside its sources, and of the contract when it is named:
 * `node bin/lib/plain-modules.mjs [contract]`. The mutants load them.
 */
import { execFileSync } from 'node:child_process';
import { readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { inRoot } from './paths.mjs';

const modulesOf = (folder, pattern) =>
  execFileSync('npx', ['esbuild', pattern, `--outdir=${folder}`, '--format=esm', '--platform=node', '--log-level=warning'], {
    cwd: inRoot('.'),
    stdio: 'inherit',
  });

modulesOf('core/src', 'core/src/**/*.ts');
if (process.argv.includes('contract')) {
  modulesOf('contract/src', 'contract/src/*.ts');
  for (const name of readdirSync(inRoot('contract/src')).filter((one) => one.endsWith('.js'))) {
    const file = inRoot(`contract/src/${name}`);
    // The core that was made beside them, not the one of the packages.
    const text = readFileSync(file, 'utf8')
      .replace(/"@dial-gauge\/core\/(names|terms)"/g, '"../../core/src/$1.js"')
      .replaceAll('"@dial-gauge/core"', '"../../core/src/index.js"');
    writeFileSync(file, text);
  }
}
