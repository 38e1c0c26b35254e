export {
  GOAL_SOURCES,
  goalOf,
  projectGoal,
  rateWords,
  type Goal,
  type GoalChoice,
  type GoalGround,
  type GoalSource,
  type Projection,
} from './goal.js';
export { progressOf, type ProgressContext, type ProgressSeries, type SeriesCourse } from './progress.js';
export {
  finishOf,
  judgeMarker,
  judgeRetest,
  MARKERS,
  memoryWords,
  rememberDrills,
  roundVerdict,
  type DrillMemory,
  type Finish,
  type JudgedRound,
  type Marker,
  type MarkerChange,
  type RetestRound,
  type RetestVerdict,
} from './retest.js';
export { seriesOf, type NotJoined, type Series, type SeriesPoint } from './series.js';
export { isMoving, plateauOf, recentTrend, trendAt, trendOf, type DatedValue, type Plateau, type Trend } from './trend.js';
export { changeWord, courseWords, headline, projectionWords, valueNow, weekWords, type WhenWords } from './words.js';
