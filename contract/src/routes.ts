import { ACCOUNT } from './account.js';
import { AT_HAND } from './at-hand.js';
import { AUDIT } from './audit.js';
import { CLINIC } from './clinic.js';
import { CLIPS } from './clips.js';
import { COHORT } from './cohort.js';
import { DRILL_LIST } from './drills.js';
import { EPISODES } from './episodes.js';
import { GOALS } from './goals.js';
import { JUDGEMENT } from './judgement.js';
import { PAIRINGS } from './live.js';
import { NORMS } from './norms.js';
import { PAST } from './past.js';
import { PATIENT_PAGES } from './patient-pages.js';
import { PATIENTS } from './patients.js';
import { PERSONS } from './persons.js';
import { PRACTICE } from './practice.js';
import { PROGRAMS } from './programs.js';
import { PROGRESS } from './progress.js';
import { READINGS } from './readings.js';
import { RELIABILITY } from './reliability.js';
import { REPORTS } from './reports.js';
import { RETESTS } from './retests.js';
import { SCREENINGS } from './screens.js';
import { STAFF } from './staff.js';
import { STORIES } from './story.js';
import { TAKEOVERS } from './takeovers.js';
import { VALUE_CHECKS } from './value-checks.js';
import { VISITS } from './visits.js';

/** Routes by resource: one line each. The server, the OpenAPI document and its tags read this list. */
export const RESOURCES = {
  account: ACCOUNT,
  staff: STAFF,
  audit: AUDIT,
  patients: PATIENTS,
  persons: PERSONS,
  episodes: EPISODES,
  stories: STORIES,
  visits: VISITS,
  atHand: AT_HAND,
  readings: READINGS,
  judgement: JUDGEMENT,
  goals: GOALS,
  drills: DRILL_LIST,
  programs: PROGRAMS,
  pairings: PAIRINGS,
  clips: CLIPS,
  practice: PRACTICE,
  patientPages: PATIENT_PAGES,
  past: PAST,
  progress: PROGRESS,
  reports: REPORTS,
  retests: RETESTS,
  screens: SCREENINGS,
  takeovers: TAKEOVERS,
  norms: NORMS,
  valueChecks: VALUE_CHECKS,
  reliability: RELIABILITY,
  clinic: CLINIC,
  cohort: COHORT,
} as const;
