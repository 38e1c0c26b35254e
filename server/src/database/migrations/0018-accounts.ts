import { ID, owned, refuse, TABLE, within } from './sql.js';
import { Steps } from './steps.js';

const SHA256 = 'CHAR(64) CHARACTER SET ascii COLLATE ascii_bin';

/**
 * Roles, accounts that are closed, a second factor, links to join by, the
 * founding of a clinic. Whoever has an account already could do everything: is
 * a lead.
 */
export class Accounts1700000000018 extends Steps {
  override readonly there = [
    "ALTER TABLE `user` ADD COLUMN IF NOT EXISTS role VARCHAR(12) NOT NULL DEFAULT 'lead'",
    'ALTER TABLE `user` ALTER COLUMN role DROP DEFAULT',
    'ALTER TABLE `user` ADD COLUMN IF NOT EXISTS password_since DATETIME(3) NULL',
    'ALTER TABLE `user` ADD COLUMN IF NOT EXISTS ended_at DATETIME(3) NULL',
    'ALTER TABLE session ADD COLUMN IF NOT EXISTS wants_proof TINYINT(1) NOT NULL DEFAULT 0',
    `CREATE TABLE IF NOT EXISTS second_factor (user_id ${ID} NOT NULL PRIMARY KEY, secret VARCHAR(200) NOT NULL, confirmed_at DATETIME(3) NULL,
        last_step INT NOT NULL, CONSTRAINT second_factor_user FOREIGN KEY (user_id) REFERENCES \`user\` (id) ON DELETE CASCADE) ${TABLE}`,
    `CREATE TABLE IF NOT EXISTS recovery_code (code_hash ${SHA256} NOT NULL PRIMARY KEY, user_id ${ID} NOT NULL, used_at DATETIME(3) NULL,
        KEY recovery_code_of (user_id), CONSTRAINT recovery_code_user FOREIGN KEY (user_id) REFERENCES \`user\` (id) ON DELETE CASCADE) ${TABLE}`,
    owned('account_link', [
      'kind VARCHAR(12) NOT NULL',
      `user_id ${ID} NULL`,
      'name VARCHAR(120) NOT NULL',
      'email VARCHAR(200) NOT NULL',
      'role VARCHAR(12) NOT NULL',
      `token_hash ${SHA256} NOT NULL`,
      `made_by ${ID} NOT NULL`,
      'made_at DATETIME(3) NOT NULL',
      'expires_at DATETIME(3) NOT NULL',
      'used_at DATETIME(3) NULL',
      'withdrawn_at DATETIME(3) NULL',
      'UNIQUE KEY account_link_token (token_hash)',
      within('account_link', 'made_by', 'user'),
    ]),
    refuse('account_link_kept', 'account_link', 'DELETE', 'account_link: is kept'),
    refuse(
      'account_link_stays',
      'account_link',
      'UPDATE',
      'account_link: is used or taken back once, and stays what it was for',
      'NOT (NEW.clinic_id = OLD.clinic_id AND NEW.kind = OLD.kind AND NEW.user_id <=> OLD.user_id AND NEW.email = OLD.email AND NEW.role = OLD.role AND NEW.token_hash = OLD.token_hash AND NEW.expires_at = OLD.expires_at AND OLD.used_at IS NULL AND OLD.withdrawn_at IS NULL)',
    ),
    `CREATE TABLE IF NOT EXISTS founding_code (code_hash ${SHA256} NOT NULL PRIMARY KEY, made_at DATETIME(3) NOT NULL) ${TABLE}`,
    `CREATE TABLE IF NOT EXISTS founded (one TINYINT NOT NULL PRIMARY KEY, clinic_id ${ID} NOT NULL, founded_at DATETIME(3) NOT NULL) ${TABLE}`,
    owned('countersignature', [
      `signature_id ${ID} NOT NULL`,
      `signed_by ${ID} NOT NULL`,
      'signed_at DATETIME(3) NOT NULL',
      'UNIQUE KEY countersignature_of (signature_id)',
      within('countersignature', 'signature_id', 'signature'),
      within('countersignature', 'signed_by', 'user'),
    ]),
    refuse('countersignature_stays', 'countersignature', 'UPDATE', 'countersignature: what was written stays as it is'),
    refuse('countersignature_kept', 'countersignature', 'DELETE', 'countersignature: what was written is kept'),
  ];

  override readonly back = [
    'DROP TRIGGER IF EXISTS countersignature_stays',
    'DROP TRIGGER IF EXISTS countersignature_kept',
    'DROP TABLE IF EXISTS countersignature',
    'DROP TABLE IF EXISTS founded',
    'DROP TABLE IF EXISTS founding_code',
    'DROP TRIGGER IF EXISTS account_link_kept',
    'DROP TRIGGER IF EXISTS account_link_stays',
    'DROP TABLE IF EXISTS account_link',
    'DROP TABLE IF EXISTS recovery_code',
    'DROP TABLE IF EXISTS second_factor',
    'ALTER TABLE session DROP COLUMN IF EXISTS wants_proof',
    'ALTER TABLE `user` DROP COLUMN IF EXISTS ended_at',
    'ALTER TABLE `user` DROP COLUMN IF EXISTS password_since',
    'ALTER TABLE `user` DROP COLUMN IF EXISTS role',
  ];
}
