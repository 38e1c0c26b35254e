import { readFileSync, rmSync, writeFileSync } from 'node:fs';

/** Where a stage of the test command leaves its numbers; set by the test command, absent when a runner is started by hand. */
const FILE_VARIABLE = 'DIAL_GAUGE_COUNTS';

export function writeCount({ passed, failed }) {
  const file = process.env[FILE_VARIABLE];
  if (file) writeFileSync(file, JSON.stringify({ passed, failed }));
}

/** Environment for a stage, and a way to read its numbers afterwards. */
export function countsFor(file) {
  rmSync(file, { force: true });
  return {
    env: { [FILE_VARIABLE]: file },
    read: () => {
      try {
        return JSON.parse(readFileSync(file, 'utf8'));
      } catch {
        return undefined;
      }
    },
  };
}
