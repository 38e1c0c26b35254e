export * from './terms.js';
export { arcSize, type Arc, type FixedArc, type MovingArc } from './angle/arc.js';
export { ASSUMED_HAND, handsToCm, handWords, type HandWidths } from './angle/hands.js';
export { dualExcursion, excursion, type Sense, type TiltPair } from './angle/excursion.js';
export { DEVICE_SCALES, isOnScale, movedBetween, possibleWays, rangeOf, showOn, unfoldQuadrant, type DeviceScale } from './angle/scale.js';
export { ENTRY_UNITS, entryUnitsFor, toKept, type EntryUnit } from './angle/units.js';
export {
  describeEnd,
  endFigure,
  formatFixed,
  formatNumber,
  formatSigned,
  formatSize,
  formatWhole,
  rounded,
  suffixOf,
  type ZeroWords,
} from './words/figures.js';
export { INSTRUMENT_WORDS, instrumentWord } from './words/instruments.js';
export { ENGLISH, localeOf, speak, spokenLocale, type Locale } from './words/locale.js';
export { dayWords, listed, lower, say, sayCount, shortDay, upper } from './words/say.js';
export { wrap180, wrap360 } from './angle/wrap.js';
export * from './assessment.js';
export * from './catalogue/index.js';
export * from './course/index.js';
export * from './days.js';
export {
  allowedSides,
  checkValue,
  checkWay,
  finestStep,
  isTooFine,
  unknownMotion,
  type FieldProblem,
  type Way,
} from './catalogue/check.js';
export * from './error/index.js';
export { evaluationReport, type EvaluationReport } from './exchange/report.js';
export { planReport } from './exchange/plan-report.js';
export { reliabilityReport, studyFromRows, type RefusedStudyCell, type StudyRowsReading } from './exchange/study-rows.js';
export { normSetFromRows, normSetToRows, type NormRowsReading, type RefusedCell } from './exchange/norm-rows.js';
export * from './finding/index.js';
export { measure, summarise, type MeasuredValue } from './measurement.js';
export { endPosition } from './trial.js';
export { JOINT_PLANES, PLANES, type Plane } from './notation/planes.js';
export { parseEntry, type Entry } from './notation/entry.js';
export { formatSftr, parseSftr, readSftr, SftrError, type SftrReading, type SftrRecord } from './notation/sftr.js';
export * from './norms/index.js';
export { imposesOf, touchOf, type Imposition, type Touch } from './imposes/index.js';
export * from './plan/index.js';
export * from './precaution/index.js';
export * from './procedure/index.js';
export * from './progress/index.js';
export * from './reading/index.js';
