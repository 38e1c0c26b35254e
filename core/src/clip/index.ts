export { checkReview, inTime, markedItem, itemsSeenFrom, momentWords } from './check.js';
export { clipReport, markWords, type ClipFacts, type ClipStill } from './report.js';
export { triesIn, type ClipTry } from './tries.js';
export {
  CLIP_TELLS,
  MOST_MARKS,
  MOST_TO_WORK_ON,
  SURENESS,
  type ClipAngle,
  type ClipMark,
  type ClipReview,
  type ClipTells,
  type Sureness,
} from './types.js';
