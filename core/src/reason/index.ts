export { answersTo, type Answered } from './answer.js';
export { CANDIDATE_IDS, CANDIDATES, type CandidateId } from './candidates.js';
export { factsOf, type Facts } from './facts.js';
export { BREAKDOWNS, breakdownOf } from './list.js';
export { measureNext, type MeasureNext } from './measure-next.js';
export {
  openPatterns,
  pointedLimbs,
  reason,
  reasonAbout,
  stateOf,
  STATES,
  type Candidate,
  type CandidateOnLimb,
  type CandidateState,
  type CandidateEvidence,
  type Known,
  type NextTest,
  type OpenPattern,
  type QuestionState,
  type Reasoned,
} from './reason.js';
export { quickestOf, testsFor, type Choosing, type Test } from './tests.js';
export type { Answer, AnswerId, Breakdown, Cut, Look, Question, School } from './types.js';
export { candidateWords, evidenceWords, figureWords, itemOfTest, stateWords, tellsWords, testWords, undecidedWords } from './words.js';
