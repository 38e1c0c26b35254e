export { hipRunSheet, type RunBlock, type RunRow } from './hip-run-sheet.js';
