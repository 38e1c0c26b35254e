export {
  cautionOutcome,
  CAUTIONS,
  cautionsFor,
  NOT_A_DIAGNOSIS,
  STOP_DURING,
  type CautionOutcome,
  type CautionQuestion,
} from './cautions.js';
export { DEFAULT_EXAM_SET, EXAM_SETS, findExamSet, type ExamSet } from './exam-sets.js';
export { NO_TIMES, recordedTimes, secondsFor, turnSecondsOf, type HeldAt, type RecordedTimes } from './minutes.js';
export { openEnds, type OpenEnd, type StepState } from './open-ends.js';
export { itemsOfSheet, modesOf, waysOf, type PlanItem, type SheetItem } from './items.js';
export { planExam, stationOf, type ExamPlan, type LeftOut, type PlanRequest, type PlanStep } from './plan.js';
export { allowedFor, holdsOn, isPast, precautionsFor, precautionWords, type Allowed, type Moved, type Precaution } from './precaution.js';
export { findProcedure, PROCEDURES, SURGEON_WINS, usualPrecautions, type Procedure, type UsualLimit } from './procedures.js';
export { runSheet, variantWords, type RunBlock, type RunRow } from './run-sheet.js';
export { positionAt, stationFor, STATIONS, stationWords, turnWords, type Station } from './station.js';
export { type Worthy as WorthAsked } from './worth.js';
