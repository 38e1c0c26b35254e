import { TABLE } from './sql.js';
import { Steps } from './steps.js';

const SHA256 = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';

/** Wrong tries at passwords and codes, one row for each budget, changed by single statements. Times are milliseconds since 1970. */
export class AttemptBudgets1700000000026 extends Steps {
  override readonly there = [
    `CREATE TABLE IF NOT EXISTS attempt_budget (bucket ${SHA256} NOT NULL PRIMARY KEY, tries INT NOT NULL, free_at BIGINT NOT NULL,
        expires_at BIGINT NOT NULL, last_id CHAR(36) CHARACTER SET ascii COLLATE ascii_bin NOT NULL, KEY attempt_budget_expires (expires_at)) ${TABLE}`,
    'DROP TABLE IF EXISTS sign_in_failure',
  ];
  override readonly back = [
    'DROP TABLE IF EXISTS attempt_budget',
    `CREATE TABLE IF NOT EXISTS sign_in_failure (\`key\` VARCHAR(255) CHARACTER SET utf8 COLLATE utf8_bin NOT NULL,
        points INT(9) NOT NULL DEFAULT 0, expire BIGINT UNSIGNED, PRIMARY KEY (\`key\`), KEY expire (expire)) ${TABLE}`,
  ];
}
