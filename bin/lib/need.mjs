import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { inRoot } from './paths.mjs';
import { run, which } from './run.mjs';
import { during, lastLines, Stop } from './say.mjs';

const OLDEST_NODE = [20, 19];

export function needNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor < OLDEST_NODE[1])) {
    throw new Stop(
      `Node ${process.versions.node} is too old. Install Node ${OLDEST_NODE.join('.')} or newer (see .nvmrc) and run the command again.`,
    );
  }
}

/** Debian packages by the program that shows they are there. */
const PROGRAMS = {
  'mariadb-server': ['mariadbd', 'mariadb-install-db', 'mariadb-admin'],
  chromium: ['chromium'],
  'redis-tools': ['redis-check-rdb', 'redis-cli'],
};

/** Installs Debian packages whose programs are missing. */
export async function needDebian(...packages) {
  const missing = packages.filter((name) => !PROGRAMS[name].every(which));
  if (missing.length === 0) return;
  const list = missing.join(' ');
  if (!which('apt-get')) {
    throw new Stop(
      `${list} is missing, and so is apt-get. Dial Gauge sets itself up on Debian; elsewhere install ${list} by hand, so that ${missing.flatMap((m) => PROGRAMS[m]).join(', ')} can be found, and run the command again.`,
    );
  }
  const root = process.getuid?.() === 0;
  if (!root && (!which('sudo') || (await run('sudo', ['-n', 'true'], { quiet: true })).code !== 0)) {
    throw new Stop(`${list} is missing. Install it with\n  sudo apt-get install ${list}\nand run the command again.`);
  }
  const apt = async (...args) => {
    const env = ['env', 'DEBIAN_FRONTEND=noninteractive'];
    const [command, ...rest] = root ? [...env, 'apt-get', ...args] : ['sudo', '-n', ...env, 'apt-get', ...args];
    const { code, output } = await run(command, rest, { quiet: true });
    if (code !== 0)
      throw new Stop(`Debian's ${list} could not be installed:\n${lastLines(output)}\nCorrect that and run the command again.`);
  };
  await during(`Installing Debian's ${list}`, async () => {
    await apt('update', '-q');
    await apt('install', '-y', '-q', '--no-install-recommends', ...missing);
  });
}

/** Installs the npm packages of the lock file when they are not there, or not these. */
export async function needPackages() {
  const stamp = inRoot('node_modules', '.dial-gauge-lock');
  const wanted = digestOf([inRoot('package-lock.json')]);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  // Told to be silent itself, npm would say nothing of what is wrong here.
  const { code, output } = await during('Installing npm packages', () =>
    run('npm', ['ci', '--include=dev', '--no-audit', '--no-fund', '--loglevel=error'], { quiet: true }),
  );
  if (code !== 0) throw new Stop(`The npm packages could not be installed:\n${lastLines(output)}\nCorrect that and run the command again.`);
  writeFileSync(stamp, wanted);
}

/** Runs a build unless what it is made from is unchanged since it last ended well. */
export async function needBuild(name, sources, output, build) {
  const stamp = join(dirname(output), `.made-from-${name}`);
  const wanted = digestOf(sources.map((source) => inRoot(source)));
  if (existsSync(output) && existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  rmSync(stamp, { force: true });
  const { code, output: text } = await during(`Building the ${name}`, build);
  if (code !== 0) throw new Stop(`The ${name} could not be built:\n${text}`);
  writeFileSync(stamp, wanted);
}

/** One digest over files and whole folders, by path and content. */
function digestOf(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const entry of readdirSync(path).sort()) if (entry !== 'node_modules' && entry !== 'dist') add(join(path, entry));
    } else hash.update(path).update(readFileSync(path));
  };
  paths.forEach(add);
  return hash.digest('hex');
}
