import { ID, owned, refuse, within } from './sql.js';
import { Steps } from './steps.js';

const FACTS = ['screen_try', 'screen_settings'];

/** Movement screens as they were run, try by try, and how a clinic has them. */
export class Screens1700000000008 extends Steps {
  override readonly there = [
    owned('screen_try', [
      `visit_id ${ID} NOT NULL`,
      'screen VARCHAR(40) NOT NULL',
      'item VARCHAR(80) NOT NULL',
      "view VARCHAR(10) NOT NULL DEFAULT ''",
      'changes TEXT NOT NULL',
      "side VARCHAR(10) NOT NULL DEFAULT ''",
      'seen TEXT NULL',
      'skipped VARCHAR(200) NULL',
      `corrects ${ID} NULL`,
      `held_by ${ID} NOT NULL`,
      'held_at DATETIME(3) NOT NULL',
      'KEY screen_try_of (clinic_id, visit_id, held_at)',
      'UNIQUE KEY screen_try_corrects (clinic_id, corrects)',
      within('screen_try', 'visit_id', 'visit'),
      within('screen_try', 'corrects', 'screen_try'),
      within('screen_try', 'held_by', 'user'),
    ]),
    owned('screen_settings', [
      'since DATE NOT NULL',
      'settings MEDIUMTEXT NOT NULL',
      `set_by ${ID} NOT NULL`,
      'set_at DATETIME(3) NOT NULL',
      'KEY screen_settings_since (clinic_id, since, set_at)',
      within('screen_settings', 'set_by', 'user'),
    ]),
    ...FACTS.flatMap((table) => [
      refuse(`${table}_stays`, table, 'UPDATE', `${table}: what was written stays as it is`),
      refuse(`${table}_kept`, table, 'DELETE', `${table}: what was written is kept`),
    ]),
  ];

  override readonly back = [
    ...FACTS.flatMap((table) => [`DROP TRIGGER IF EXISTS ${table}_stays`, `DROP TRIGGER IF EXISTS ${table}_kept`]),
    'DROP TABLE IF EXISTS screen_settings',
    'DROP TABLE IF EXISTS screen_try',
  ];
}
