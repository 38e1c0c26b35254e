import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** Values of norm sets, errors and procedures that a clinic looked up. Each row is written once. */
export class ValueChecks1700000000030 extends Steps {
  override readonly there = [
    owned('value_check', [
      'kind VARCHAR(10) NOT NULL',
      'of_id VARCHAR(60) NOT NULL',
      'value_key VARCHAR(500) NOT NULL',
      'held TEXT NOT NULL',
      'corrected TEXT NULL',
      'source VARCHAR(300) NOT NULL',
      'edition VARCHAR(120) NOT NULL',
      'page VARCHAR(60) NOT NULL',
      'withdrawn TINYINT(1) NOT NULL',
      'said_by VARCHAR(120) NULL',
      'checked_on DATE NOT NULL',
      `checked_by ${ID} NOT NULL`,
      'checked_at DATETIME(3) NOT NULL',
      `follows ${ID} NULL`,
      'UNIQUE KEY value_check_follows (clinic_id, follows)',
      within('value_check', 'checked_by', 'user'),
      within('value_check', 'follows', 'value_check'),
    ]),
    refuse('value_check_stays', 'value_check', 'UPDATE', 'value_check: what was written is kept'),
    refuse('value_check_kept', 'value_check', 'DELETE', 'value_check: what was written is kept'),
  ];
  override readonly back = ['DROP TABLE IF EXISTS value_check'];
}
