export { assess, normQuery, type AssessContext } from './assess.js';
export { FROM_THE_GROUND, jointOf, jointsApart } from './body.js';
export { CAPSULAR_PATTERNS, LEAST_MOTIONS, type CapsularPattern } from './capsular-patterns.js';
export { caveatWords, changeBetween, isGain, isLoss, type Caveat, type Change, type ChangeVerdict } from './change.js';
export { JUDGEMENT_FORMAT, judgementOfToday, RULES_VERSION, type JudgedMeasurement, type Judgement } from './judgement.js';
export { digitWord, modedName, sidedName } from './make.js';
export {
  measuredMobility,
  MOBILITY_ITEMS,
  mobilityScore,
  type MobilityAnswers,
  type MobilityItem,
  type MobilityScore,
} from './mobility.js';
export { FINDING_KINDS, kindOf, KINDS, stageOf, type Finding, type FindingKind } from './kinds.js';
export { notComparedWords, type NotCompared } from './not-compared.js';
export { explainMoves, rank, type Move, type RankContext } from './rank.js';
export { DEFAULT_RANKING, RANKING_NAMES, RANKINGS, type Ranking } from './rankings.js';
export { type NotJudged } from './silence.js';
export { TELLING_END_FEELS, type TellingEndFeel } from './end-feel.js';
export { ITEM_KINDS, itemFindings, saidOfItem, sideOfItem, silentItems, type ItemFinding, type ItemFindingKind } from './of-screens.js';
export { sentencesOf, type Sentence } from './sentences.js';
export { draftSummary, notJudgedWords } from './summary.js';
export { FINDING_STAGES, type FindingStage } from './stages.js';
export { flagWords, stepWords } from './step-words.js';
export { type Step } from './steps.js';
export { arcVerdict, arcWords, totalArcs, type ArcOfSide, type TotalArc } from './total-arc.js';
export { TWO_JOINT_PAIRS } from './two-joint.js';
export { DEFAULT_THRESHOLDS, type Mark, type Place, type Said, type Thresholds } from './types.js';
export { inWords, placeWords, saidOf } from './words.js';
