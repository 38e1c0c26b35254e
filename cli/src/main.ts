import { readFileSync } from 'node:fs';
import { run } from './run.js';

const outcome = run(process.argv.slice(2), (file) => readFileSync(file === '-' ? 0 : file, 'utf8'));
if (outcome.exitCode === 0) process.stdout.write(outcome.output.endsWith('\n') ? outcome.output : `${outcome.output}\n`);
else process.stderr.write(`${outcome.problems.join('\n')}\n`);
process.exitCode = outcome.exitCode;
