export { checkedProcedure, checkedSet, checkedSetsFor } from './apply.js';
export { correctionProblems } from './check.js';
export type { PrintedValue } from './types.js';
export { FIGURE_WORDS, figuresWords, VALUE_TABLES, valuesOf, type ValueTable } from './values.js';
