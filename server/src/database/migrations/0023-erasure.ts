import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** What is kept for good, and what the database says when somebody deletes it. */
const KEPT: Readonly<Record<string, string>> = {
  change_log: 'what was written is kept',
  signature: 'what was written is kept',
  goal: 'what was written is kept',
  retest_round: 'what was written is kept',
  retest_reading: 'what was written is kept',
  trial: 'a reading is withdrawn, never deleted',
  screen_try: 'what was written is kept',
  program: 'what was given is kept',
  patient_day: 'what was logged is kept',
  patient_page: 'is kept',
  past_batch: 'what was brought in is kept',
  pairing: 'is kept',
  clip_review: 'is kept',
  still: 'that it was there is kept',
  countersignature: 'what was written is kept',
  patient_merge: 'is kept',
};

/** An erasure of this clinic that is going on: seen by nobody but the transaction that erases. */
const NOBODY_ERASES = 'NOT EXISTS (SELECT 1 FROM erasure x WHERE x.clinic_id = OLD.clinic_id AND x.finished_at IS NULL)';

const kept = (when?: string): string[] =>
  Object.entries(KEPT).map(([table, words]) => refuse(`${table}_kept`, table, 'DELETE', `${table}: ${words}`, when));

/** The record of a person can be erased once the time is over; that it was stays. */
export class Erasure1700000000023 extends Steps {
  override readonly there = [
    owned('erasure', [
      `patient_id ${ID} NOT NULL`,
      'why VARCHAR(300) NOT NULL',
      `erased_by ${ID} NOT NULL`,
      'erased_at DATETIME(3) NOT NULL',
      'row_counts TEXT NOT NULL',
      'finished_at DATETIME(3) NULL',
      'KEY erasure_open (clinic_id, finished_at)',
      'KEY erasure_of (clinic_id, patient_id)',
      within('erasure', 'erased_by', 'user'),
    ]),
    refuse('erasure_kept', 'erasure', 'DELETE', 'erasure: that it was done is kept'),
    refuse(
      'erasure_stays',
      'erasure',
      'UPDATE',
      'erasure: what was written stays as it is',
      'NOT (OLD.finished_at IS NULL AND NEW.finished_at IS NOT NULL AND NEW.patient_id = OLD.patient_id AND NEW.why = OLD.why AND NEW.erased_by = OLD.erased_by AND NEW.erased_at = OLD.erased_at AND NEW.clinic_id = OLD.clinic_id)',
    ),
    ...kept(NOBODY_ERASES),
  ];

  override readonly back = [
    ...kept(),
    'DROP TRIGGER IF EXISTS erasure_stays',
    'DROP TRIGGER IF EXISTS erasure_kept',
    'DROP TABLE IF EXISTS erasure',
  ];
}
