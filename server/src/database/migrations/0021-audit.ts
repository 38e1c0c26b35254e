import { ID, owned, refuse, TABLE, within } from './sql.js';
import { Steps } from './steps.js';

const SHA256 = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';

/** Who looked at and changed whose record, in a chain in which nothing can be changed, taken out or put in unseen. */
export class Audit1700000000021 extends Steps {
  override readonly there = [
    owned('audit_entry', [
      'at DATETIME(3) NOT NULL',
      `user_id ${ID} NOT NULL`,
      'did VARCHAR(12) NOT NULL',
      'about VARCHAR(60) NOT NULL',
      `patient_id ${ID} NULL`,
      'subject_id VARCHAR(64) NOT NULL',
      `digest ${SHA256} NULL`,
      'KEY audit_entry_at (clinic_id, at, id)',
      'KEY audit_entry_patient (clinic_id, patient_id, at, id)',
      'KEY audit_entry_user (clinic_id, user_id, at, id)',
      within('audit_entry', 'user_id', 'user'),
    ]),
    `CREATE TABLE IF NOT EXISTS audit_open (entry_id ${ID} NOT NULL PRIMARY KEY, clinic_id ${ID} NOT NULL, KEY audit_open_clinic (clinic_id)) ${TABLE}`,
    `CREATE TABLE IF NOT EXISTS audit_link (clinic_id ${ID} NOT NULL, seq INT NOT NULL, entry_id ${ID} NOT NULL, hash ${SHA256} NOT NULL,
        PRIMARY KEY (clinic_id, seq), UNIQUE KEY audit_link_entry (entry_id)) ${TABLE}`,
    ...['audit_entry', 'audit_link'].flatMap((table) => [
      refuse(`${table}_stays`, table, 'UPDATE', `${table}: what was written stays as it is`),
      refuse(`${table}_kept`, table, 'DELETE', `${table}: what was written is kept`),
    ]),
  ];

  override readonly back = [
    ...['audit_entry', 'audit_link'].flatMap((table) => [`DROP TRIGGER IF EXISTS ${table}_stays`, `DROP TRIGGER IF EXISTS ${table}_kept`]),
    'DROP TABLE IF EXISTS audit_link',
    'DROP TABLE IF EXISTS audit_open',
    'DROP TABLE IF EXISTS audit_entry',
  ];
}
