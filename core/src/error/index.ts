export { consistent } from './consistency.js';
export { bandAround, combinedSem, mdc90, mdc95, mdcOfDifference, semFromIcc } from './sem.js';
export { errorOf, type MeasuringError } from './table.js';
