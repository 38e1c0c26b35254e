import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { buildAll } from './lib/build.mjs';
import { countsFor } from './lib/counts.mjs';
import { needDebian, needNode, needPackages } from './lib/need.mjs';
import { DATA, inRoot } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main, say, Stop } from './lib/say.mjs';

const jasmine = (cwd) => ({
  command: process.execPath,
  args: ['--import', 'tsx', inRoot('node_modules/jasmine/bin/jasmine.js'), '--config=jasmine.json'],
  cwd,
});

/** One after another; a stage is one or more runs, side by side where it says so. Runs without a counter of their own count as one check each. */
const STAGES = {
  lint: {
    together: true,
    runs: [
      { command: 'npm', args: ['run', '--silent', 'types'], single: true },
      { command: 'npx', args: ['eslint', '.', '--max-warnings=0'], single: true },
      { command: 'npx', args: ['prettier', '--check', '--log-level=warn', '.'], single: true },
      { command: 'npm', args: ['run', '--silent', 'layers'], single: true },
      { command: 'npx', args: ['knip'], single: true },
    ],
  },
  core: { runs: [jasmine('core'), jasmine('contract'), jasmine('files'), jasmine('cli')] },
  server: { needs: ['mariadb-server', 'redis-tools'], runs: [jasmine('server')] },
  web: { needs: ['chromium'], runs: [{ command: 'npx', args: ['ng', 'test', '--watch=false', '--no-progress'], cwd: 'web' }] },
  e2e: { needs: ['mariadb-server', 'chromium'], build: true, runs: [{ command: 'npx', args: ['playwright', 'test'], cwd: 'e2e' }] },
};

const total = { passed: 0, failed: 0, failures: [] };

/** One run of a stage, counted. */
async function runOne(name, index, { command, args, cwd = '', single }) {
  const title = `${name}: ${single ? args.filter((arg) => !arg.startsWith('-')).join(' ') : cwd || name}`;
  say(`\n── ${title} ──`);
  const begun = Date.now();
  const counts = countsFor(join(DATA, 'counts', `${name}-${index}.json`));
  const { code } = await run(command, args, { cwd: inRoot(cwd), env: { ...counts.env, NG_CLI_ANALYTICS: 'false' } });
  const {
    passed,
    failed,
    failures = [],
  } = single ? { passed: code === 0 ? 1 : 0, failed: code === 0 ? 0 : 1 } : (counts.read() ?? { passed: 0, failed: 1 });
  total.passed += passed;
  // A runner that ended badly without a failed test, or without any test at all, has failed.
  const failedHere = failed || (code !== 0 || passed === 0 ? 1 : 0);
  total.failed += failedHere;
  if (failedHere > 0) total.failures.push(...(failures.length > 0 ? failures : ['ended badly']).map((line) => `${title}: ${line}`));
  say(`── ${title}: ${Math.round((Date.now() - begun) / 1000)} s ──`);
}

await main(async () => {
  const wanted = process.argv.slice(2);
  const unknown = wanted.find((name) => !(name in STAGES));
  if (unknown) throw new Stop(`There is no stage "${unknown}"; allowed: ${Object.keys(STAGES).join(', ')}`);
  const stages = wanted.length ? wanted : Object.keys(STAGES);
  needNode();
  await needDebian(...new Set(stages.flatMap((name) => STAGES[name].needs ?? [])));
  await needPackages();
  mkdirSync(join(DATA, 'counts'), { recursive: true });

  for (const name of stages) {
    const { build, runs, together } = STAGES[name];
    if (build) await buildAll();
    const left = [...runs.entries()];
    const lane = async () => {
      for (let next = left.shift(); next; next = left.shift()) await runOne(name, ...next);
    };
    await Promise.all(Array.from({ length: together ? 2 : 1 }, lane));
  }
  // At the end, where whoever reads a long log begins.
  if (total.failures.length > 0) say(['', 'Failed:', ...total.failures.map((line) => `  ${line}`)].join('\n'));
  say(`\n${total.passed} passed, ${total.failed} failed`);
  if (total.failed > 0) process.exitCode = 1;
});
