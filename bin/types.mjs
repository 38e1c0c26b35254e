import { availableParallelism } from 'node:os';
import { run } from './lib/run.mjs';

/** Every part against its own strict configuration, the largest first. Angular's templates are checked by its own compiler. */
const CHECKS = [
  ['ngc', 'web/tsconfig.spec.json'],
  ['ngc', 'web/tsconfig.app.json'],
  ['tsc', 'server/tsconfig.json'],
  ['tsc', 'e2e/tsconfig.json'],
  ['tsc', 'core/tsconfig.spec.json'],
  ['tsc', 'core/tsconfig.json'],
  ['tsc', 'contract/tsconfig.spec.json'],
  ['tsc', 'contract/tsconfig.json'],
  ['tsc', 'files/tsconfig.json'],
  ['tsc', 'cli/tsconfig.json'],
  ['tsc', 'bench/tsconfig.json'],
];

let failed = 0;
const left = [...CHECKS];
const worker = async () => {
  for (let next = left.shift(); next; next = left.shift()) {
    const [compiler, project] = next;
    if ((await run('npx', [compiler, '--noEmit', '-p', project])).code !== 0) failed += 1;
  }
};
await Promise.all(Array.from({ length: Math.min(2, availableParallelism()) }, worker));
process.exitCode = failed ? 1 : 0;
