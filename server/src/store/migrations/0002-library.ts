import type { MigrationInterface, QueryRunner } from 'typeorm';
import { ID, owned, within } from './sql.js';

/** Several ways of measuring in one position, fingers, and what the clinic judges by. */
export class Library1700000000002 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      `ALTER TABLE measurement
        ADD COLUMN variant VARCHAR(40) NOT NULL DEFAULT '' AFTER position,
        ADD COLUMN digit TINYINT NOT NULL DEFAULT 0 AFTER variant,
        MODIFY protocol VARCHAR(110) NOT NULL,
        ADD UNIQUE KEY measurement_by_protocol (visit_id, motion, side, mode, position, variant, digit),
        DROP KEY measurement_of_visit`,
      'ALTER TABLE clinic ADD COLUMN thresholds TEXT NULL',
      owned('norm_set', [
        'set_id VARCHAR(60) NOT NULL',
        'title VARCHAR(160) NOT NULL',
        'short_name VARCHAR(60) NOT NULL',
        'year SMALLINT NULL',
        'found_at VARCHAR(160) NOT NULL',
        'cite VARCHAR(500) NOT NULL',
        'from_memory BOOLEAN NOT NULL',
        'entries MEDIUMTEXT NOT NULL',
        `added_by ${ID} NOT NULL`,
        'added_at DATETIME(3) NOT NULL',
        'removed_at DATETIME(3) NULL',
        `removed_by ${ID} NULL`,
        // One set of an id in use; those taken out of use may share it.
        'in_use VARCHAR(60) AS (IF(removed_at IS NULL, set_id, NULL)) STORED',
        'UNIQUE KEY norm_set_in_use (clinic_id, in_use)',
        within('norm_set', 'added_by', 'user'),
        within('norm_set', 'removed_by', 'user'),
      ]),
      owned('clinic_change', [
        'field VARCHAR(30) NOT NULL',
        'old_value TEXT NULL',
        'new_value TEXT NULL',
        `user_id ${ID} NOT NULL`,
        'changed_at DATETIME(3) NOT NULL',
        within('clinic_change', 'user_id', 'user'),
      ]),
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE clinic_change');
    await runner.query('DROP TABLE norm_set');
    await runner.query('ALTER TABLE clinic DROP COLUMN thresholds');
    await runner.query(`ALTER TABLE measurement
      ADD UNIQUE KEY measurement_of_visit (visit_id, motion, side, mode, position),
      DROP KEY measurement_by_protocol, DROP COLUMN digit, DROP COLUMN variant`);
  }
}
