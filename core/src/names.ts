/**
 * The names and bounds a schema is made of, without the computation behind
 * them. What only checks an input or calls the server takes them from here, so
 * that the first screen of the interface does not carry every judgement.
 */
export { allowedSides, checkValue, checkWay, unknownMotion } from './catalogue/check.js';
export { findMotion, isJoint, motion, protocolOfId } from './catalogue/index.js';
export { DEVICE_SCALES } from './angle/scale.js';
export { storedTrial } from './assessment.js';
export { LEAST_RATERS, LEAST_SUBJECTS } from './error/anova.js';
export { VALUE_KINDS } from './looked-up.js';
export { DEFAULT_RANKING, RANKINGS } from './finding/rankings.js';
export { NORM_SETS, TASK_NEEDS } from './norms/index.js';
export { BODY_PARTS } from './plan/body-parts.js';
export { CAUTION_IDS } from './plan/cautions.js';
export { modesOf, waysOf } from './plan/items.js';
export { PRECAUTION_KINDS } from './precaution/kinds.js';
export { DATE_ORDERS, MINUS_MEANS, PAST_ROLES } from './exchange/past/roles.js';
export { REPORT_KINDS } from './report/types.js';
export { GOAL_SOURCES } from './progress/goal-choice.js';
export { MARKERS } from './progress/marker.js';
export * from './terms.js';
export { endPosition } from './trial.js';
