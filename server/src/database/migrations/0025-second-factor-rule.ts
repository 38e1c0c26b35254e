import { Steps } from './steps.js';

/** A clinic may ask a second factor of everybody who signs in, from a moment on. */
export class SecondFactorRule1700000000025 extends Steps {
  override readonly there = ['ALTER TABLE clinic ADD COLUMN IF NOT EXISTS second_factor_since DATETIME(3) NULL'];
  override readonly back = ['ALTER TABLE clinic DROP COLUMN IF EXISTS second_factor_since'];
}
