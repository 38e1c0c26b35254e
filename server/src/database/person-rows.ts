/** How the rows of a table are found that are about one person: a column that holds the id of a row of another such table. */
interface Below {
  readonly of: string;
  readonly by: readonly string[];
  /** Holds nothing but keys: it goes, and is not handed over. */
  readonly keysAlone?: true;
}

/**
 * Every table that holds something of a person, below the one whose rows it
 * hangs on; those above first. A test holds it against the database: a table
 * that points at one of these, or names a patient, is here or in `STAYS`.
 */
export const OF_PERSON: Readonly<Record<string, Below>> = {
  episode: { of: 'patient', by: ['patient_id'] },
  patient_merge: { of: 'patient', by: ['kept_id', 'gone_id'] },
  cohort_person: { of: 'patient', by: ['patient_id'] },
  cohort_outcome: { of: 'patient', by: ['patient_id'] },
  episode_word: { of: 'episode', by: ['episode_id'] },
  goal: { of: 'episode', by: ['episode_id'] },
  past_batch: { of: 'episode', by: ['episode_id'] },
  patient_page: { of: 'episode', by: ['episode_id'] },
  patient_day: { of: 'episode', by: ['episode_id'] },
  patient_page_key: { of: 'patient_page', by: ['page_id'], keysAlone: true },
  visit: { of: 'episode', by: ['episode_id'] },
  measurement: { of: 'visit', by: ['visit_id'] },
  trial: { of: 'measurement', by: ['measurement_id'] },
  screen_try: { of: 'visit', by: ['visit_id'] },
  retest: { of: 'visit', by: ['visit_id'] },
  retest_round: { of: 'retest', by: ['retest_id'] },
  retest_reading: { of: 'retest', by: ['retest_id'] },
  program: { of: 'visit', by: ['visit_id'] },
  clip_review: { of: 'visit', by: ['visit_id'] },
  still: { of: 'visit', by: ['visit_id'] },
  pairing: { of: 'visit', by: ['visit_id'], keysAlone: true },
  late_entry: { of: 'visit', by: ['visit_id'] },
  signature: { of: 'visit', by: ['visit_id'] },
  countersignature: { of: 'signature', by: ['signature_id'] },
};

/** Subjects of the change log that are about a person: as it names them, and their table. */
const LOGGED = ['patient', 'episode', 'visit', 'measurement'] as const;

/** Tables that name a patient by a number alone and keep that. */
export const STAYS: Readonly<Record<string, string>> = {
  audit_entry: 'who looked at and changed the record, and when: by a number that leads nowhere any more',
  erasure: 'that the record was erased, when, by whom and why',
};

/** Tables whose rows are gone within a minute by themselves, and hold nothing but ids. */
export const PASSING: readonly string[] = ['queue_mark'];

/** What stays beyond this database, where nothing reaches it. */
export const STAYS_ELSEWHERE = [
  'groups of twenty people and more in the clinic’s own figures',
  'pages and files that were handed over or sent',
  'backups, until the last one that holds the record is thrown away',
] as const;

export interface Selected {
  readonly sql: string;
  readonly values: readonly unknown[];
}

/** Which rows of a table are of the people named. */
export function rowsOf(table: string, clinicId: string, people: readonly string[]): Selected {
  if (table === 'patient') return { sql: 'clinic_id = ? AND id IN (?)', values: [clinicId, people] };
  if (table === 'change_log') return loggedOf(clinicId, people);
  const { of, by } = OF_PERSON[table]!;
  const above = rowsOf(of, clinicId, people);
  const found = by.map((column) => `${column} IN (SELECT id FROM \`${of}\` WHERE ${above.sql})`);
  return { sql: `clinic_id = ? AND (${found.join(' OR ')})`, values: [clinicId, ...by.flatMap(() => above.values)] };
}

function loggedOf(clinicId: string, people: readonly string[]): Selected {
  const parts = LOGGED.map((subject) => ({ subject, ...rowsOf(subject, clinicId, people) }));
  return {
    sql: `clinic_id = ? AND (${parts.map(({ subject, sql }) => `(subject = '${subject}' AND subject_id IN (SELECT id FROM \`${subject}\` WHERE ${sql}))`).join(' OR ')})`,
    values: [clinicId, ...parts.flatMap(({ values }) => values)],
  };
}

/** All of them, those above first; the change log goes before what it is about. */
export const TABLES: readonly string[] = ['patient', ...Object.keys(OF_PERSON), 'change_log'];
