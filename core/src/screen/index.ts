export { AFTER_DRILL, backTo, drillAnswers, drillTally, standingOf, type AfterDrill, type DrillAnswer, type Standing } from './class.js';
export { checkItem, unknownScreen, type ItemEntered, type ItemProblem } from './check.js';
export { seriesOfItems, type ItemPoint, type ItemSeries, type ScreenDay } from './series.js';
export { itemError, itemMdc } from './error.js';
export { FAULT_IDS, FAULTS, isFault, type FaultId } from './faults.js';
export { gradeItem, gradeScreen, hoursOf, hurts, QUALITIES, type GradedItem, type Quality } from './grade.js';
export { itemOf, jointsOfItem } from './joints.js';
export { everyItem, findItem, findScreen, SCREENS } from './list.js';
export { gradedScreens, screenOutcomes, wayOfItem, type ItemBefore, type ItemOutcome } from './outcome.js';
export { itemName, screenSummary, whyShort } from './summary.js';
export { itemId, NO_SETTINGS, screensFor, settingsOn, type ItemId, type OwnScreen, type ScreenSettings } from './own.js';
export { notReached, type NotReached } from './own-strength.js';
export { PATTERNS, type PatternId } from './pattern-ids.js';
export type { ItemDone, ItemTry, ScreenDone, Sector } from './result.js';
export { oneSided, sideDifferences, sidesOf, type SideDifference, type Sides } from './sides.js';
export {
  FELT,
  MODIFICATIONS,
  STANCES,
  VIEWS,
  type ItemAnswered,
  type Choice,
  type Felt,
  type Hour,
  type ItemFault,
  type Modification,
  type Near,
  type Screen,
  type ScreenItem,
  type Threshold,
  type View,
} from './types.js';
export {
  amountWords,
  faultSign,
  faultWords,
  FELT_WORDS,
  itemReasonWords,
  MODIFICATION_WORDS,
  painAdvice,
  thresholdWords,
  VIEW_WORDS,
  type ItemReason,
} from './words.js';
