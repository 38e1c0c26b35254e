import type { MigrationInterface, QueryRunner } from 'typeorm';

/** One statement, perhaps only where a table is there, or work that needs more than a statement. Each may be done again. */
export type Step = string | { readonly ifTable: string; readonly sql: string } | ((runner: QueryRunner) => Promise<void>);

async function take(runner: QueryRunner, steps: readonly Step[]): Promise<void> {
  for (const step of steps) {
    if (typeof step === 'function') await step(runner);
    else if (typeof step === 'string') await runner.query(step);
    else if (await hasTable(runner, step.ifTable)) await runner.query(step.sql);
  }
}

async function hasTable(runner: QueryRunner, table: string): Promise<boolean> {
  const rows = (await runner.query('SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = ?', [
    table,
  ])) as unknown[];
  return rows.length > 0;
}

/**
 * A change of the schema as a list of steps. MariaDB commits each by itself,
 * so it may be cut off between any two; the next start begins the list again,
 * and a step that is done already does nothing.
 */
export abstract class Steps implements MigrationInterface {
  abstract readonly there: readonly Step[];
  abstract readonly back: readonly Step[];

  up(runner: QueryRunner): Promise<void> {
    return take(runner, this.there);
  }

  down(runner: QueryRunner): Promise<void> {
    return take(runner, this.back);
  }
}
