import { Steps } from './steps.js';
import { ID, owned, within, withinIfMissing } from './sql.js';

/** Intake with precautions, caution answers, a prepared run sheet; readings as the device showed them, corrected, past a limit. */
export class Prepare1700000000004 extends Steps {
  override readonly there = [
    `ALTER TABLE episode
        ADD COLUMN IF NOT EXISTS procedure_id VARCHAR(60) NULL,
        ADD COLUMN IF NOT EXISTS procedure_name VARCHAR(160) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS procedure_on DATE NULL,
        ADD COLUMN IF NOT EXISTS dominant_side VARCHAR(10) NULL,
        ADD COLUMN IF NOT EXISTS wanted VARCHAR(300) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS precautions TEXT NULL,
        ADD COLUMN IF NOT EXISTS revision INT NOT NULL DEFAULT 0`,
    `ALTER TABLE visit
        ADD COLUMN IF NOT EXISTS cautions TEXT NULL,
        ADD COLUMN IF NOT EXISTS plan MEDIUMTEXT NULL,
        ADD COLUMN IF NOT EXISTS revision INT NOT NULL DEFAULT 0`,
    `ALTER TABLE measurement
        ADD COLUMN IF NOT EXISTS not_done VARCHAR(15) NULL,
        ADD COLUMN IF NOT EXISTS not_done_why VARCHAR(300) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS note VARCHAR(1000) NOT NULL DEFAULT ''`,
    `ALTER TABLE trial
        ADD COLUMN IF NOT EXISTS scale VARCHAR(10) NULL,
        ADD COLUMN IF NOT EXISTS sense TINYINT NULL,
        ADD COLUMN IF NOT EXISTS entered VARCHAR(80) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS past_limit DECIMAL(5,1) NULL,
        ADD COLUMN IF NOT EXISTS past_why VARCHAR(300) NOT NULL DEFAULT '',
        ADD COLUMN IF NOT EXISTS corrects ${ID} NULL,
        ADD COLUMN IF NOT EXISTS withdrawn_why VARCHAR(300) NOT NULL DEFAULT '',
        ADD UNIQUE KEY IF NOT EXISTS trial_corrected_once (clinic_id, corrects),
        ADD ${withinIfMissing('trial', 'corrects', 'trial')}`,
    'ALTER TABLE clinic ADD COLUMN IF NOT EXISTS hand_widths TEXT NULL',
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

  override readonly back = [
    'DROP TABLE IF EXISTS record_change',
    'DROP TABLE IF EXISTS exam_set',
    'ALTER TABLE clinic DROP COLUMN IF EXISTS hand_widths',
    `ALTER TABLE trial DROP FOREIGN KEY IF EXISTS trial_corrects, DROP KEY IF EXISTS trial_corrected_once, DROP COLUMN IF EXISTS withdrawn_why, DROP COLUMN IF EXISTS corrects,
        DROP COLUMN IF EXISTS past_why, DROP COLUMN IF EXISTS past_limit, DROP COLUMN IF EXISTS entered, DROP COLUMN IF EXISTS sense, DROP COLUMN IF EXISTS scale`,
    'ALTER TABLE measurement DROP COLUMN IF EXISTS note, DROP COLUMN IF EXISTS not_done_why, DROP COLUMN IF EXISTS not_done',
    'ALTER TABLE visit DROP COLUMN IF EXISTS revision, DROP COLUMN IF EXISTS plan, DROP COLUMN IF EXISTS cautions',
    `ALTER TABLE episode DROP COLUMN IF EXISTS revision, DROP COLUMN IF EXISTS precautions, DROP COLUMN IF EXISTS wanted, DROP COLUMN IF EXISTS dominant_side,
        DROP COLUMN IF EXISTS procedure_on, DROP COLUMN IF EXISTS procedure_name, DROP COLUMN IF EXISTS procedure_id`,
  ];
}
