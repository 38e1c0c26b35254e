import { Steps } from './steps.js';
import { ID, owned, within } from './sql.js';

/** Several ways of measuring in one position, fingers, and what the clinic judges by. */
export class Library1700000000002 extends Steps {
  override readonly there = [
    `ALTER TABLE measurement
        ADD COLUMN IF NOT EXISTS variant VARCHAR(40) NOT NULL DEFAULT '' AFTER position,
        ADD COLUMN IF NOT EXISTS digit TINYINT NOT NULL DEFAULT 0 AFTER variant,
        MODIFY protocol VARCHAR(110) NOT NULL,
        ADD UNIQUE KEY IF NOT EXISTS measurement_by_protocol (visit_id, motion, side, mode, position, variant, digit),
        DROP KEY IF EXISTS measurement_of_visit`,
    'ALTER TABLE clinic ADD COLUMN IF NOT EXISTS thresholds TEXT NULL',
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

  override readonly back = [
    'DROP TABLE IF EXISTS clinic_change',
    'DROP TABLE IF EXISTS norm_set',
    'ALTER TABLE clinic DROP COLUMN IF EXISTS thresholds',
    `ALTER TABLE measurement
      ADD UNIQUE KEY IF NOT EXISTS measurement_of_visit (visit_id, motion, side, mode, position),
      DROP KEY IF EXISTS measurement_by_protocol, DROP COLUMN IF EXISTS digit, DROP COLUMN IF EXISTS variant`,
  ];
}
