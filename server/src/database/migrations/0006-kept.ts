import type { QueryRunner } from 'typeorm';
import { wordsOf } from './words-0006.js';
import { ID, owned, refuse, TABLE, within } from './sql.js';
import { Steps, type Step } from './steps.js';

/** From this moment on the database checks what a figure can be. What was written before stays as it is. */
const CHECKED_FROM = "'2026-11-26'";

/** What a protractor or a tilting device can show; a tape, a dynamometer or a stopwatch goes further. */
const ANGLE = "instrument IN ('goniometer', 'inclinometer', 'dualInclinometer', 'phone', 'picture')";
const figure = (column: string): string =>
  `saved_at < ${CHECKED_FROM} OR ${column} IS NULL OR ${column} BETWEEN IF(${ANGLE}, -360, -999) AND IF(${ANGLE}, 360, 5000)`;

const OLD_LOGS = [
  { table: 'amendment', subject: "'measurement'", subjectId: 'measurement_id', at: 'amended_at' },
  { table: 'record_change', subject: 'subject', subjectId: 'subject_id', at: 'changed_at' },
  { table: 'clinic_change', subject: "'clinic'", subjectId: 'clinic_id', at: 'changed_at' },
] as const;

const toOneLog = OLD_LOGS.flatMap(({ table, subject, subjectId, at }): Step[] => [
  {
    ifTable: table,
    sql: `INSERT INTO change_log (id, clinic_id, subject, subject_id, field, old_value, new_value, user_id, changed_at)
          SELECT id, clinic_id, ${subject}, ${subjectId}, field, old_value, new_value, user_id, ${at} FROM ${table} o
          WHERE NOT EXISTS (SELECT 1 FROM change_log c WHERE c.id = o.id)`,
  },
  `DROP TABLE IF EXISTS ${table}`,
]);

export const FACTS_OF_A_TRIAL = [
  'id', 'clinic_id', 'measurement_id', 'instrument', 'start_angle', 'end_angle', 'lower_zero', 'lower_end', 'scale', 'sense', 'entered',
  'past_limit', 'past_why', 'corrects', 'examiner_id', 'held_at', 'clock_off', 'saved_at',
]; // prettier-ignore
export const trialChanged = (facts: readonly string[]): string =>
  [
    ...facts.map((column) => `NOT (OLD.${column} <=> NEW.${column})`),
    '(OLD.withdrawn_at IS NOT NULL AND NOT (OLD.withdrawn_at <=> NEW.withdrawn_at AND OLD.withdrawn_by <=> NEW.withdrawn_by AND OLD.withdrawn_why = NEW.withdrawn_why))',
  ].join(' OR ');

const FACTS = ['signature', 'change_log', 'retest_round', 'retest_reading', 'study_reading', 'goal'];
const guards = [
  ...FACTS.flatMap((table) => [
    refuse(`${table}_stays`, table, 'UPDATE', `${table}: what was written stays as it is`),
    refuse(`${table}_kept`, table, 'DELETE', `${table}: what was written is kept`),
  ]),
  refuse('trial_stays', 'trial', 'UPDATE', 'trial: a reading stays as it was entered', trialChanged(FACTS_OF_A_TRIAL)),
  refuse('trial_kept', 'trial', 'DELETE', 'trial: a reading is withdrawn, never deleted'),
];

/** Words of names and complaints, so that a caseload is found through quickly; in pages, and again where it was cut off. */
async function fillWords(runner: QueryRunner): Promise<void> {
  for (let after = ''; ;) {
    const rows = (await runner.query(
      `SELECT e.id, e.clinic_id, e.complaint, p.given_name, p.family_name FROM episode e
         JOIN patient p ON p.clinic_id = e.clinic_id AND p.id = e.patient_id WHERE e.id > ? ORDER BY e.id LIMIT 500`,
      [after],
    )) as { id: string; clinic_id: string; complaint: string; given_name: string; family_name: string }[];
    if (rows.length === 0) return;
    after = rows[rows.length - 1]!.id;
    await runner.query('DELETE FROM episode_word WHERE episode_id IN (?)', [rows.map((row) => row.id)]);
    const words = rows.flatMap((row) =>
      wordsOf(row.given_name, row.family_name, row.complaint).map((word) => [row.clinic_id, word, row.id]),
    );
    if (words.length > 0) await runner.query('INSERT INTO episode_word (clinic_id, word, episode_id) VALUES ?', [words]);
  }
}

