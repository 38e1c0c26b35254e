export {
  COHORT_AGES,
  cohortNormSet,
  cohortOf,
  LEAST_PEOPLE,
  outcomeOf,
  type CohortCount,
  type CohortGroup,
  type CohortWay,
  type ExaminerDifference,
  type OutcomeWeek,
  type ToldWay,
  type WayCohort,
} from './cohort.js';
export { quantile, robustSd, groupSpread, type Counted, type GroupSpread } from './quantiles.js';
