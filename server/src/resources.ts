import { account } from './account/index.js';
import { clinic } from './clinic/index.js';
import { episodes } from './episodes/index.js';
import { goals } from './goals/index.js';
import { norms } from './norms/index.js';
import { patients } from './patients/index.js';
import { ChangeRow } from './platform/change-log.js';
import type { Resource } from './platform/resource.js';
import { progress } from './progress/index.js';
import { readings } from './readings/index.js';
import { reliability } from './reliability/index.js';
import { retests } from './retests/index.js';
import { signing } from './signing/index.js';
import { visits } from './visits/index.js';

/** Everything the server keeps and answers, one line a resource. */
export const RESOURCES: readonly Resource[] = [
  account,
  patients,
  episodes,
  visits,
  readings,
  signing,
  goals,
  progress,
  retests,
  norms,
  reliability,
  clinic,
];

export const ENTITIES = [...RESOURCES.flatMap((resource) => resource.entities), ChangeRow];
