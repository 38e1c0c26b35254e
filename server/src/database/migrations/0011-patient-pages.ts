import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** Pages of people themselves, the devices that opened them, and what was logged there. */
export class PatientPages1700000000011 extends Steps {
  override readonly there = [
    owned('patient_page', [
      `episode_id ${ID} NOT NULL`,
      'token_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
      'code_hash VARCHAR(200) NOT NULL',
      `made_by ${ID} NOT NULL`,
      'made_at DATETIME(3) NOT NULL',
      'expires_at DATETIME(3) NOT NULL',
      'revoked_at DATETIME(3) NULL',
      `revoked_by ${ID} NULL`,
      'UNIQUE KEY patient_page_token (token_hash)',
      'KEY patient_page_episode (clinic_id, episode_id, made_at)',
      within('patient_page', 'episode_id', 'episode'),
      within('patient_page', 'made_by', 'user'),
    ]),
    owned('patient_page_key', [
      `page_id ${ID} NOT NULL`,
      'key_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
      'opened_at DATETIME(3) NOT NULL',
      'UNIQUE KEY patient_page_key_hash (key_hash)',
      within('patient_page_key', 'page_id', 'patient_page'),
    ]),
    owned('patient_day', [
      `page_id ${ID} NOT NULL`,
      `episode_id ${ID} NOT NULL`,
      'on_day DATE NOT NULL',
      'done TEXT NOT NULL',
      'easy TINYINT(1) NULL',
      'pain TINYINT NULL CHECK (pain BETWEEN 0 AND 10)',
      'swelling TINYINT(1) NULL',
      'worse TINYINT(1) NULL',
      'note VARCHAR(500) NOT NULL',
      'received_at DATETIME(3) NOT NULL',
      'KEY patient_day_episode (clinic_id, episode_id, on_day, received_at)',
      within('patient_day', 'page_id', 'patient_page'),
      within('patient_day', 'episode_id', 'episode'),
    ]),
    refuse('patient_day_stays', 'patient_day', 'UPDATE', 'patient_day: what was logged stays as it is'),
    refuse('patient_day_kept', 'patient_day', 'DELETE', 'patient_day: what was logged is kept'),
    refuse('patient_page_kept', 'patient_page', 'DELETE', 'patient_page: is kept'),
    refuse(
      'patient_page_stays',
      'patient_page',
      'UPDATE',
      'patient_page: is closed once and stays as it is',
      'NOT (OLD.revoked_at IS NULL AND NEW.token_hash = OLD.token_hash AND NEW.code_hash = OLD.code_hash AND NEW.expires_at = OLD.expires_at AND NEW.episode_id = OLD.episode_id)',
    ),
  ];

  override readonly back = [
    ...['patient_day_stays', 'patient_day_kept', 'patient_page_kept', 'patient_page_stays'].map((name) => `DROP TRIGGER IF EXISTS ${name}`),
    ...['patient_day', 'patient_page_key', 'patient_page'].map((name) => `DROP TABLE IF EXISTS ${name}`),
  ];
}
