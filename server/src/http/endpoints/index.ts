import { audit } from './audit.js';
import { atHandOfToday } from './at-hand.js';
import { account } from './account.js';
import { clinic } from './clinic.js';
import { cohort } from './cohort.js';
import { clips } from './clips.js';
import { drills } from './drills.js';
import { episodes } from './episodes.js';
import { goals } from './goals.js';
import { pairings } from './live.js';
import { norms } from './norms.js';
import { valueChecks } from './value-checks.js';
import { past } from './past.js';
import { patientPages } from './patient-pages.js';
import { patients } from './patients.js';
import { ChangeRow } from '../../database/change-log.js';
import type { Resource } from '../endpoint.js';
import { persons } from './persons.js';
import { practice } from './practice.js';
import { programs } from './programs.js';
import { progress } from './progress.js';
import { stories } from './queue.js';
import { readings } from './readings.js';
import { reliability } from './reliability.js';
import { reports } from './reports.js';
import { retests } from './retests.js';
import { screens } from './screens.js';
import { signing } from './signing.js';
import { staff } from './staff.js';
import { takeovers } from './takeovers.js';
import { visits } from './visits.js';

/** Everything the server keeps and answers, one line a resource. */
export const RESOURCES: readonly Resource[] = [
  account,
  staff,
  audit,
  patients,
  persons,
  episodes,
  stories,
  visits,
  atHandOfToday,
  readings,
  signing,
  goals,
  drills,
  programs,
  pairings,
  clips,
  practice,
  patientPages,
  past,
  progress,
  reports,
  retests,
  screens,
  takeovers,
  norms,
  valueChecks,
  reliability,
  clinic,
  cohort,
];

export const ENTITIES = [...RESOURCES.flatMap((resource) => resource.entities), ChangeRow];