/** What is entered, signed and started is kept: one change log, guards round facts, late entries, sessions with their user, a caseload by keys. */
export class Kept1700000000006 extends Steps {
  override readonly there: Step[] = [
    // Sessions from before do not know their user: people sign in once more.
    'DELETE FROM session',
    `ALTER TABLE session
      ADD COLUMN IF NOT EXISTS user_id ${ID} NOT NULL,
      ADD COLUMN IF NOT EXISTS credential CHAR(64) CHARACTER SET ascii COLLATE ascii_bin NOT NULL,
      ADD COLUMN IF NOT EXISTS device VARCHAR(120) NOT NULL,
      ADD COLUMN IF NOT EXISTS started_at DATETIME(3) NOT NULL,
      ADD COLUMN IF NOT EXISTS seen_at DATETIME(3) NOT NULL,
      DROP COLUMN IF EXISTS data,
      ADD CONSTRAINT session_user FOREIGN KEY IF NOT EXISTS session_user (user_id) REFERENCES user (id) ON DELETE CASCADE`,
    `CREATE TABLE IF NOT EXISTS sign_in_failure (\`key\` VARCHAR(255) CHARACTER SET ascii COLLATE ascii_bin NOT NULL PRIMARY KEY,
      points INT NOT NULL DEFAULT 0, expire BIGINT UNSIGNED NULL) ${TABLE}`,
    owned('change_log', [
      'subject VARCHAR(12) NOT NULL',
      `subject_id ${ID} NOT NULL`,
      'field VARCHAR(30) NOT NULL',
      'old_value MEDIUMTEXT NULL',
      'new_value MEDIUMTEXT NULL',
      `user_id ${ID} NOT NULL`,
      'changed_at DATETIME(3) NOT NULL',
      'KEY change_log_of (clinic_id, subject_id, changed_at)',
      within('change_log', 'user_id', 'user'),
    ]),
    ...toOneLog,
    'ALTER TABLE signature ADD COLUMN IF NOT EXISTS context MEDIUMTEXT NULL',
    'ALTER TABLE visit ADD KEY IF NOT EXISTS visit_of_episode (clinic_id, episode_id, assessed_on, started_at)',
    `ALTER TABLE trial
      ADD COLUMN IF NOT EXISTS clock_off INT NULL,
      ADD KEY IF NOT EXISTS trial_held (clinic_id, held_at),
      ADD CONSTRAINT IF NOT EXISTS trial_start_can_be CHECK (${figure('start_angle')}),
      ADD CONSTRAINT IF NOT EXISTS trial_end_can_be CHECK (${figure('end_angle')}),
      ADD CONSTRAINT IF NOT EXISTS trial_lower_zero_can_be CHECK (${figure('lower_zero')}),
      ADD CONSTRAINT IF NOT EXISTS trial_lower_end_can_be CHECK (${figure('lower_end')})`,
    `ALTER TABLE retest_reading ADD CONSTRAINT IF NOT EXISTS retest_value_can_be
      CHECK (held_at < ${CHECKED_FROM} OR value BETWEEN -999 AND 5000)`,
    `ALTER TABLE study_reading ADD CONSTRAINT IF NOT EXISTS study_value_can_be
      CHECK (held_at < ${CHECKED_FROM} OR value BETWEEN -999 AND 5000)`,
    `ALTER TABLE episode
      ADD COLUMN IF NOT EXISTS due_on DATE NULL,
      ADD COLUMN IF NOT EXISTS sort_name VARCHAR(202) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS latest_at DATETIME(3) NOT NULL DEFAULT '1970-01-02',
      ADD COLUMN IF NOT EXISTS visit_count INT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS last_visit_id ${ID} NULL,
      ADD KEY IF NOT EXISTS episode_by_latest (clinic_id, latest_at, id),
      ADD KEY IF NOT EXISTS episode_by_name (clinic_id, sort_name, id),
      ADD KEY IF NOT EXISTS episode_by_due (clinic_id, due_on, id)`,
    `UPDATE episode e JOIN patient p ON p.clinic_id = e.clinic_id AND p.id = e.patient_id
        SET e.sort_name = CONCAT(p.family_name, ', ', p.given_name), e.latest_at = TIMESTAMP(e.opened_on)`,
    `UPDATE episode e JOIN (
        SELECT clinic_id, episode_id, COUNT(*) AS n, MAX(CONCAT(assessed_on, ' ', TIME(started_at), ' ', id)) AS last
          FROM visit GROUP BY clinic_id, episode_id) v ON v.clinic_id = e.clinic_id AND v.episode_id = e.id
        SET e.visit_count = v.n, e.last_visit_id = RIGHT(v.last, 36), e.latest_at = LEFT(v.last, 19)`,
    `CREATE TABLE IF NOT EXISTS episode_word (
      clinic_id ${ID} NOT NULL, word VARCHAR(40) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL, episode_id ${ID} NOT NULL,
      PRIMARY KEY (clinic_id, word, episode_id), KEY episode_word_of (clinic_id, episode_id, word),
      CONSTRAINT episode_word_episode FOREIGN KEY (clinic_id, episode_id) REFERENCES episode (clinic_id, id)) ${TABLE}`,
    fillWords,
    owned('late_entry', [
      `visit_id ${ID} NOT NULL`,
      'route VARCHAR(30) NOT NULL',
      `target ${ID} NOT NULL`,
      'body MEDIUMTEXT NOT NULL',
      'what VARCHAR(300) NOT NULL',
      'entered_at DATETIME(3) NOT NULL',
      `entered_by ${ID} NOT NULL`,
      'received_at DATETIME(3) NOT NULL',
      'decision VARCHAR(10) NULL',
      `decided_by ${ID} NULL`,
      'decided_at DATETIME(3) NULL',
      "decided_why VARCHAR(300) NOT NULL DEFAULT ''",
      'KEY late_entry_of (clinic_id, visit_id, received_at)',
      within('late_entry', 'visit_id', 'visit'),
      within('late_entry', 'entered_by', 'user'),
      within('late_entry', 'decided_by', 'user'),
    ]),
    ...guards,
  ];

