import type { MigrationInterface, QueryRunner } from 'typeorm';
import { ID, owned, within } from './sql.js';

const VALUE = 'DECIMAL(7,2)';

/** Signing with a copy of the findings, goals, retests within a visit, studies of the clinic's own error, and the order of findings. */
export class Judge1700000000005 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      'ALTER TABLE episode ADD COLUMN complaint_at VARCHAR(20) NULL',
      'ALTER TABLE visit ADD COLUMN summary TEXT NULL, ADD COLUMN amending TEXT NULL, ADD COLUMN signed TINYINT(1) NOT NULL DEFAULT 0',
      "ALTER TABLE clinic ADD COLUMN ranking VARCHAR(30) NOT NULL DEFAULT 'largest-first'",
      owned('signature', [
        `visit_id ${ID} NOT NULL`,
        'number INT NOT NULL',
        'summary TEXT NOT NULL',
        "why VARCHAR(300) NOT NULL DEFAULT ''",
        'judgement LONGTEXT NOT NULL',
        `signed_by ${ID} NOT NULL`,
        'signed_at DATETIME(3) NOT NULL',
        'UNIQUE KEY signature_number (clinic_id, visit_id, number)',
        within('signature', 'visit_id', 'visit'),
        within('signature', 'signed_by', 'user'),
      ]),
      owned('goal', [
        `episode_id ${ID} NOT NULL`,
        'protocol VARCHAR(90) NOT NULL',
        'digit TINYINT NOT NULL',
        'side VARCHAR(10) NOT NULL',
        'mode VARCHAR(10) NOT NULL',
        'choice TEXT NULL',
        `set_by ${ID} NOT NULL`,
        'set_at DATETIME(3) NOT NULL',
        'KEY goal_of (clinic_id, episode_id, set_at)',
        within('goal', 'episode_id', 'episode'),
        within('goal', 'set_by', 'user'),
      ]),
      owned('retest', [
        `visit_id ${ID} NOT NULL`,
        'markers TEXT NOT NULL',
        `started_by ${ID} NOT NULL`,
        'started_at DATETIME(3) NOT NULL',
        'finished_at DATETIME(3) NULL',
        within('retest', 'visit_id', 'visit'),
        within('retest', 'started_by', 'user'),
      ]),
      owned('retest_round', [
        `retest_id ${ID} NOT NULL`,
        'number INT NOT NULL',
        'drill VARCHAR(120) NOT NULL',
        `noted_by ${ID} NOT NULL`,
        'noted_at DATETIME(3) NOT NULL',
        'UNIQUE KEY retest_round_number (clinic_id, retest_id, number)',
        within('retest_round', 'retest_id', 'retest'),
        within('retest_round', 'noted_by', 'user'),
      ]),
      owned('retest_reading', [
        `retest_id ${ID} NOT NULL`,
        'round INT NOT NULL',
        'marker INT NOT NULL',
        `value ${VALUE} NOT NULL`,
        `held_by ${ID} NOT NULL`,
        'held_at DATETIME(3) NOT NULL',
        'KEY retest_reading_of (clinic_id, retest_id, held_at)',
        within('retest_reading', 'retest_id', 'retest'),
        within('retest_reading', 'held_by', 'user'),
      ]),
      owned('study', [
        'name VARCHAR(80) NOT NULL',
        'motion VARCHAR(60) NOT NULL',
        'protocol VARCHAR(90) NOT NULL',
        'digit TINYINT NOT NULL',
        'mode VARCHAR(10) NOT NULL',
        'instrument VARCHAR(20) NOT NULL',
        'kind VARCHAR(10) NOT NULL',
        'subjects INT NOT NULL',
        'raters INT NOT NULL',
        'turns TEXT NOT NULL',
        `started_by ${ID} NOT NULL`,
        'started_at DATETIME(3) NOT NULL',
        within('study', 'started_by', 'user'),
      ]),
      owned('study_reading', [
        `study_id ${ID} NOT NULL`,
        'subject INT NOT NULL',
        'rater INT NOT NULL',
        `value ${VALUE} NOT NULL`,
        `held_by ${ID} NOT NULL`,
        'held_at DATETIME(3) NOT NULL',
        'KEY study_reading_of (clinic_id, study_id, held_at)',
        within('study_reading', 'study_id', 'study'),
        within('study_reading', 'held_by', 'user'),
      ]),
      owned('own_error', [
        `study_id ${ID} NOT NULL`,
        'motion VARCHAR(60) NOT NULL',
        'instrument VARCHAR(20) NOT NULL',
        'protocol VARCHAR(90) NOT NULL',
        'examiners VARCHAR(10) NOT NULL',
        'basis VARCHAR(15) NOT NULL',
        'sem DOUBLE NOT NULL',
        'subjects INT NOT NULL',
        'raters INT NOT NULL',
        'adopted_on DATE NOT NULL',
        `adopted_by ${ID} NOT NULL`,
        'adopted_at DATETIME(3) NOT NULL',
        'removed_at DATETIME(3) NULL',
        `removed_by ${ID} NULL`,
        within('own_error', 'study_id', 'study'),
        within('own_error', 'adopted_by', 'user'),
      ]),
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    const statements = [
      ...['own_error', 'study_reading', 'study', 'retest_reading', 'retest_round', 'retest', 'goal', 'signature'].map(
        (table) => `DROP TABLE ${table}`,
      ),
      'ALTER TABLE clinic DROP COLUMN ranking',
      'ALTER TABLE visit DROP COLUMN signed, DROP COLUMN amending, DROP COLUMN summary',
      'ALTER TABLE episode DROP COLUMN complaint_at',
    ];
    for (const statement of statements) await runner.query(statement);
  }
}
