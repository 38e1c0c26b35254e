export { CANDIDATE_WANTS } from './candidate-wants.js';
export {
  chooseDrills,
  forbiddenDrill,
  MOST_DRILLS,
  type Chosen,
  type DrillPast,
  type DrillSide,
  type Given,
  type NotGiven,
  type NotGivenWhy,
} from './choose.js';
export { defineDrills, USUAL as USUAL_OF_STAGE, usualMode, type DrillSpec } from './drills/define.js';
export { doseWords, minutesOf, sidesCounted } from './dose.js';
export {
  LADDERS,
  ladderOf,
  ladderWords,
  nextStep,
  type Ladder,
  type LadderMove,
  type LadderStep,
  type LadderWhy,
  type LoggedDay,
} from './ladder.js';
export { LEAVE_RULES, leaveFor, type Leave, type LeaveRule } from './leave.js';
export { DRILLS, findDrill } from './list.js';
export {
  asDrill,
  drillsWith,
  isOwnDrill,
  laddersWith,
  OWN_DRILL_ID,
  ownBeside,
  ownDrillId,
  type OwnDrill,
  type OwnDrillVersion,
} from './own.js';
export { drillProblems, type DrillProblem } from './own-check.js';
export { walkedWords, walkLadder, type NotGone, type Walked, type WalkGround } from './walk.js';
export { slopesOf, unchangedSince, type Running } from './pace.js';
export { drawPoses, type DrawnPoses } from './poses.js';
export {
  becauseWords,
  needsOf,
  PROGRAM_ORDERS,
  STAGE_WEIGHTS,
  type Because,
  type Held,
  type Need,
  type Needs,
  type ProgramOrder,
} from './needs.js';
export {
  FAIR_TRIAL_WEEKS,
  makeProgram,
  USUAL_WEEKS,
  type Prescribed,
  type Program,
  type ProgramAsk,
  type Recheck,
  type Refer,
  type SeenFrom,
  type Unchanged,
} from './program.js';
export {
  DRILL_STAGES,
  EQUIPMENT,
  type Dose,
  type Drill,
  type DrillStage,
  type Equipment,
  type Moves as DrillMoves,
  type NeedWant,
  type NotWith,
  type Pose,
} from './drills/types.js';
export {
  drillSideWords,
  equipmentWords,
  heldWords,
  leaveWords,
  notGivenWords,
  movesWords,
  recheckWords,
  referWords,
  seenWords,
  stageWords,
} from './words.js';
export { unsaid } from './drills/unsaid.js';
