import { ACCOUNT } from './account.js';
import { CLINIC } from './clinic.js';
import { EPISODES } from './episodes.js';
import { GOALS } from './goals.js';
import { JUDGEMENT } from './judgement.js';
import { NORMS } from './norms.js';
import { PATIENTS } from './patients.js';
import { PROGRESS } from './progress.js';
import { READINGS } from './readings.js';
import { RELIABILITY } from './reliability.js';
import { RETESTS } from './retests.js';
import { VISITS } from './visits.js';

/** Routes by resource: one line each. The server, the OpenAPI document and its tags read this list. */
export const RESOURCES = {
  account: ACCOUNT,
  patients: PATIENTS,
  episodes: EPISODES,
  visits: VISITS,
  readings: READINGS,
  judgement: JUDGEMENT,
  goals: GOALS,
  progress: PROGRESS,
  retests: RETESTS,
  norms: NORMS,
  reliability: RELIABILITY,
  clinic: CLINIC,
} as const;
