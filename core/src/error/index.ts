export { LEAST_RATERS, LEAST_SUBJECTS, StudyError, studyVariance, type StudyTable, type StudyVariance } from './anova.js';
export { limitsOfAgreement, withinSubjectSd, type LimitsOfAgreement, type WithInterval } from './bland-altman.js';
export {
  bootstrap,
  bootstrapAtOnce,
  BOOTSTRAPPED,
  seededRandom,
  type Bootstrapped,
  type BootstrapResult,
  type Random,
} from './bootstrap.js';
export { ICC_FORMS, ICC_WORDS, iccWord, reliability, type Icc, type IccForm, type Reliability } from './icc.js';
export type { ErrorContext, OwnError } from './own.js';
export { blindedOrder, type StudyTurn } from './study.js';
export { checkedErrors, errorKey } from './checked.js';
export { consistent } from './consistency.js';
export { PUBLISHED_ERRORS, type PublishedError } from './published.js';
export { errorSourceWords, type ErrorSource } from './source.js';
export { bandAround, combinedSem, mdc90, mdc95, mdcOfDifference, semFromIcc, semOfMean } from './sem.js';
export { defaultError, errorOf, ownSource, semOf, type ErrorQuery, type MeasuringError } from './table.js';
