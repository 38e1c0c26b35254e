import { createHash } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';

/** Lines as they were recorded; whoever writes them again looks through what has changed. `WRITE=1` before the test command writes the file again. */
export function lookedOver(file: URL, lines: readonly string[]): readonly string[] {
  if (process.env['WRITE']) writeFileSync(file, lines.join('\n') + '\n');
  return readFileSync(file, 'utf8').trimEnd().split('\n');
}

/** Short enough for a line, long enough that two differ. */
export const shortHash = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 10);
