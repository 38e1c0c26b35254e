import { Steps } from './steps.js';

/** What is to be measured at a visit, and readings at two sites. */
export class Sheet1700000000003 extends Steps {
  override readonly there = [
    'ALTER TABLE visit ADD COLUMN IF NOT EXISTS sheet TEXT NULL',
    `ALTER TABLE trial ADD COLUMN IF NOT EXISTS lower_zero DECIMAL(5,1) NULL AFTER end_angle,
      ADD COLUMN IF NOT EXISTS lower_end DECIMAL(5,1) NULL AFTER lower_zero`,
  ];

  override readonly back = [
    'ALTER TABLE trial DROP COLUMN IF EXISTS lower_end, DROP COLUMN IF EXISTS lower_zero',
    'ALTER TABLE visit DROP COLUMN IF EXISTS sheet',
  ];
}
