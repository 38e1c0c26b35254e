import { refuse } from './sql.js';
import { Steps } from './steps.js';

const SAME =
  'NEW.clinic_id = OLD.clinic_id AND NEW.kind = OLD.kind AND NEW.user_id <=> OLD.user_id AND NEW.email = OLD.email AND NEW.role = OLD.role AND NEW.token_hash = OLD.token_hash AND NEW.expires_at = OLD.expires_at AND OLD.used_at IS NULL AND OLD.withdrawn_at IS NULL';
const stays = (same: string): string =>
  refuse(
    'account_link_stays',
    'account_link',
    'UPDATE',
    'account_link: is used or taken back once, and stays what it was for',
    `NOT (${same})`,
  );

/** A password link that a lead saw opens only with the second factor of the person; that one was used is told to the person. */
export class PasswordLinks1700000000029 extends Steps {
  override readonly there = [
    'ALTER TABLE account_link ADD COLUMN IF NOT EXISTS needs_factor TINYINT(1) NOT NULL DEFAULT 0',
    'ALTER TABLE `user` ADD COLUMN IF NOT EXISTS link_used_at DATETIME(3) NULL, ADD COLUMN IF NOT EXISTS link_made_by VARCHAR(120) NULL',
    stays(`${SAME} AND NEW.needs_factor = OLD.needs_factor`),
  ];
  override readonly back = [
    stays(SAME),
    'ALTER TABLE `user` DROP COLUMN IF EXISTS link_used_at, DROP COLUMN IF EXISTS link_made_by',
    'ALTER TABLE account_link DROP COLUMN IF EXISTS needs_factor',
  ];
}
