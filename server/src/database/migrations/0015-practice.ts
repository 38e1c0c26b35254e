import { ID, owned, refuse, within, withinIfMissing } from './sql.js';
import { Steps } from './steps.js';

/** Rounds of practice and their answers; studies that come from them. */
export class Practice1700000000015 extends Steps {
  override readonly there = [
    owned('practice_round', [
      'exercise VARCHAR(20) CHARACTER SET ascii COLLATE ascii_bin NOT NULL',
      'is_shared TINYINT(1) NOT NULL',
      'name VARCHAR(60) NOT NULL',
      'seed INT NOT NULL',
      'tasks TEXT NOT NULL',
      `started_by ${ID} NOT NULL`,
      'started_at DATETIME(3) NOT NULL',
      'KEY practice_round_own (clinic_id, started_by, started_at)',
      'KEY practice_round_shared (clinic_id, is_shared, started_at)',
      within('practice_round', 'started_by', 'user'),
    ]),
    owned('practice_answer', [
      `round_id ${ID} NOT NULL`,
      'task INT NOT NULL',
      'answer TEXT NOT NULL',
      `answered_by ${ID} NOT NULL`,
      'answered_at DATETIME(3) NOT NULL',
      'UNIQUE KEY practice_answer_once (round_id, answered_by, task)',
      'KEY practice_answer_own (clinic_id, answered_by, answered_at)',
      within('practice_answer', 'round_id', 'practice_round'),
      within('practice_answer', 'answered_by', 'user'),
    ]),
    refuse('practice_round_stays', 'practice_round', 'UPDATE', 'practice_round: stays as it was drawn'),
    refuse('practice_round_kept', 'practice_round', 'DELETE', 'practice_round: is kept'),
    refuse('practice_answer_stays', 'practice_answer', 'UPDATE', 'practice_answer: stays as it was given'),
    refuse('practice_answer_kept', 'practice_answer', 'DELETE', 'practice_answer: is kept'),
    `ALTER TABLE study ADD COLUMN IF NOT EXISTS practice_round_id ${ID} NULL`,
    `ALTER TABLE study ADD ${withinIfMissing('study', 'practice_round_id', 'practice_round')}`,
  ];

  override readonly back = [
    'ALTER TABLE study DROP FOREIGN KEY IF EXISTS study_practice_round_id',
    'ALTER TABLE study DROP COLUMN IF EXISTS practice_round_id',
    ...['practice_round_stays', 'practice_round_kept', 'practice_answer_stays', 'practice_answer_kept'].map(
      (name) => `DROP TRIGGER IF EXISTS ${name}`,
    ),
    'DROP TABLE IF EXISTS practice_answer',
    'DROP TABLE IF EXISTS practice_round',
  ];
}
