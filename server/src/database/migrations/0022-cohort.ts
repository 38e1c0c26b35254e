import { ID, owned, TABLE, within } from './sql.js';
import { Steps } from './steps.js';

const WAY =
  'motion VARCHAR(60) NOT NULL, position VARCHAR(20) NOT NULL, variant VARCHAR(40) NOT NULL, digit TINYINT NOT NULL, mode VARCHAR(10) NOT NULL';
const OF_RUN = (table: string): string => `CONSTRAINT ${table}_run FOREIGN KEY (clinic_id, run_id) REFERENCES cohort_run (clinic_id, id)`;

/** The clinic's own people as groups: a count in batches, what it gathers meanwhile by person, and what it tells. */
export class Cohort1700000000022 extends Steps {
  override readonly there = [
    owned('cohort_run', [
      'asked_at DATETIME(3) NOT NULL',
      `asked_by ${ID} NULL`,
      "after_visit VARCHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL DEFAULT ''",
      'gathered BOOLEAN NOT NULL DEFAULT 0',
      'visits INT NOT NULL DEFAULT 0',
      'readings INT NOT NULL DEFAULT 0',
      'lease_until DATETIME(3) NOT NULL',
      'leased_by VARCHAR(36) NOT NULL',
      'finished_at DATETIME(3) NULL',
      'KEY cohort_run_open (finished_at, lease_until)',
      'KEY cohort_run_last (clinic_id, finished_at)',
      within('cohort_run', 'asked_by', 'user'),
    ]),
    `CREATE TABLE IF NOT EXISTS cohort_person (clinic_id ${ID} NOT NULL, run_id ${ID} NOT NULL, ${WAY}, patient_id ${ID} NOT NULL,
        protocol VARCHAR(110) NOT NULL, sex VARCHAR(10) NOT NULL, age TINYINT NOT NULL, examiner_id ${ID} NOT NULL, on_day DATE NOT NULL,
        value DECIMAL(5,1) NOT NULL,
        PRIMARY KEY (run_id, motion, position, variant, digit, mode, patient_id), ${OF_RUN('cohort_person')}) ${TABLE}`,
    `CREATE TABLE IF NOT EXISTS cohort_outcome (clinic_id ${ID} NOT NULL, run_id ${ID} NOT NULL, procedure_id VARCHAR(60) NOT NULL, ${WAY},
        week TINYINT NOT NULL, patient_id ${ID} NOT NULL, protocol VARCHAR(110) NOT NULL, on_day DATE NOT NULL, value DECIMAL(5,1) NOT NULL,
        PRIMARY KEY (run_id, procedure_id, motion, position, variant, digit, mode, week, patient_id), ${OF_RUN('cohort_outcome')}) ${TABLE}`,
    owned('cohort_told', [
      `run_id ${ID} NOT NULL`,
      'kind VARCHAR(10) NOT NULL',
      'told MEDIUMTEXT NOT NULL',
      'KEY cohort_told_of (run_id, kind, id)',
      OF_RUN('cohort_told'),
    ]),
  ];

  override readonly back = ['cohort_told', 'cohort_outcome', 'cohort_person', 'cohort_run'].map((table) => `DROP TABLE IF EXISTS ${table}`);
}
