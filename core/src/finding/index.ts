export { assess, normQuery, type AssessContext, type JudgedMeasurement, type Judgement } from './assess.js';
export { changeBetween, isLoss, type Change, type ChangeVerdict } from './change.js';
export { flagWords } from './short-of-normal.js';
export { DEFAULT_THRESHOLDS, type Finding, type Thresholds } from './types.js';
export { modedName, sidedName } from './make.js';
