export { liveInstrument, readLive, type LiveChoice, type LiveSite } from './live.js';
export { readArc, type ArcEnd } from './arc.js';
export {
  bothWaysWords,
  checkReading,
  isTilted,
  readAtDial,
  sitesInOrder,
  twoSiteExample,
  valueOfReading,
  type ReadAtDial,
  type Tool,
} from './read.js';
export { splitTyped, type Parts } from './split.js';
