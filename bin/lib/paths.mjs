import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = fileURLToPath(new URL('../..', import.meta.url)).replace(/\/$/, '');
export const inRoot = (...parts) => join(ROOT, ...parts);

/** Everything the two commands make lives here and may be deleted. */
export const DATA = process.env.DIAL_GAUGE_DATA ?? inRoot('.data');

/** Sockets want a short path; one folder per data folder, so two checkouts never meet. */
export const socketFolder = (dataFolder) =>
  join(tmpdir(), `dial-gauge-${createHash('sha256').update(dataFolder).digest('hex').slice(0, 12)}`);
