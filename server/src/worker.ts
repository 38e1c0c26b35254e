import { setTimeout as wait } from 'node:timers/promises';
import { workerData } from 'node:worker_threads';
import { move, transferableSymbol, valueSymbol } from 'piscina';
import { judgePassword as judged, type Strength } from './records/identity/strength.js';
import { NOBODY } from './shared/caller.js';
import { connect, createDataSource, type Database, type DatabaseSettings } from './database/database.js';
import { openDatabase } from './records/open-database.js';
import { executeEndpoint } from './http/execute-endpoint.js';
import type { Endpoint } from './http/endpoint.js';
import { toOutcome, type Outcome, type Task } from './http/threads.js';
import { refreshQueueStatus as refresh } from './use-cases/queue/refresh-queue-status.js';
import { ENTITIES, RESOURCES } from './http/endpoints/index.js';

const routes = new Map<string, Endpoint>(
  RESOURCES.flatMap((resource) => resource.routes).map(
    (endpoint) => [`${endpoint.route.method} ${endpoint.route.path}`, endpoint] as const,
  ),
);

/** Connected at the first task, and tried again at the next where that failed: the database may be away for a while. */
let database: Promise<Database> | undefined;
// Piscina hands its own data beside ours.
const settings = (Array.isArray(workerData) ? workerData[1] : workerData) as DatabaseSettings;

function connected(): Promise<Database> {
  database ??= connect(createDataSource(settings, ENTITIES)).then((dataSource) => openDatabase(dataSource));
  database.catch(() => (database = undefined));
  return database;
}

/** One task: the same unit of work as anywhere else, its answer made into text here, so that nobody waits for that either. */
export default async function run({ method, path, caller, call }: Task): Promise<Outcome> {
  try {
    const endpoint = routes.get(`${method} ${path}`);
    if (!endpoint) throw new Error(`no route ${method} ${path}`);
    const { status, answer, marksEpisode } = await executeEndpoint(await connected(), endpoint, caller, call);
    // Handed over, not copied: whoever else waits meanwhile should not wait for that.
    const json = new TextEncoder().encode(JSON.stringify(answer));
    return move({ [transferableSymbol]: [json.buffer], [valueSymbol]: { status, json, marksEpisode } }) as unknown as Outcome;
  } catch (error) {
    return toOutcome(error);
  }
}

/** A named task: a password, and the words that are too near to it. */
export function judgePassword({ password, words }: { readonly password: string; readonly words: readonly string[] }): Strength {
  return judged(password, words);
}

/** A named task: where an episode stands in the queue. */
export async function refreshQueueStatus({
  clinicId,
  episodeId,
}: {
  readonly clinicId: string;
  readonly episodeId: string;
}): Promise<void> {
  await (await connected()).connection({ ...NOBODY, clinicId }, (work) => refresh(work, episodeId));
}

/** A named task: the program is loaded by now, the connection comes, and all threads have met: each has had its turn. */
export async function warmUp({ together, of }: { readonly together: Int32Array; readonly of: number }): Promise<void> {
  await connected().catch(() => {});
  Atomics.add(together, 0, 1);
  while (Atomics.load(together, 0) < of) await wait(5);
}
