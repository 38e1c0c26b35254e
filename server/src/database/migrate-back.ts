import type { DataSource, QueryRunner } from 'typeorm';
import { Steps } from './migrations/steps.js';
import { withLock } from './database.js';

/** Migrations are numbered from here. */
const FIRST = 1_700_000_000_000;

/** A table, or a column of one, that is not there any more once a change of the schema is taken back. */
export interface Loss {
  readonly table: string;
  readonly column: string | null;
}

/** What is lost when these steps back are taken, read off their statements. */
export function lossesOf({ back }: Steps): Loss[] {
  const losses: Loss[] = [];
  for (const step of back) {
    const sql = typeof step === 'string' ? step : 'sql' in step ? step.sql : '';
    const altered = /^\s*ALTER TABLE `?(\w+)`?/i.exec(sql)?.[1];
    if (altered)
      for (const [, column] of sql.matchAll(/DROP COLUMN (?:IF EXISTS )?`?(\w+)`?/gi)) losses.push({ table: altered, column: column! });
    else for (const [, table] of sql.matchAll(/DROP TABLE (?:IF EXISTS )?`?(\w+)`?/gi)) losses.push({ table: table!, column: null });
  }
  return losses;
}

/**
 * Takes back what later versions changed in the schema, newest first, so that
 * an earlier one starts over it. The servers of the later version are stopped
 * before.
 *
 * @param to the number of the last change that stays
 * @param lose whether what was entered into what goes may be lost
 * @returns the names of the changes that were taken back
 * @throws where something would be lost that may not be; nothing is changed then
 */
export function migrateBack(dataSource: DataSource, to: number, lose: boolean): Promise<string[]> {
  return withLock(dataSource, async () => {
    const there: { name: string; number: string | number }[] = await dataSource.query(
      'SELECT name, timestamp - ? AS number FROM migrations WHERE timestamp > ? ORDER BY timestamp DESC',
      [FIRST, FIRST + to],
    );
    const known = new Map(dataSource.migrations.map((migration) => [migration.name ?? migration.constructor.name, migration]));
    const going = there.map(({ name }) => {
      const steps = known.get(name);
      if (!(steps instanceof Steps)) throw new Error(`${name} is not of this version: go back with the version that made it.`);
      return { name, steps };
    });
    const runner = dataSource.createQueryRunner();
    try {
      const lost = await held(
        runner,
        going.flatMap(({ steps }) => lossesOf(steps)),
      );
      if (lost.length > 0 && !lose)
        throw new Error(`This would be lost: ${lost.join('; ')}. Nothing was changed. Allowed: --lose, after a backup that was proved.`);
    } finally {
      await runner.release();
    }
    for (let left = going.length; left > 0; left -= 1) await dataSource.undoLastMigration({ transaction: 'none' });
    return going.map(({ name }) => name);
  });
}

/** Which of these hold anything: a table any row, a column anything but what it holds by itself. */
async function held(runner: QueryRunner, losses: readonly Loss[]): Promise<string[]> {
  const gone = new Set(losses.filter(({ column }) => column === null).map(({ table }) => table));
  const columns: { t: string; c: string; byItself: string | null; nullable: string }[] = await runner.query(
    'SELECT TABLE_NAME AS t, COLUMN_NAME AS c, COLUMN_DEFAULT AS byItself, IS_NULLABLE AS nullable FROM information_schema.COLUMNS WHERE TABLE_SCHEMA = DATABASE()',
  );
  const lost: string[] = [];
  for (const { table, column } of losses) {
    const is = columns.find(({ t, c }) => t === table && (column === null || c === column));
    // Cut off on an earlier way back: it is gone already.
    if (!is || (column !== null && gone.has(table))) continue;
    const always = column === null || (is.byItself === null && is.nullable === 'NO');
    const where = always ? '' : `WHERE NOT (\`${column}\` <=> DEFAULT(\`${column}\`))`;
    const [found] = (await runner.query(`SELECT COUNT(*) AS n FROM \`${table}\` ${where}`)) as { n: string | number }[];
    const rows = Number(found?.n ?? 0);
    if (rows > 0) lost.push(`${table}${column === null ? '' : `.${column}`} (${rows} ${rows === 1 ? 'row' : 'rows'})`);
  }
  return lost;
}
