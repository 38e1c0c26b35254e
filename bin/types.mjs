import { run } from './lib/run.mjs';

/** Every part against its own strict configuration. Angular's templates are checked by its own compiler. */
const PROJECTS = [
  'core/tsconfig.json',
  'core/tsconfig.spec.json',
  'contract/tsconfig.json',
  'contract/tsconfig.spec.json',
  'files/tsconfig.json',
  'cli/tsconfig.json',
  'server/tsconfig.json',
  'e2e/tsconfig.json',
  'bench/tsconfig.json',
];

let failed = 0;
for (const project of PROJECTS) if ((await run('npx', ['tsc', '--noEmit', '-p', project])).code !== 0) failed += 1;
for (const project of ['tsconfig.app.json', 'tsconfig.spec.json'])
  if ((await run('npx', ['ngc', '--noEmit', '-p', `web/${project}`])).code !== 0) failed += 1;
process.exitCode = failed ? 1 : 0;
