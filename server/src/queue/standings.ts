import type { DataSource } from 'typeorm';
import type { Logger } from 'pino';
import { NOBODY } from '../platform/caller.js';
import { Database } from '../platform/database.js';
import { dayOf } from '../platform/days.js';
import type { Threads } from '../platform/threads.js';
import { stand } from './stand.js';

/** What was entered is gathered for so long before the queue is told anew. */
const GATHER_MS = 1_000;
/** What changes with the day alone, or was missed because a server was killed, is looked for so often. */
const LOOK_MS = 30_000;
const BATCH = 50;
/** Where so many cannot be told it is no fault of theirs: the next look tries again. */
const MOST_FAILED = 200;

interface Stale {
  readonly id: string;
  readonly clinic_id: string;
}

/** How what is to be told anew is found: those that failed a moment ago are left out. */
interface Looked {
  readonly sql: string;
  readonly values: () => readonly unknown[];
}
const ENTERED: Looked = {
  sql: 'SELECT id, clinic_id FROM episode FORCE INDEX (episode_stale) WHERE stale > 0 AND ended_on IS NULL AND id NOT IN (?) LIMIT ?',
  values: () => [],
};
const BY_THE_DAY: Looked = {
  sql: 'SELECT id, clinic_id FROM episode FORCE INDEX (episode_stale_on) WHERE ended_on IS NULL AND stale_on <= ? AND id NOT IN (?) LIMIT ?',
  values: () => [dayOf(new Date())],
};

/**
 * Keeps the queue: notes what was entered, and tells anew where those episodes
 * stand, one after the other, beside the requests. Everything it goes by lies
 * in the database, so that several servers share the work and none is missed
 * where one is killed.
 */
export class Standings {
  private readonly noted = new Set<string>();
  private gathering: NodeJS.Timeout | undefined;
  private looking: NodeJS.Timeout | undefined;
  private sweeping: Promise<void> = Promise.resolve();
  private closed = false;

  constructor(
    private readonly dataSource: DataSource,
    private readonly threads: Threads | undefined,
    private readonly logger: Logger,
  ) {}

  /** Looks by itself from now on. */
  start(): void {
    this.looking = setInterval(() => void this.sweep(), LOOK_MS);
    this.looking.unref();
    void this.sweep();
  }

  /** Something was entered: into an episode, which is told at once, or into a visit, in the middle of an exam, with the next look. Nobody waits for it. */
  note(touched: Iterable<string>): void {
    for (const one of touched) this.noted.add(one);
    if (this.noted.size === 0 || this.gathering || this.closed) return;
    this.gathering = setTimeout(() => void this.gathered(), GATHER_MS);
    this.gathering.unref();
  }

  /** Tells anew what was noted, and all else that is stale. */
  async settle(): Promise<void> {
    await this.gathered();
    await this.sweep();
  }

  private async gathered(): Promise<void> {
    clearTimeout(this.gathering);
    this.gathering = undefined;
    try {
      for (const { id, clinic_id } of await this.markNoted()) await this.tell(clinic_id, id);
    } catch (error) {
      this.logger.warn({ err: error }, 'the queue was not told what was entered');
    }
  }

  async close(): Promise<void> {
    this.closed = true;
    clearTimeout(this.gathering);
    clearInterval(this.looking);
    await this.sweeping;
  }

  /** Marked in the database first: should this server be killed, another one finds it. @returns what is told at once */
  private async markNoted(): Promise<readonly Stale[]> {
    const noted = [...this.noted].map((one) => one.split(' ') as [string, string]);
    this.noted.clear();
    const of = (kind: string) => noted.filter(([k]) => k === kind).map(([, id]) => id);
    const [visits, episodes] = [of('visit'), of('episode')];
    if (visits.length > 0)
      await this.dataSource.query(
        'UPDATE episode e JOIN visit v ON v.clinic_id = e.clinic_id AND v.episode_id = e.id SET e.stale = e.stale + 1 WHERE v.id IN (?)',
        [visits],
      );
    if (episodes.length === 0) return [];
    await this.dataSource.query('UPDATE episode SET stale = stale + 1 WHERE id IN (?)', [episodes]);
    return this.dataSource.query<Stale[]>('SELECT id, clinic_id FROM episode WHERE id IN (?)', [episodes]);
  }

  /** One sweep after the other: what is asked for meanwhile is done by the next. */
  private sweep(): Promise<void> {
    this.sweeping = this.sweeping
      .then(async () => {
        const failed: string[] = [];
        for (const stale of [ENTERED, BY_THE_DAY]) await this.tellAll(stale, failed);
      })
      .catch((error: unknown) => this.logger.warn({ err: error }, 'the queue was not looked at'));
    return this.sweeping;
  }

  /** Batch after batch: one that cannot be told stands in nobody's way. */
  private async tellAll({ sql, values }: Looked, failed: string[]): Promise<void> {
    while (!this.closed && failed.length < MOST_FAILED) {
      const batch = await this.dataSource.query<Stale[]>(sql, [...values(), ['', ...failed], BATCH]);
      if (batch.length === 0) return;
      for (const { id, clinic_id } of batch) {
        if (this.closed) return;
        await this.tell(clinic_id, id).catch((error: unknown) => {
          failed.push(id);
          this.logger.warn({ err: error, episode: id }, 'where it stands in the queue was not told');
        });
      }
    }
  }

  private async tell(clinicId: string, episodeId: string): Promise<void> {
    if (this.threads) return this.threads.stand(clinicId, episodeId);
    await new Database(this.dataSource).each({ ...NOBODY, clinicId }, (work) => stand(work, episodeId));
  }
}
