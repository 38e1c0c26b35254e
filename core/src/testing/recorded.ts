import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';

/** The lines that a file holds. `WRITE=1` before the test command replaces them: read the difference before you commit it. */
export function recordedLines(file: URL, lines: readonly string[]): readonly string[] {
  if (process.env['WRITE']) writeFileSync(file, lines.join('\n') + '\n');
  return readFileSync(file, 'utf8').trimEnd().split('\n');
}

/** SHA-256 in hex. */
export const hashOf = (text: string): string => createHash('sha256').update(text).digest('hex');
