export { DEFAULT_EXAM_SET, EXAM_SETS, findExamSet, type ExamSet } from './exam-sets.js';
export { runSheet, type RunBlock, type RunRow, type SheetItem } from './run-sheet.js';
