import { spawn, spawnSync } from 'node:child_process';
import { ROOT } from './paths.mjs';

/** Runs a program to its end, its output passed through unless `quiet`. Resolves with the exit code. */
export function run(command, args, { cwd = ROOT, env = {}, quiet = false } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd,
      env: { ...process.env, ...env },
      stdio: ['ignore', quiet ? 'pipe' : 'inherit', quiet ? 'pipe' : 'inherit'],
    });
    let output = '';
    child.stdout?.on('data', (chunk) => (output += chunk));
    child.stderr?.on('data', (chunk) => (output += chunk));
    child.on('error', reject);
    child.on('close', (code, signal) => resolve({ code: code ?? (signal ? 1 : 0), output }));
  });
}

/** The full path of a program, also looked for where servers live; undefined when it is not installed. */
export function which(program) {
  const found = spawnSync('sh', ['-c', `PATH="$PATH:/usr/sbin:/sbin" command -v ${program}`], { encoding: 'utf8' });
  return found.status === 0 ? found.stdout.trim() : undefined;
}
