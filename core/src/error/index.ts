export { consistent, toleranceWords } from './consistency.js';
export { PUBLISHED_ERRORS, type PublishedError } from './published.js';
export { bandAround, combinedSem, mdc90, mdc95, mdcOfDifference, semFromIcc, semOfMean } from './sem.js';
export { defaultError, errorOf, semOf, type ErrorQuery, type MeasuringError } from './table.js';
