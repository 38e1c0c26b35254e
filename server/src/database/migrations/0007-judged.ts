import { Steps } from './steps.js';

/** Every clinic's order of norm sets. */
export class Judged1700000000007 extends Steps {
  readonly there = ['ALTER TABLE clinic ADD COLUMN IF NOT EXISTS norm_order TEXT NULL'];
  readonly back = ['ALTER TABLE clinic DROP COLUMN IF EXISTS norm_order'];
}
