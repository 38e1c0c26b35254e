import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** Readings of before, as they were brought in. */
export class Past1700000000012 extends Steps {
  override readonly there = [
    owned('past_batch', [
      `episode_id ${ID} NOT NULL`,
      'file_name VARCHAR(200) NOT NULL',
      'kept LONGTEXT NOT NULL',
      'sessions LONGTEXT NOT NULL',
      'readings INT NOT NULL',
      `brought_by ${ID} NOT NULL`,
      'brought_at DATETIME(3) NOT NULL',
      'undone_at DATETIME(3) NULL',
      `undone_by ${ID} NULL`,
      'KEY past_batch_episode (clinic_id, episode_id, undone_at)',
      within('past_batch', 'episode_id', 'episode'),
      within('past_batch', 'brought_by', 'user'),
    ]),
    refuse('past_batch_kept', 'past_batch', 'DELETE', 'past_batch: what was brought in is kept'),
    refuse(
      'past_batch_stays',
      'past_batch',
      'UPDATE',
      'past_batch: is undone once and stays as it was brought in',
      'NOT (OLD.undone_at IS NULL AND NEW.kept = OLD.kept AND NEW.sessions = OLD.sessions AND NEW.episode_id = OLD.episode_id)',
    ),
  ];

  override readonly back = [
    ...['past_batch_kept', 'past_batch_stays'].map((name) => `DROP TRIGGER IF EXISTS ${name}`),
    'DROP TABLE IF EXISTS past_batch',
  ];
}
