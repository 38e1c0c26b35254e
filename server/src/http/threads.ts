import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import type { Strength } from '../records/identity/strength.js';
import type { Caller } from '../shared/caller.js';
import type { DatabaseSettings } from '../database/database.js';
import { FairQueue, type Turn } from '../shared/fair-queue.js';
import { HttpProblem, tookTooLong } from '../shared/problems.js';
import type { Call, Endpoint } from './endpoint.js';
import { codeOf, errnoOf } from '../database/unit-of-work.js';

/** What a thread is asked to do: names and data only. */
export interface Task {
  readonly method: string;
  readonly path: string;
  readonly caller: Caller;
  readonly call: Call;
}

/** An answer, made into text. */
interface Answered {
  readonly status: 200 | 202;
  readonly json: Uint8Array;
  readonly marksEpisode: boolean;
}

/** What a thread answers. A problem is data: its class does not cross threads. */
export type Outcome =
  | Answered
  | {
      readonly problem: Pick<HttpProblem, 'status' | 'title' | 'detail' | 'errors' | 'retryAfter' | 'kind'>;
    }
  | { readonly fault: Pick<Error, 'name' | 'message'> & { readonly code?: string; readonly errno?: number; readonly stack: string } };

/** At least two, so that a long record does not keep the short ones waiting. */
const THREADS = Math.max(2, Math.min(4, availableParallelism() - 1));

/** A job that takes longer is ended, and its thread with it. */
const LONGEST_JOB = 30_000;
const LONGEST_WARMING = 60_000;

/** Threads with connections of their own, for what takes longer than others should wait: judging and progress. */
export class Threads {
  private readonly pool: Piscina<Task, Outcome>;
  private readonly queue = new FairQueue(THREADS);

  /** @param ended hears of a thread that ended by a fault; another one takes its place */
  constructor(
    database: DatabaseSettings,
    ended: (error: unknown) => void = () => {},
    filename: string = new URL('./worker.js', import.meta.url).href,
  ) {
    this.pool = new Piscina<Task, Outcome>({
      filename,
      // All of them from the start: a thread that begins while somebody waits takes seconds.
      minThreads: THREADS,
      maxThreads: THREADS,
      concurrentTasksPerWorker: 1,
      // A thread that sleeps between tasks would not notice that its connection was closed meanwhile.
      atomics: 'disabled',
      // Room for a long record, so that it is not moved about while it is read.
      resourceLimits: { maxYoungGenerationSizeMb: 64 },
      workerData: { ...database, connections: 1 },
    });
    this.pool.on('error', ended);
  }

  /** Resolves once every thread has its program loaded and is connected: nobody waits for that later. */
  async warm(): Promise<void> {
    const together = new Int32Array(new SharedArrayBuffer(4));
    const signal = AbortSignal.timeout(LONGEST_WARMING);
    await Promise.all(
      Array.from({ length: THREADS }, () => this.pool.run({ together, of: THREADS } as unknown as Task, { name: 'warmUp', signal })),
    );
  }

  async perform({ route }: Endpoint, caller: Caller, call: Call, from: string): Promise<Answered> {
    const turn: Turn = caller.userId ? { kind: 'person', who: caller.userId } : { kind: 'guest', who: from };
    const outcome = await this.job(turn, { method: route.method, path: route.path, caller, call });
    if ('json' in outcome) return outcome;
    if ('problem' in outcome) {
      const { status, title, detail, ...extras } = outcome.problem;
      throw new HttpProblem(status, title, detail, extras);
    }
    throw Object.assign(new Error(outcome.fault.message), outcome.fault);
  }

  /** How hard a password is to guess takes longer than others should wait. */
  judgePassword(password: string, words: readonly string[], from: string): Promise<Strength> {
    return this.named('judgePassword', { kind: 'guest', who: from }, { password, words });
  }

  /** Where an episode stands in the queue. */
  refreshQueueStatus(clinicId: string, episodeId: string): Promise<void> {
    return this.named('refreshQueueStatus', { kind: 'background', who: 'queue' }, { clinicId, episodeId });
  }

  /** A task of its own name, as worker.ts has it, beside those of routes. */
  private named<T>(name: string, turn: Turn, data: object): Promise<T> {
    return this.job(turn, data as Task, name) as Promise<unknown> as Promise<T>;
  }

  private job(turn: Turn, task: Task, name?: string): Promise<Outcome> {
    return this.queue.run(turn, async () => {
      const signal = AbortSignal.timeout(LONGEST_JOB);
      try {
        return await this.pool.run(task, { signal, ...(name ? { name } : {}) });
      } catch (error) {
        throw signal.aborted ? tookTooLong() : error;
      }
    });
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}

export function toOutcome(error: unknown): Outcome {
  if (error instanceof HttpProblem) {
    const { status, title, detail, errors, retryAfter, kind } = error;
    return { problem: { status, title, detail, errors, retryAfter, kind } };
  }
  const { name, message, stack = '' } = error as Error;
  return { fault: { name, code: codeOf(error), errno: errnoOf(error), message, stack } };
}
