import { packFiles } from './pack.mjs';
import { inRoot } from './paths.mjs';
import { run } from './run.mjs';
import { needBuild } from './need.mjs';

const SHARED = ['core/src', 'contract/src', 'tsconfig.base.json', 'package-lock.json'];

/** Builds one of the pages, and packs its files once, as tightly as can be, so that no request has to. */
export async function ngBuild(project) {
  const args = ['ng', 'build', project, '--progress=false'];
  const done = await run('npx', args, { cwd: inRoot('web'), quiet: true, env: { NG_CLI_ANALYTICS: 'false' } });
  if (done.code === 0) await packFiles(inRoot('web/dist', project, 'browser'));
  return done;
}

const buildWeb = () =>
  needBuild(
    'interface',
    [...SHARED, 'web/src', 'web/public', 'web/angular.json', 'web/ngsw-config.json', 'web/tsconfig.json', 'web/tsconfig.app.json'],
    inRoot('web/dist/web/browser/index.html'),
    () => ngBuild('web'),
  );

const buildServer = () =>
  needBuild('server', [...SHARED, 'files/src', 'server/src', 'server/tsconfig.json'], inRoot('server/dist/main.js'), () =>
    run(
      'npx',
      [
        'esbuild',
        'src/main.ts',
        // What the threads run: a file of its own.
        'src/worker.ts',
        'src/check-audit.ts',
        'src/migrate.ts',
        'src/lead-link.ts',
        '--bundle',
        '--platform=node',
        '--target=node20',
        '--format=esm',
        '--packages=external',
        '--alias:@dial-gauge/core/names=../core/src/names.ts',
        '--alias:@dial-gauge/core/terms=../core/src/terms.ts',
        '--alias:@dial-gauge/core=../core/src/index.ts',
        '--alias:@dial-gauge/contract=../contract/src/index.ts',
        '--alias:@dial-gauge/files=../files/src/index.ts',
        '--sourcemap',
        '--outdir=dist',
        '--log-level=warning',
      ],
      { cwd: inRoot('server'), quiet: true },
    ),
  );

/** Builds what has changed since the last time. */
export async function buildAll() {
  await buildServer();
  await buildWeb();
}
