export {
  assess,
  judgementOfToday,
  JUDGEMENT_FORMAT,
  normQuery,
  RULES_VERSION,
  type AssessContext,
  type JudgedMeasurement,
  type Judgement,
} from './assess.js';
export { FROM_THE_GROUND, jointOf, jointsApart } from './body.js';
export { CAPSULAR_PATTERNS, LEAST_MOTIONS, type CapsularPattern } from './capsular-patterns.js';
export { changeBetween, isGain, isLoss, type Change, type ChangeVerdict } from './change.js';
export { modedName, sidedName } from './make.js';
export {
  measuredMobility,
  MOBILITY_ITEMS,
  mobilityScore,
  type MobilityAnswers,
  type MobilityItem,
  type MobilityScore,
} from './mobility.js';
export { FINDING_STAGES, KINDS, stageOf, type FindingStage, type KindTraits } from './kinds.js';
export { explainMoves, rank, type Move, type RankContext } from './rank.js';
export { DEFAULT_RANKING, RANKING_NAMES, RANKINGS, type Ranking } from './rankings.js';
export { type NotJudged } from './silence.js';
export { TELLING_END_FEELS, type TellingEndFeel } from './end-feel.js';
export { sentencesOf, type Sentence } from './sentences.js';
export { draftSummary, notJudgedWords } from './summary.js';
export { flagWords } from './short-of-normal.js';
export { totalArcs, type ArcOfSide, type TotalArc } from './total-arc.js';
export { TWO_JOINT_PAIRS } from './two-joint.js';
export { DEFAULT_THRESHOLDS, type Finding, type Thresholds } from './types.js';
