import { ID, owned, refuse, within, withinIfMissing } from './sql.js';
import { Steps } from './steps.js';

/** People are put right, seen in several episodes, discharged and taken up again, and made one where they were entered twice. */
export class People1700000000019 extends Steps {
  override readonly there = [
    `ALTER TABLE patient ADD COLUMN IF NOT EXISTS gender VARCHAR(60) NOT NULL DEFAULT '',
       ADD COLUMN IF NOT EXISTS file_number VARCHAR(40) NOT NULL DEFAULT '',
       ADD COLUMN IF NOT EXISTS revision INT NOT NULL DEFAULT 0,
       ADD COLUMN IF NOT EXISTS merged_into ${ID} NULL`,
    'ALTER TABLE patient ADD KEY IF NOT EXISTS patient_born (clinic_id, birth_date), ADD KEY IF NOT EXISTS patient_file (clinic_id, file_number)',
    `ALTER TABLE episode ADD COLUMN IF NOT EXISTS ended_on DATE NULL,
       ADD COLUMN IF NOT EXISTS outcome VARCHAR(20) NULL,
       ADD COLUMN IF NOT EXISTS ended_note VARCHAR(300) NOT NULL DEFAULT '',
       ADD COLUMN IF NOT EXISTS ended_by ${ID} NULL`,
    `ALTER TABLE episode ADD ${withinIfMissing('episode', 'ended_by', 'user')}`,
    owned('patient_merge', [
      `kept_id ${ID} NOT NULL`,
      `gone_id ${ID} NOT NULL`,
      'episodes TEXT NOT NULL',
      `merged_by ${ID} NOT NULL`,
      'merged_at DATETIME(3) NOT NULL',
      `undone_by ${ID} NULL`,
      'undone_at DATETIME(3) NULL',
      within('patient_merge', 'kept_id', 'patient'),
      within('patient_merge', 'gone_id', 'patient'),
      within('patient_merge', 'merged_by', 'user'),
      within('patient_merge', 'undone_by', 'user'),
    ]),
    refuse('patient_merge_kept', 'patient_merge', 'DELETE', 'patient_merge: is kept'),
    refuse(
      'patient_merge_stays',
      'patient_merge',
      'UPDATE',
      'patient_merge: is undone once, and stays what it was',
      'NOT (NEW.kept_id = OLD.kept_id AND NEW.gone_id = OLD.gone_id AND NEW.episodes = OLD.episodes AND NEW.merged_by = OLD.merged_by AND NEW.merged_at = OLD.merged_at AND OLD.undone_at IS NULL)',
    ),
  ];

  override readonly back = [
    'DROP TRIGGER IF EXISTS patient_merge_kept',
    'DROP TRIGGER IF EXISTS patient_merge_stays',
    'DROP TABLE IF EXISTS patient_merge',
    'ALTER TABLE episode DROP FOREIGN KEY IF EXISTS episode_ended_by',
    'ALTER TABLE episode DROP COLUMN IF EXISTS ended_on, DROP COLUMN IF EXISTS outcome, DROP COLUMN IF EXISTS ended_note, DROP COLUMN IF EXISTS ended_by',
    'ALTER TABLE patient DROP KEY IF EXISTS patient_born, DROP KEY IF EXISTS patient_file',
    'ALTER TABLE patient DROP COLUMN IF EXISTS gender, DROP COLUMN IF EXISTS file_number, DROP COLUMN IF EXISTS revision, DROP COLUMN IF EXISTS merged_into',
  ];
}
