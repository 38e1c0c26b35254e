/**
 * How strong the tests of the core and of the contract are: the code is changed
 * in small ways, one at a time, and the tests are run that reach the place. A
 * change that none of them notices survived, and is printed with its place.
 *
 *   npm run mutants                                 all of it; takes hours
 *   npm run mutants -- error norms                  these folders of core/src; `contract` is the package of that name
 *   npm run mutants -- --lines 150 --seed 7         so many lines of code, drawn at random
 *   npm run mutants -- --at-once 1                  so many at the same time; otherwise as many as the machine has cores
 */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus } from 'node:os';
import { parseArgs } from 'node:util';
import { needNode, needPackages } from './lib/need.mjs';
import { inRoot } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { main, say, Stop } from './lib/say.mjs';

const FOLDERS = [
  'angle',
  'error',
  'exchange',
  'finding',
  'norms',
  'plan',
  'precaution',
  'program',
  'progress',
  'queue',
  'reading',
  'reason',
  'report',
  'screen',
];
const CONTRACT = 'contract';
const ALLOWED = [...FOLDERS, CONTRACT];

/** Numbers from 0 to 1 that are the same for the same seed. */
function drawn(seed) {
  let state = Number(seed) >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Lines with code on them, in a random order. */
function codeLines(files, random) {
  const lines = files.flatMap((file) =>
    readFileSync(inRoot(file), 'utf8')
      .split('\n')
      .flatMap((text, at) =>
        /^\s*(\/?\*|\/\/|import |export \{|readonly |[{}()[\];,]*$)/.test(text) ? [] : [{ file, line: at + 1, text }],
      ),
  );
  for (let at = lines.length - 1; at > 0; at -= 1) {
    const other = Math.floor(random() * (at + 1));
    [lines[at], lines[other]] = [lines[other], lines[at]];
  }
  return lines;
}

await main(async () => {
  needNode();
  await needPackages();
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      lines: { type: 'string' },
      seed: { type: 'string', default: '1' },
      'at-once': { type: 'string', default: `${cpus().length}` },
    },
  });
  const unknown = positionals.find((folder) => !ALLOWED.includes(folder));
  const odd = [values.lines, values['at-once']].find((count) => count !== undefined && !(Number(count) > 0));
  if (unknown !== undefined || odd !== undefined) {
    throw new Stop(`${unknown ?? odd} is not known; allowed: ${ALLOWED.join(', ')}, --lines N, --seed N, --at-once N`);
  }
  const folders = positionals.length > 0 ? positionals : FOLDERS;
  const isContract = folders.includes(CONTRACT);
  if (isContract && folders.length > 1) throw new Stop(`${CONTRACT} has tests of its own; allowed: by itself`);
  const files = folders.flatMap((folder) => {
    const at = folder === CONTRACT ? 'contract/src' : `core/src/${folder}`;
    return readdirSync(inRoot(at), { recursive: true })
      .filter((name) => name.endsWith('.ts') && !name.endsWith('.spec.ts') && name !== 'index.ts')
      .map((name) => `${at}/${name}`);
  });

  const sample = values.lines && codeLines(files, drawn(values.seed)).slice(0, Number(values.lines));
  const config = {
    testRunner: 'jasmine',
    jasmineConfigFile: `${isContract ? 'contract' : 'core'}/jasmine.mutants.json`,
    // Made into plain modules once: every mutant starts a process, and that is most of what it takes.
    buildCommand: `node bin/lib/plain-modules.mjs${isContract ? ` ${CONTRACT}` : ''}`,
    concurrency: Number(values['at-once']),
    coverageAnalysis: 'perTest',
    mutate: sample ? sample.map(({ file, line, text }) => `${file}:${line}:0-${line}:${text.length}`) : files,
    ignorePatterns: ['.data', '.ci', 'docs/*', '!docs/formats', 'e2e', 'web', 'server', 'bench'],
    reporters: ['clear-text', 'json'],
    clearTextReporter: { logTests: false, allowColor: false },
    jsonReporter: { fileName: '.data/mutants.json' },
    tempDirName: '.data/mutants',
    // A process for each: what one has worked out and kept would answer for the next.
    maxTestRunnerReuse: 1,
    timeoutMS: 20_000,
    // What is worked out once, while modules load, is data: all tests would run for each figure. Golden texts and second entries hold it.
    ignoreStatic: true,
  };
  mkdirSync(inRoot('.data'), { recursive: true });
  writeFileSync(inRoot('.data/mutants.config.json'), JSON.stringify(config, null, 2));
  if (sample) say(`${sample.length} lines, seed ${values.seed}`);
  const { code } = await run('npx', ['stryker', 'run', '.data/mutants.config.json']);
  if (code !== 0) throw new Stop('The mutants could not be run.');
});
