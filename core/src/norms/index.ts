export { ageOn } from './age.js';
export { chooseNorm, NORM_FLAGS, type NormChoice, type NormFlag, type NormQuery } from './choose.js';
export {
  agreement,
  bandOf,
  compareWithNorm,
  expectedBand,
  shortfall,
  type Agreement,
  type ExpectedBand,
  type NormComparison,
} from './compare.js';
export { judging, judgingNorm, judgingSet, wholeOrder } from './order.js';
export { compareWithNeeds, needWords, TASK_NEEDS, type NeedComparison, type NeedVerdict, type TaskNeed } from './needs.js';
export { NORM_KINDS, type AgeBand, type NormEntry, type NormSet, type NormValue } from './types.js';
export { DEFAULT_NORM_ORDER, DEFAULT_NORM_SET, findNormSet, NORM_SETS, setsFor } from './sets.js';
