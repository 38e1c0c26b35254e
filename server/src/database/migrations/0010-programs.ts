import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

/** Programmes as they were given. */
export class Programs1700000000010 extends Steps {
  override readonly there = [
    owned('program', [
      `visit_id ${ID} NOT NULL`,
      'number INT NOT NULL',
      'choices TEXT NOT NULL',
      'drills TEXT NOT NULL',
      'recheck_on DATE NOT NULL',
      'note VARCHAR(1000) NOT NULL',
      `given_by ${ID} NOT NULL`,
      'given_at DATETIME(3) NOT NULL',
      'UNIQUE KEY program_number (clinic_id, visit_id, number)',
      within('program', 'visit_id', 'visit'),
      within('program', 'given_by', 'user'),
    ]),
    refuse('program_stays', 'program', 'UPDATE', 'program: what was given stays as it is'),
    refuse('program_kept', 'program', 'DELETE', 'program: what was given is kept'),
  ];

  override readonly back = ['DROP TRIGGER IF EXISTS program_stays', 'DROP TRIGGER IF EXISTS program_kept', 'DROP TABLE IF EXISTS program'];
}