  override readonly back: Step[] = [
    ...[...FACTS, 'trial'].flatMap((table) => [`DROP TRIGGER IF EXISTS ${table}_stays`, `DROP TRIGGER IF EXISTS ${table}_kept`]),
    'DROP TABLE IF EXISTS late_entry',
    'DROP TABLE IF EXISTS episode_word',
    `ALTER TABLE episode DROP KEY IF EXISTS episode_by_due, DROP KEY IF EXISTS episode_by_name, DROP KEY IF EXISTS episode_by_latest,
      DROP COLUMN IF EXISTS last_visit_id, DROP COLUMN IF EXISTS visit_count, DROP COLUMN IF EXISTS latest_at,
      DROP COLUMN IF EXISTS sort_name, DROP COLUMN IF EXISTS due_on`,
    'ALTER TABLE study_reading DROP CONSTRAINT IF EXISTS study_value_can_be',
    'ALTER TABLE retest_reading DROP CONSTRAINT IF EXISTS retest_value_can_be',
    `ALTER TABLE trial DROP CONSTRAINT IF EXISTS trial_lower_end_can_be, DROP CONSTRAINT IF EXISTS trial_lower_zero_can_be,
      DROP CONSTRAINT IF EXISTS trial_end_can_be, DROP CONSTRAINT IF EXISTS trial_start_can_be,
      DROP KEY IF EXISTS trial_held, DROP COLUMN IF EXISTS clock_off`,
    'ALTER TABLE visit ADD KEY IF NOT EXISTS visit_episode_id (clinic_id, episode_id), DROP KEY IF EXISTS visit_of_episode',
    'ALTER TABLE signature DROP COLUMN IF EXISTS context',
    ...OLD_LOGS.flatMap(({ table, subject, subjectId, at }): Step[] => {
      const own =
        table === 'record_change'
          ? ['subject VARCHAR(10) NOT NULL', `subject_id ${ID} NOT NULL`]
          : table === 'amendment'
            ? [`${subjectId} ${ID} NOT NULL`]
            : [];
      const names = table === 'record_change' ? ['subject', 'subject_id'] : table === 'amendment' ? [subjectId] : [];
      const values = table === 'record_change' ? ['subject', 'subject_id'] : table === 'amendment' ? ['subject_id'] : [];
      const which = table === 'record_change' ? "subject IN ('episode', 'visit')" : `subject = ${subject}`;
      return [
        owned(table, [
          ...own,
          'field VARCHAR(30) NOT NULL',
          'old_value MEDIUMTEXT NULL',
          'new_value MEDIUMTEXT NULL',
          `user_id ${ID} NOT NULL`,
          `${at} DATETIME(3) NOT NULL`,
          within(table, 'user_id', 'user'),
        ]),
        {
          ifTable: 'change_log',
          sql: `INSERT INTO ${table} (${['id', 'clinic_id', ...names, 'field', 'old_value', 'new_value', 'user_id', at].join(', ')})
            SELECT ${['id', 'clinic_id', ...values, 'field', 'old_value', 'new_value', 'user_id', 'changed_at'].join(', ')} FROM change_log c
            WHERE ${which} AND NOT EXISTS (SELECT 1 FROM ${table} o WHERE o.id = c.id)`,
        },
      ];
    }),
    'DROP TABLE IF EXISTS change_log',
    'DROP TABLE IF EXISTS sign_in_failure',
    'DELETE FROM session',
    `ALTER TABLE session DROP FOREIGN KEY IF EXISTS session_user, DROP KEY IF EXISTS session_user, DROP COLUMN IF EXISTS seen_at,
      DROP COLUMN IF EXISTS started_at, DROP COLUMN IF EXISTS device, DROP COLUMN IF EXISTS credential, DROP COLUMN IF EXISTS user_id,
      ADD COLUMN IF NOT EXISTS data TEXT NOT NULL`,
  ];
}
