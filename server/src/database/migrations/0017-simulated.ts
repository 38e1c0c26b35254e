import { refuse } from './sql.js';
import { FACTS_OF_A_TRIAL, trialChanged } from './0006-kept.js';
import { Steps } from './steps.js';

/** Readings of simulated instruments are told apart for good. */
export class Simulated1700000000017 extends Steps {
  override readonly there = [
    'ALTER TABLE trial ADD COLUMN IF NOT EXISTS simulated TINYINT(1) NOT NULL DEFAULT 0',
    refuse('trial_stays', 'trial', 'UPDATE', 'trial: a reading stays as it was entered', trialChanged([...FACTS_OF_A_TRIAL, 'simulated'])),
  ];

  override readonly back = [
    refuse('trial_stays', 'trial', 'UPDATE', 'trial: a reading stays as it was entered', trialChanged(FACTS_OF_A_TRIAL)),
    'ALTER TABLE trial DROP COLUMN IF EXISTS simulated',
  ];
}
