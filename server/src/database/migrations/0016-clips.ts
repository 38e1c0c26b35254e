import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** Clips that were looked over, and stills attached on purpose. */
export class Clips1700000000016 extends Steps {
  override readonly there = [
    owned('clip_review', [
      `visit_id ${ID} NOT NULL`,
      `clip_id ${ID} NOT NULL`,
      'version INT NOT NULL',
      'file VARCHAR(120) NOT NULL',
      'view VARCHAR(10) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
      'marks MEDIUMTEXT NOT NULL',
      'is_shared TINYINT(1) NOT NULL',
      `made_by ${ID} NOT NULL`,
      'made_at DATETIME(3) NOT NULL',
      'UNIQUE KEY clip_review_version (clip_id, version)',
      'KEY clip_review_of (clinic_id, visit_id, clip_id, version)',
      within('clip_review', 'visit_id', 'visit'),
      within('clip_review', 'made_by', 'user'),
      'CONSTRAINT clip_review_counts CHECK (version >= 1)',
    ]),
    owned('still', [
      `visit_id ${ID} NOT NULL`,
      'words VARCHAR(120) NOT NULL',
      'width INT NOT NULL',
      'height INT NOT NULL',
      'bytes MEDIUMBLOB NULL',
      'sent_hash CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
      `attached_by ${ID} NOT NULL`,
      'attached_at DATETIME(3) NOT NULL',
      `removed_by ${ID} NULL`,
      'removed_at DATETIME(3) NULL',
      'KEY still_of (clinic_id, visit_id, attached_at)',
      within('still', 'visit_id', 'visit'),
      within('still', 'attached_by', 'user'),
      within('still', 'removed_by', 'user'),
    ]),
    refuse('clip_review_stays', 'clip_review', 'UPDATE', 'clip_review: what was marked stays as it was'),
    refuse('clip_review_kept', 'clip_review', 'DELETE', 'clip_review: is kept'),
    refuse('still_kept', 'still', 'DELETE', 'still: that it was there is kept'),
    refuse(
      'still_stays',
      'still',
      'UPDATE',
      'still: is taken away once, and is else as it was',
      'NOT (OLD.removed_at IS NULL AND NEW.removed_at IS NOT NULL AND NEW.bytes IS NULL AND NEW.visit_id = OLD.visit_id AND NEW.clinic_id = OLD.clinic_id AND NEW.words = OLD.words AND NEW.sent_hash = OLD.sent_hash)',
    ),
  ];

  override readonly back = [
    ...['clip_review_stays', 'clip_review_kept', 'still_kept', 'still_stays'].map((name) => `DROP TRIGGER IF EXISTS ${name}`),
    'DROP TABLE IF EXISTS still',
    'DROP TABLE IF EXISTS clip_review',
  ];
}
