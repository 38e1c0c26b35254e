import { Steps } from './steps.js';

/** Which screens are chosen for a visit. */
export class ScreenPlan1700000000009 extends Steps {
  override readonly there = ['ALTER TABLE visit ADD COLUMN IF NOT EXISTS screen_plan TEXT NULL AFTER plan'];

  override readonly back = ['ALTER TABLE visit DROP COLUMN IF EXISTS screen_plan'];
}
