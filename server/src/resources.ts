import { audit } from './audit/index.js';
import { atHandOfToday } from './at-hand/index.js';
import { account } from './account/index.js';
import { clinic } from './clinic/index.js';
import { cohort } from './cohort/index.js';
import { clips } from './clips/index.js';
import { drills } from './drills/index.js';
import { episodes } from './episodes/index.js';
import { goals } from './goals/index.js';
import { pairings } from './live/index.js';
import { norms } from './norms/index.js';
import { past } from './past/index.js';
import { patientPages } from './patient-pages/index.js';
import { patients } from './patients/index.js';
import { ChangeRow } from './platform/change-log.js';
import type { Resource } from './platform/resource.js';
import { persons } from './persons/index.js';
import { practice } from './practice/index.js';
import { programs } from './programs/index.js';
import { progress } from './progress/index.js';
import { stories } from './queue/index.js';
import { readings } from './readings/index.js';
import { reliability } from './reliability/index.js';
import { reports } from './reports/index.js';
import { retests } from './retests/index.js';
import { screens } from './screens/index.js';
import { signing } from './signing/index.js';
import { staff } from './staff/index.js';
import { takeovers } from './takeovers/index.js';
import { visits } from './visits/index.js';

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
  reliability,
  clinic,
  cohort,
];

export const ENTITIES = [...RESOURCES.flatMap((resource) => resource.entities), ChangeRow];
