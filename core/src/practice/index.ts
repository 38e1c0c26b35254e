export { dueOf, ROUND, roundOf, type CardAnswer, type Due } from './due.js';
export { APART, bestFigure, EXAMINERS_EACH, type Apart, type ExaminersAnswer, type ExaminersTask } from './examiners.js';
export {
  cardsOf,
  exercise,
  isCard,
  READ_IN_DEGREES,
  scoreOf,
  taskOf,
  truthOf,
  type AnswerOf,
  type Practised,
  type Scored,
  type TaskOf,
} from './exercises.js';
export type { FeelAnswer, FeelTask } from './feel.js';
export { sumOf, type PracticeSum } from './history.js';
export { drawnTo, type NameAnswer, type NameTask } from './name.js';
export { drawnFor, rightPlace, turnedOver, type PlaceAnswer, type PlaceTask } from './place.js';
export { GIVES, mostMoved, shownIn, type PlaneAnswer, type PlaneShown, type PlaneTask } from './plane.js';
export { seemsAt, type ReadAnswer, type ReadTask } from './read.js';
export type { SideAnswer, SideTask } from './side.js';
export { spreadOf, studyTableOf, type ReadBy, type Spread } from './spread.js';
export { EXERCISES, MARKS, SLIPS, type Drawn, type ExerciseId, type Outcome, type PracticeMark, type SlipId } from './types.js';
export { APART_WORDS, cardWords, EXERCISE_WORDS, examinerName, markedWords, SLIP_WORDS, toldAfter } from './words.js';
