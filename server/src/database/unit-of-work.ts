import { type EntityManager, type EntityTarget, type FindOptionsWhere, type ObjectLiteral, type QueryDeepPartialEntity } from 'typeorm';
import type { DatabasePorts, Names } from './ports.js';
import type { Caller } from '../shared/caller.js';
import { ChangeLog, same } from './change-log.js';
import { idTaken, notFound } from '../shared/problems.js';

/** A connection of the driver or its pool, as far as it is used past TypeORM. */
export interface Prepares {
  execute(sql: string, values: readonly unknown[], done: (error: Error | null, result: unknown) => void): void;
}

/** A statement, prepared once for every connection: the database reads and plans it once. */
export function executeOn<T>(to: Prepares, sql: string, values: readonly unknown[]): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    to.execute(sql, values, (error, result) => (error ? reject(error) : resolve(result as T)));
  });
}

interface Mark {
  readonly kind: 'visit' | 'episode';
  readonly id: string;
}

interface Owned extends ObjectLiteral {
  id: string;
  clinicId: string;
}

/**
 * What a store gets and all it gets: one connection, one caller, one moment.
 * Whatever is done through it is done together or not at all, and sees this
 * clinic only.
 */
export class UnitOfWork {
  readonly log: ChangeLog;

  constructor(
    readonly manager: EntityManager,
    readonly caller: Caller,
    /** When it began; everything it writes carries this moment. */
    readonly now: Date,
    private readonly ports: DatabasePorts,
  ) {
    this.log = new ChangeLog(this, ports.audit);
  }

  /** The same connection and moment in somebody else's name. What it marks counts for this one. */
  as(caller: Caller): UnitOfWork {
    const other = new UnitOfWork(this.manager, caller, this.now, this.ports);
    other.marks = this.marks;
    return other;
  }

  private marks = new Map<string, Mark>();

  /**
   * Something was entered into a visit or an episode: where it stands in the
   * queue is stale. The mark is written in this transaction, so that the queue
   * misses nothing that was answered, whatever ends the server.
   *
   * @throws outside of a transaction: what one statement writes is marked by a trigger
   */
  markStale(kind: Mark['kind'], id: string): void {
    if (!this.manager.queryRunner?.isTransactionActive) throw new Error(`a ${kind} is marked outside of a transaction`);
    this.marks.set(`${kind} ${id}`, { kind, id });
  }

  /** Whether an episode was marked: its queue status is refreshed at once, and not only with the next look. */
  get marksEpisode(): boolean {
    return [...this.marks.values()].some(({ kind }) => kind === 'episode');
  }

  /** Writes the marks; the last thing that a transaction does. */
  async writeMarks(): Promise<void> {
    const rows = [...this.marks.values()].map(({ kind, id }) => [
      this.clinicId,
      kind === 'visit' ? id : null,
      kind === 'episode' ? id : null,
    ]);
    if (rows.length > 0) await this.manager.query('INSERT INTO queue_mark (clinic_id, visit_id, episode_id) VALUES ?', [rows]);
  }

  get clinicId(): string {
    return this.caller.clinicId;
  }

  /** A record of this clinic. @throws a problem that names what is not there */
  async one<T extends Owned>(
    entity: EntityTarget<T>,
    id: string,
    what: string,
    lock?: 'pessimistic_write' | 'pessimistic_read',
  ): Promise<T> {
    const where = { id, clinicId: this.clinicId } as FindOptionsWhere<T>;
    const row = await this.manager.findOne(entity, { where, ...(lock ? { lock: { mode: lock } } : {}) });
    if (!row) throw notFound(what);
    return row;
  }

  /**
   * Inserts a fact whose id its sender made. A repeat is told by clinic,
   * parent and content, which `facts` names: the same is as good as saved,
   * anything else is refused. Nothing is ever written over.
   *
   * @returns false when it was there already
   */
  async insertFact<T extends Owned>(entity: EntityTarget<T>, row: T, what: string, facts: readonly (keyof T & string)[]): Promise<boolean> {
    try {
      await this.manager.insert(entity, row as QueryDeepPartialEntity<T>);
      return true;
    } catch (error) {
      if (!isDuplicate(error)) throw error;
      const stored = await this.manager.findOneBy(entity, { id: row.id } as FindOptionsWhere<T>);
      // Not this id, then: another key of the table, which its own store words.
      if (!stored) throw error;
      if (stored.clinicId !== this.clinicId || facts.some((fact) => !same(stored[fact], row[fact]))) throw idTaken(what);
      return false;
    }
  }

  /** A statement that is sent again and again. */
  async prepared<T>(sql: string, values: readonly unknown[]): Promise<T> {
    const runner = this.manager.queryRunner;
    if (!runner) return this.manager.query(sql, [...values]);
    return executeOn((await runner.connect()) as Prepares, sql, values);
  }

  /**
   * Many rows of a table as plain objects, without what an entity manager does
   * for each: a long record has tens of thousands.
   *
   * @param tail what follows FROM, with "t" for the table: conditions and order
   */
  async plain<T extends ObjectLiteral>(entity: EntityTarget<T>, tail: string, values: readonly unknown[]): Promise<T[]> {
    const { tableName, columns } = this.manager.dataSource.getMetadata(entity);
    const names = columns.map((column) => `t.${column.databaseName} AS \`${column.propertyName}\``).join(', ');
    const rows = (await this.manager.query(`SELECT ${names} FROM ${tableName} t ${tail}`, [...values])) as Record<string, unknown>[];
    const json = columns.filter((column) => column.type === 'simple-json').map((column) => column.propertyName);
    for (const row of rows) for (const name of json) if (typeof row[name] === 'string') row[name] = JSON.parse(row[name]);
    return rows as T[];
  }

  /** Names of users of this clinic. */
  async namesOf(ids: Iterable<string | null>): Promise<Names> {
    const wanted = [...new Set([...ids].filter((id) => id !== null))];
    if (wanted.length === 0) return new Map();
    return this.ports.names.namesOf(this.manager, this.clinicId, wanted);
  }

  async nameOf(id: string): Promise<string> {
    if (id === this.caller.userId) return this.caller.name;
    return (await this.namesOf([id])).get(id) ?? 'somebody else';
  }
}

/** The driver's code of an error, which TypeORM may have wrapped. */
export function codeOf(error: unknown): string | undefined {
  if (typeof error !== 'object' || error === null) return undefined;
  const { code, driverError } = error as { code?: unknown; driverError?: unknown };
  return typeof code === 'string' ? code : codeOf(driverError);
}

/** The driver's number of an error, for those it has no name for. */
export function errnoOf(error: unknown): number | undefined {
  const { errno, driverError } = (error ?? {}) as { errno?: number; driverError?: { errno?: number } };
  return errno ?? driverError?.errno;
}

export const isDuplicate = (error: unknown): boolean => codeOf(error) === 'ER_DUP_ENTRY';
