export { goalOf, goalWords, projectGoal, rateWords, type Goal, type GoalGround, type Projection } from './goal.js';
export { GOAL_SOURCES, type GoalChoice, type GoalSource } from './goal-choice.js';
export { MARKERS, type Marker } from './marker.js';
export { progressOf, type ProgressContext, type ProgressSeries, type SeriesCourse } from './progress.js';
export {
  finishOf,
  judgeMarker,
  judgeRetest,
  markerWords,
  memoryWords,
  rememberDrills,
  roundVerdict,
  type DrillMemory,
  type Finish,
  type JudgedRound,
  type MarkerChange,
  type RetestRound,
  type RetestVerdict,
} from './retest.js';
export { changeAt, seriesOf, type NotJoined, type Series, type SeriesPoint } from './series.js';
export { byChange, changeRank, worseningOf, type Worsening } from './worsening.js';
export { standsSince, type StandsSince } from './stands-since.js';
export { isMoving, plateauOf, recentTrend, trendAt, trendOf, type DatedValue, type Plateau, type Trend } from './trend.js';
export {
  apartShort,
  apartWords,
  changeWord,
  courseWords,
  headline,
  inWeeks,
  notJoinedWords,
  projectionWords,
  valueNow,
  worseThanWords,
  type When,
} from './words.js';
