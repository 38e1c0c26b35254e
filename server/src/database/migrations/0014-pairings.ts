import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** Phones that were paired as inclinometers. A code is used once; what was used or closed stays so. */
export class Pairings1700000000014 extends Steps {
  override readonly there = [
    owned('pairing', [
      `visit_id ${ID} NOT NULL`,
      'code_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
      `made_by ${ID} NOT NULL`,
      'made_at DATETIME(3) NOT NULL',
      'expires_at DATETIME(3) NOT NULL',
      'used_at DATETIME(3) NULL',
      'key_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NULL',
      'ends_at DATETIME(3) NULL',
      'closed_at DATETIME(3) NULL',
      'UNIQUE KEY pairing_key (key_hash)',
      'KEY pairing_code (code_hash, expires_at)',
      'KEY pairing_visit (clinic_id, visit_id, made_at)',
      within('pairing', 'visit_id', 'visit'),
      within('pairing', 'made_by', 'user'),
    ]),
    refuse('pairing_kept', 'pairing', 'DELETE', 'pairing: is kept'),
    refuse(
      'pairing_stays',
      'pairing',
      'UPDATE',
      'pairing: is used once, closed once, and stays with its visit',
      'NOT (NEW.visit_id = OLD.visit_id AND NEW.clinic_id = OLD.clinic_id AND NEW.code_hash = OLD.code_hash AND OLD.closed_at IS NULL AND (OLD.used_at IS NULL OR (NEW.used_at = OLD.used_at AND NEW.key_hash = OLD.key_hash)))',
    ),
  ];

  override readonly back = ['DROP TRIGGER IF EXISTS pairing_kept', 'DROP TRIGGER IF EXISTS pairing_stays', 'DROP TABLE IF EXISTS pairing'];
}
