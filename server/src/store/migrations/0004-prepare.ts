import type { MigrationInterface, QueryRunner } from 'typeorm';
import { ID, owned, within } from './sql.js';

/** Intake with precautions, caution answers, a prepared run sheet; readings as the device showed them, corrected, past a limit. */
export class Prepare1700000000004 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      `ALTER TABLE episode
        ADD COLUMN procedure_id VARCHAR(60) NULL,
        ADD COLUMN procedure_name VARCHAR(160) NOT NULL DEFAULT '',
        ADD COLUMN procedure_on DATE NULL,
        ADD COLUMN dominant_side VARCHAR(10) NULL,
        ADD COLUMN wanted VARCHAR(300) NOT NULL DEFAULT '',
        ADD COLUMN precautions TEXT NULL,
        ADD COLUMN revision INT NOT NULL DEFAULT 0`,
      `ALTER TABLE visit
        ADD COLUMN cautions TEXT NULL,
        ADD COLUMN plan MEDIUMTEXT NULL,
        ADD COLUMN revision INT NOT NULL DEFAULT 0`,
      `ALTER TABLE measurement
        ADD COLUMN not_done VARCHAR(15) NULL,
        ADD COLUMN not_done_why VARCHAR(300) NOT NULL DEFAULT '',
        ADD COLUMN note VARCHAR(1000) NOT NULL DEFAULT ''`,
      `ALTER TABLE trial
        ADD COLUMN scale VARCHAR(10) NULL,
        ADD COLUMN sense TINYINT NULL,
        ADD COLUMN entered VARCHAR(80) NOT NULL DEFAULT '',
        ADD COLUMN past_limit DECIMAL(5,1) NULL,
        ADD COLUMN past_why VARCHAR(300) NOT NULL DEFAULT '',
        ADD COLUMN corrects ${ID} NULL,
        ADD COLUMN withdrawn_why VARCHAR(300) NOT NULL DEFAULT '',
        ADD UNIQUE KEY trial_corrected_once (clinic_id, corrects),
        ADD ${within('trial', 'corrects', 'trial')}`,
      'ALTER TABLE clinic ADD COLUMN hand_widths TEXT NULL',
      owned('exam_set', [
        'name VARCHAR(80) NOT NULL',
        'items TEXT NOT NULL',
        `added_by ${ID} NOT NULL`,
        'added_at DATETIME(3) NOT NULL',
        'removed_at DATETIME(3) NULL',
        within('exam_set', 'added_by', 'user'),
      ]),
      owned('record_change', [
        'subject VARCHAR(10) NOT NULL',
        `subject_id ${ID} NOT NULL`,
        'field VARCHAR(30) NOT NULL',
        'old_value MEDIUMTEXT NULL',
        'new_value MEDIUMTEXT NULL',
        `user_id ${ID} NOT NULL`,
        'changed_at DATETIME(3) NOT NULL',
        'KEY record_change_of (clinic_id, subject_id)',
        within('record_change', 'user_id', 'user'),
      ]),
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    const statements = [
      'DROP TABLE record_change',
      'DROP TABLE exam_set',
      'ALTER TABLE clinic DROP COLUMN hand_widths',
      `ALTER TABLE trial DROP FOREIGN KEY trial_corrects, DROP KEY trial_corrected_once, DROP COLUMN withdrawn_why, DROP COLUMN corrects,
        DROP COLUMN past_why, DROP COLUMN past_limit, DROP COLUMN entered, DROP COLUMN sense, DROP COLUMN scale`,
      'ALTER TABLE measurement DROP COLUMN note, DROP COLUMN not_done_why, DROP COLUMN not_done',
      'ALTER TABLE visit DROP COLUMN revision, DROP COLUMN plan, DROP COLUMN cautions',
      `ALTER TABLE episode DROP COLUMN revision, DROP COLUMN precautions, DROP COLUMN wanted, DROP COLUMN dominant_side,
        DROP COLUMN procedure_on, DROP COLUMN procedure_name, DROP COLUMN procedure_id`,
    ];
    for (const statement of statements) await runner.query(statement);
  }
}
