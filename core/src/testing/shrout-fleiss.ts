import type { StudyTable } from '../error/index.js';

/** Six targets, four judges: Shrout PE, Fleiss JL. Psychol Bull 1979;86:420-428, table 2 (data from memory, arithmetic recomputed). */
export const SHROUT_FLEISS: StudyTable = [
  [9, 2, 5, 8],
  [6, 1, 3, 2],
  [8, 4, 6, 8],
  [7, 1, 2, 6],
  [10, 5, 6, 9],
  [6, 2, 4, 7],
];
