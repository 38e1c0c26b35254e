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
export { lookedUpWords } from './words/looked-up.js';
export { ENGLISH, localeOf, speak, speaking, spokenLocale, type Locale } from './words/locale.js';
export { dayWords, listed, lower, say, sayCount, shortDay, upper } from './words/say.js';
export {
  OUT_OF_PLANE,
  planeVerdict,
  readTilt,
  STILL,
  TiltError,
  tiltOf,
  type Gravity,
  type GravitySample,
  type PlaneVerdict,
  type TiltHold,
  type TiltReading,
} from './angle/gravity.js';
export {
  follow,
  gravityOf,
  HOLD_SECONDS,
  liveTilt,
  NOTHING_FELT,
  pathOf,
  setZero,
  showsOf,
  STALE_SECONDS,
  ZEROS,
  type Following,
  type LiveTilt,
  type Shown,
  type ZeroAt,
} from './angle/follow.js';
export { againstEdges, angleAt, betweenSegments, PointsError, viewError, type AngleSeen, type Point, type Turn } from './angle/points.js';
export { wrap180, wrap360 } from './angle/wrap.js';
export * from './assessment.js';
export * from './catalogue/index.js';
export * from './checked/index.js';
export { checkOf, ERRORS_OF, sameFigures, VALUE_KINDS, type Figures, type ValueCheck, type ValueKind } from './looked-up.js';
export * from './cohort/index.js';
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
export { DRILL_COLUMNS, drillsFromRows, drillsToRows, type DrillReading, type RefusedDrillCell } from './exchange/drill-rows.js';
export { checksFromRows, checksToRows, type CheckRow, type RefusedCheck } from './exchange/check-rows.js';
export { normSetFromRows, normSetToRows, type NormRowsReading, type RefusedCell } from './exchange/norm-rows.js';
export * from './finding/index.js';
export { measure, summarise, type MeasuredValue } from './measurement.js';
export { endPosition } from './trial.js';
export { JOINT_PLANES, PLANES, SFTR_POSITIONS, type Plane } from './notation/planes.js';
export { parseEntry, type Entry } from './notation/entry.js';
export { formatSftr, parseSftr, readSftr, SftrError, type SftrReading, type SftrRecord } from './notation/sftr.js';
export * from './norms/index.js';
export {
  bothTouched,
  IMPOSED_BY,
  IMPOSED_LIMBS,
  IMPOSED_LOADS,
  imposedByPosition,
  imposesOf,
  inPosition,
  isSpine,
  touchOf,
  touchOfItems,
  type Imposition,
  type Touch,
  DONE_TRAITS,
  type DoneTrait,
} from './imposes/index.js';
export * from './plan/index.js';
export * from './precaution/index.js';
export * from './procedure/index.js';
export * from './progress/index.js';
export * from './queue/index.js';
export * from './reading/index.js';
export * from './program/index.js';
export * from './report/index.js';
export * from './reason/index.js';
export * from './screen/index.js';
export { screenReport } from './exchange/screen-report.js';
export { documentOf, type AssessmentDocument, type MeasurementEntry, type TrialEntry } from './exchange/document.js';
export * from './exchange/past/index.js';
export { asMeant, asShown } from './exchange/cells.js';
export { sftrLines } from './exchange/sftr-lines.js';
export { documentToFhir } from './exchange/fhir/write.js';
export { documentFromFhir, type FhirReading, type RefusedResource } from './exchange/fhir/read.js';
export type { ExchangedDrill, ExchangedGoal, FhirContext } from './exchange/fhir/writing.js';
export { documentFromRows, documentToRows, type DocumentRowsReading, type RefusedTableCell } from './exchange/csv-rows.js';
export { programReport } from './exchange/program-report.js';
export { reasonReport } from './exchange/reason-report.js';
export * from './simulate/index.js';
export * from './picture/index.js';
export * from './practice/index.js';
export * from './clip/index.js';
