import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is to be measured at a visit, and readings at two sites. */
export class Sheet1700000000003 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE visit ADD COLUMN sheet TEXT NULL');
    await runner.query(
      'ALTER TABLE trial ADD COLUMN lower_zero DECIMAL(5,1) NULL AFTER end_angle, ADD COLUMN lower_end DECIMAL(5,1) NULL AFTER lower_zero',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE trial DROP COLUMN lower_end, DROP COLUMN lower_zero');
    await runner.query('ALTER TABLE visit DROP COLUMN sheet');
  }
}
