import type { Logger } from 'pino';
import { NOBODY } from '../../shared/caller.js';
import type { Database } from '../../database/database.js';
import { dayOf } from '../../shared/days.js';
import { refreshQueueStatus } from './refresh-queue-status.js';

/** What was entered is gathered for so long before the queue is refreshed. */
const GATHER_MS = 1_000;
/** What changes with the day alone, or was missed because a server was killed, is looked for so often. */
const LOOK_MS = 30_000;
const BATCH = 50;
const MARKS = 500;
/** Where so many fail it is no fault of theirs: the next look tries again. */
const MOST_FAILED = 200;

/** Refreshes the queue status of an episode beside the requests. */
export interface QueueWorkers {
  refreshQueueStatus(clinicId: string, episodeId: string): Promise<void>;
}

interface Stale {
  readonly id: string;
  readonly clinic_id: string;
}

/** How stale episodes are found; those that failed a moment ago are left out. */
interface Looked {
  readonly sql: string;
  readonly values: (now: Date) => readonly unknown[];
}
const ENTERED: Looked = {
  sql: 'SELECT id, clinic_id FROM episode FORCE INDEX (episode_stale) WHERE stale > 0 AND ended_on IS NULL AND id NOT IN (?) LIMIT ?',
  values: () => [],
};
const BY_THE_DAY: Looked = {
  sql: 'SELECT id, clinic_id FROM episode FORCE INDEX (episode_stale_on) WHERE ended_on IS NULL AND stale_on <= ? AND id NOT IN (?) LIMIT ?',
  values: (now) => [dayOf(now)],
};

/**
 * Keeps the queue: refreshes the status of episodes that were entered into, one
 * after the other, beside the requests. All it needs is in the database, written
 * with the entry itself: several servers share the work, and nothing is missed
 * where one is killed.
 */
export class QueueRefresher {
  private gathering: NodeJS.Timeout | undefined;
  private looking: NodeJS.Timeout | undefined;
  private sweeping: Promise<void> = Promise.resolve();
  private closed = false;

  constructor(
    private readonly database: Database,
    /** Where it is worked out, beside the requests; here, where it is left out. */
    private readonly threads: QueueWorkers | undefined,
    private readonly logger: Logger,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  /** Looks by itself from now on. */
  start(): void {
    this.looking = setInterval(() => void this.sweep(), LOOK_MS);
    this.looking.unref();
    void this.sweep();
  }

  /** An episode was entered into: it is refreshed in a moment. Nothing depends on it: the mark is in the database. */
  refreshSoon(): void {
    if (this.gathering || this.closed) return;
    this.gathering = setTimeout(() => {
      this.gathering = undefined;
      void this.sweep();
    }, GATHER_MS);
    this.gathering.unref();
  }

  /** Refreshes all that is stale. */
  async settle(): Promise<void> {
    clearTimeout(this.gathering);
    this.gathering = undefined;
    await this.sweep();
  }

  async close(): Promise<void> {
    this.closed = true;
    clearTimeout(this.gathering);
    clearInterval(this.looking);
    await this.sweeping;
  }

  /**
   * Turns marks into stale episodes, some at a time. Of several servers each
   * takes what no other has taken; what is taken back comes again.
   *
   * @returns whether there may be more
   */
  private takeMarks(): Promise<boolean> {
    return this.database.dataSource.transaction(async (manager) => {
      const marks = await manager.query<{ id: string; visit_id: string | null; episode_id: string | null }[]>(
        'SELECT id, visit_id, episode_id FROM queue_mark ORDER BY id LIMIT ? FOR UPDATE SKIP LOCKED',
        [MARKS],
      );
      if (marks.length === 0) return false;
      const visits = marks.flatMap(({ visit_id }) => visit_id ?? []);
      const episodes = marks.flatMap(({ episode_id }) => episode_id ?? []);
      await manager.query(
        `UPDATE episode SET stale = stale + 1 WHERE id IN (SELECT id FROM
          (SELECT e.id FROM episode e WHERE e.id IN (?) UNION SELECT v.episode_id FROM visit v WHERE v.id IN (?)) AS marked)`,
        [
          ['', ...new Set(episodes)],
          ['', ...new Set(visits)],
        ],
      );
      await manager.query('DELETE FROM queue_mark WHERE id IN (?)', [marks.map(({ id }) => id)]);
      return marks.length === MARKS;
    });
  }

  /** One sweep after the other: what is asked for meanwhile is done by the next. */
  private sweep(): Promise<void> {
    this.sweeping = this.sweeping
      .then(() => this.refreshStale())
      .catch((error: unknown) => this.logger.warn({ err: error }, 'the queue was not looked at'));
    return this.sweeping;
  }

  /** Batch after batch, what was entered first, also what is entered meanwhile; one that cannot be told stands in nobody's way. */
  private async refreshStale(): Promise<void> {
    const failed: string[] = [];
    while (!this.closed && failed.length < MOST_FAILED) {
      while (!this.closed && (await this.takeMarks())) continue;
      const batch = await this.nextBatch(failed);
      if (batch.length === 0) return;
      for (const { id, clinic_id } of batch) {
        if (this.closed) return;
        await this.refreshOne(clinic_id, id).catch((error: unknown) => {
          failed.push(id);
          this.logger.warn({ err: error, episode: id }, 'where it stands in the queue was not told');
        });
      }
    }
  }

  private async nextBatch(failed: readonly string[]): Promise<readonly Stale[]> {
    for (const { sql, values } of [ENTERED, BY_THE_DAY]) {
      const batch = await this.database.dataSource.query<Stale[]>(sql, [...values(this.clock()), ['', ...failed], BATCH]);
      if (batch.length > 0) return batch;
    }
    return [];
  }

  private async refreshOne(clinicId: string, episodeId: string): Promise<void> {
    if (this.threads) return this.threads.refreshQueueStatus(clinicId, episodeId);
    await this.database.connection({ ...NOBODY, clinicId }, (work) => refreshQueueStatus(work, episodeId));
  }
}
