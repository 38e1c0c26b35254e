import { Steps } from './steps.js';
import { ID, owned, TABLE, within } from './sql.js';

export class First1700000000001 extends Steps {
  override readonly there = [
    `CREATE TABLE IF NOT EXISTS clinic (id ${ID} NOT NULL PRIMARY KEY, name VARCHAR(120) NOT NULL, norm_set VARCHAR(60) NOT NULL) ${TABLE}`,
    `CREATE TABLE IF NOT EXISTS session (id CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY, data TEXT NOT NULL,
        expires_at DATETIME(3) NOT NULL, KEY session_expiry (expires_at)) ${TABLE}`,
    owned('user', [
      'email VARCHAR(200) NOT NULL',
      'name VARCHAR(120) NOT NULL',
      'password_hash VARCHAR(200) NOT NULL',
      'UNIQUE KEY user_email (email)',
    ]),
    owned('patient', [
      'given_name VARCHAR(100) NOT NULL',
      'family_name VARCHAR(100) NOT NULL',
      'birth_date DATE NOT NULL',
      'sex VARCHAR(10) NOT NULL',
      'occupation VARCHAR(120) NOT NULL',
    ]),
    owned('episode', [
      `patient_id ${ID} NOT NULL`,
      'complaint VARCHAR(300) NOT NULL',
      'involved_side VARCHAR(10) NULL',
      'opened_on DATE NOT NULL',
      within('episode', 'patient_id', 'patient'),
    ]),
    owned('visit', [
      `episode_id ${ID} NOT NULL`,
      `examiner_id ${ID} NOT NULL`,
      'assessed_on DATE NOT NULL',
      'started_at DATETIME(3) NOT NULL',
      within('visit', 'episode_id', 'episode'),
      within('visit', 'examiner_id', 'user'),
    ]),
    owned('measurement', [
      `visit_id ${ID} NOT NULL`,
      'motion VARCHAR(60) NOT NULL',
      'side VARCHAR(10) NOT NULL',
      'mode VARCHAR(10) NOT NULL',
      'position VARCHAR(20) NOT NULL',
      'protocol VARCHAR(80) NOT NULL',
      'pain TINYINT NULL',
      'pain_where VARCHAR(200) NOT NULL',
      'end_feel VARCHAR(10) NULL',
      'substitutions TEXT NOT NULL',
      'UNIQUE KEY measurement_of_visit (visit_id, motion, side, mode, position)',
      within('measurement', 'visit_id', 'visit'),
    ]),
    owned('trial', [
      `measurement_id ${ID} NOT NULL`,
      'instrument VARCHAR(20) NOT NULL',
      'start_angle DECIMAL(5,1) NOT NULL',
      'end_angle DECIMAL(5,1) NOT NULL',
      `examiner_id ${ID} NOT NULL`,
      'held_at DATETIME(3) NOT NULL',
      'saved_at DATETIME(3) NOT NULL',
      'withdrawn_at DATETIME(3) NULL',
      `withdrawn_by ${ID} NULL`,
      within('trial', 'measurement_id', 'measurement'),
      within('trial', 'examiner_id', 'user'),
      within('trial', 'withdrawn_by', 'user'),
    ]),
    owned('amendment', [
      `measurement_id ${ID} NOT NULL`,
      'field VARCHAR(30) NOT NULL',
      'old_value TEXT NULL',
      'new_value TEXT NULL',
      `user_id ${ID} NOT NULL`,
      'amended_at DATETIME(3) NOT NULL',
      within('amendment', 'measurement_id', 'measurement'),
      within('amendment', 'user_id', 'user'),
    ]),
  ];

  override readonly back = ['amendment', 'trial', 'measurement', 'visit', 'episode', 'patient', 'user', 'session', 'clinic'].map(
    (table) => `DROP TABLE IF EXISTS \`${table}\``,
  );
}
