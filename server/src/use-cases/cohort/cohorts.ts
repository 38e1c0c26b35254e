import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import type { Logger } from 'pino';
import type { DataSource, EntityManager } from 'typeorm';
import { CohortRun } from '../../records/cohort/entities.js';
import { gatherSome } from './gather.js';
import { tellRun } from './tell.js';

/** Whether a count is due or was asked for is looked at so often. */
const LOOK_MS = 20_000;
/** Each clinic is counted again after so long. */
const AGAIN_MS = 7 * 86_400_000;
/** A server that was killed is waited for so long before another one goes on. */
const LEASE_MS = 120_000;
/** Between two batches others come first, in milliseconds. */
const BREATH_MS = 20;
const DELETE_ROWS = 5_000;

/** Not since then, and none that is going on. */
const DUE = `SELECT c.id AS id FROM clinic c WHERE NOT EXISTS
    (SELECT 1 FROM cohort_run r WHERE r.clinic_id = c.id AND (r.finished_at IS NULL OR r.finished_at > ?)) LIMIT 20`;

/** Counts the readings of each clinic once a week and when it is asked to, in batches, beside the requests; one server at a time for each run. */
export class Cohorts {
  private readonly self = randomUUID();
  private looking: NodeJS.Timeout | undefined;
  private working: Promise<void> = Promise.resolve();
  private closed = false;

  constructor(
    private readonly dataSource: DataSource,
    private readonly logger: Logger,
    private readonly clock: () => Date = () => new Date(),
  ) {}

  start(): void {
    this.looking = setInterval(() => void this.look(), LOOK_MS);
    this.looking.unref();
    void this.look();
  }

  async close(): Promise<void> {
    this.closed = true;
    clearInterval(this.looking);
    await this.working;
  }

  /** Does all that is due or asked for; one look after the other. */
  look(): Promise<void> {
    this.working = this.working
      .then(async () => {
        await this.askWhatIsDue();
        while (!this.closed && (await this.nextRun())) continue;
      })
      .catch((error: unknown) => this.logger.warn({ err: error }, 'the readings were not counted'));
    return this.working;
  }

  private async askWhatIsDue(): Promise<void> {
    const due: { id: string }[] = await this.dataSource.query(DUE, [new Date(this.clock().getTime() - AGAIN_MS)]);
    for (const { id } of due) await askForRun(this.dataSource.manager, { id: randomUUID(), clinicId: id, askedBy: null }, this.clock());
  }

  /** @returns whether there was one */
  private async nextRun(): Promise<boolean> {
    const now = this.clock();
    const { affectedRows } = await this.dataSource.query<{ affectedRows: number }>(
      'UPDATE cohort_run SET leased_by = ?, lease_until = ? WHERE finished_at IS NULL AND lease_until <= ? ORDER BY asked_at, id LIMIT 1',
      [this.self, leaseFrom(now), now],
    );
    if (affectedRows === 0) return false;
    const run = await this.dataSource.manager.findOne(CohortRun, {
      where: { leasedBy: this.self, leaseUntil: leaseFrom(now) },
      order: { askedAt: 'ASC' },
    });
    if (!run) return false;
    await this.count(run);
    return true;
  }

  private async count(run: CohortRun): Promise<void> {
    const { manager } = this.dataSource;
    for (let gathered = Boolean(run.gathered); !gathered;) {
      if (this.closed) return this.letGo(run);
      gathered = await this.dataSource.transaction(async (at) => {
        // Read anew, and held: whoever else thinks it is theirs waits and finds it taken.
        const held = await at.findOne(CohortRun, { where: { id: run.id, leasedBy: this.self }, lock: { mode: 'pessimistic_write' } });
        if (!held) throw new Error('another server counts this run');
        return gatherSome(at, held, leaseFrom(this.clock()));
      });
      await wait(BREATH_MS);
    }
    await tellRun(manager, run, async () => {
      if (this.closed) throw new Error('this server stops; another one tells');
      const { affected } = await manager.update(CohortRun, { id: run.id, leasedBy: this.self }, { leaseUntil: leaseFrom(this.clock()) });
      if (!affected) throw new Error('another server counts this run');
      await wait(BREATH_MS);
    });
    await finish(manager, run, this.clock());
  }

  private async letGo({ id }: CohortRun): Promise<void> {
    await this.dataSource.manager.update(CohortRun, { id, leasedBy: this.self }, { leaseUntil: this.clock() });
  }
}

const leaseFrom = (now: Date): Date => new Date(now.getTime() + LEASE_MS);

/** Asks for a count, unless one is going on. */
export async function askForRun(manager: EntityManager, of: Pick<CohortRun, 'id' | 'clinicId' | 'askedBy'>, now: Date): Promise<void> {
  await manager.query(
    `INSERT INTO cohort_run (id, clinic_id, asked_at, asked_by, lease_until, leased_by)
      SELECT ?, ?, ?, ?, ?, '' FROM DUAL WHERE NOT EXISTS (SELECT 1 FROM cohort_run WHERE clinic_id = ? AND finished_at IS NULL)`,
    [of.id, of.clinicId, now, of.askedBy, now, of.clinicId],
  );
}

/** From now on this run is what is told. What was gathered by person goes, that of a run before that was cut off here too, and so does what those told. */
async function finish(manager: EntityManager, { id, clinicId }: CohortRun, now: Date): Promise<void> {
  await manager.update(CohortRun, { id }, { finishedAt: now });
  for (const table of ['cohort_person', 'cohort_outcome'])
    await dropAll(manager, `${table} WHERE clinic_id = ? AND run_id NOT IN (SELECT r.id FROM cohort_run r WHERE r.finished_at IS NULL)`, [
      clinicId,
    ]);
  await dropAll(manager, 'cohort_told WHERE clinic_id = ? AND run_id <> ?', [clinicId, id]);
}

async function dropAll(manager: EntityManager, what: string, values: readonly unknown[]): Promise<void> {
  for (let left = true; left;) {
    const { affectedRows } = await manager.query<{ affectedRows: number }>(`DELETE FROM ${what} LIMIT ${DELETE_ROWS}`, [...values]);
    left = affectedRows === DELETE_ROWS;
    await wait(BREATH_MS);
  }
}
