export { BODY_PARTS, type BodyPart } from './body-parts.js';
export { CAUTIONS, type CautionQuestion } from './caution-list.js';
export {
  answeredOf,
  cautionNow,
  cautionOutcome,
  cautionsFor,
  NOT_A_DIAGNOSIS,
  STOP_DURING,
  withSigns,
  type CautionOutcome,
  type CautionWhere,
} from './cautions.js';
export { DEFAULT_EXAM_SET, EXAM_SETS, findExamSet, type ExamSet } from './exam-sets.js';
export { NO_TIMES, recordedTimes, secondsFor, turnSecondsOf, type HeldAt, type RecordedTimes } from './minutes.js';
export { openEnds, type OpenEnd, type StepState } from './open-ends.js';
export { itemsOfSheet, modesOf, waysOf, type PlanItem, type SheetItem } from './items.js';
export { planExam, stationOf, type ExamPlan, type LeftOut, type PlanRequest, type PlanStep } from './plan.js';
export { runSheet, variantWords, type RunBlock, type RunRow } from './run-sheet.js';
export { isUpright, planView, planWords, type PlanView, type Standpoint } from './plan-view.js';
export { positionAt, stationFor, STATIONS, stationWords, turnWords, type Station } from './station.js';
export { type Worthy as WorthAsked } from './worth.js';
