import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

/** What a file of secrets holds; made where there is none, whole or not at all, and for nobody else to read. */
export function madeOnce(file, make) {
  if (!existsSync(file)) {
    mkdirSync(dirname(file), { recursive: true, mode: 0o700 });
    writeFileSync(`${file}.part`, make(), { mode: 0o600 });
    renameSync(`${file}.part`, file);
  }
  return readFileSync(file, 'utf8');
}
