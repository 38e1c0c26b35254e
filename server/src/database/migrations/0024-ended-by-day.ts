import { Steps } from './steps.js';

/** Whoever is discharged is shown by the day of it, and found through in that order. */
export class EndedByDay1700000000024 extends Steps {
  override readonly there = ['ALTER TABLE episode ADD KEY IF NOT EXISTS episode_by_ended (clinic_id, ended_on, id)'];
  override readonly back = ['ALTER TABLE episode DROP KEY IF EXISTS episode_by_ended'];
}
