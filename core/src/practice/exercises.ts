import { seededRandom } from '../error/bootstrap.js';
import type { Degrees } from '../terms.js';
import { EXAMINERS, type ExaminersAnswer, type ExaminersTask } from './examiners.js';
import { FEEL, type FeelAnswer, type FeelTask } from './feel.js';
import { NAME, type NameAnswer, type NameTask } from './name.js';
import { PLACE, type PlaceAnswer, type PlaceTask } from './place.js';
import { PLANE, type PlaneAnswer, type PlaneTask } from './plane.js';
import { READ, type ReadAnswer, type ReadTask } from './read.js';
import { SIDE, type SideAnswer, type SideTask } from './side.js';
import { EXERCISES, type Drawn, type Exercise, type ExerciseId, type Outcome } from './types.js';

/** Task and answer of each exercise. */
export interface Practised {
  readonly read: { readonly task: ReadTask; readonly answer: ReadAnswer };
  readonly place: { readonly task: PlaceTask; readonly answer: PlaceAnswer };
  readonly side: { readonly task: SideTask; readonly answer: SideAnswer };
  readonly name: { readonly task: NameTask; readonly answer: NameAnswer };
  readonly plane: { readonly task: PlaneTask; readonly answer: PlaneAnswer };
  readonly feel: { readonly task: FeelTask; readonly answer: FeelAnswer };
  readonly examiners: { readonly task: ExaminersTask; readonly answer: ExaminersAnswer };
}
export type TaskOf<K extends ExerciseId> = Practised[K]['task'];
export type AnswerOf<K extends ExerciseId> = Practised[K]['answer'];

const BY_ID: { readonly [K in ExerciseId]: Exercise<TaskOf<K>, AnswerOf<K>> } = {
  read: READ,
  place: PLACE,
  side: SIDE,
  name: NAME,
  plane: PLANE,
  feel: FEEL,
  examiners: EXAMINERS,
};

export const exercise = <K extends ExerciseId>(id: K): Exercise<TaskOf<K>, AnswerOf<K>> => BY_ID[id];

/** What there is of an exercise to be trained. */
export const cardsOf = (id: ExerciseId): readonly string[] => BY_ID[id].cards;

export const isCard = (id: ExerciseId, card: string): boolean => BY_ID[id].cards.includes(card);

/**
 * The task of a card and a seed, with its truth. The same two make the same task.
 *
 * @throws RangeError for a card that the exercise does not have
 */
export function taskOf<K extends ExerciseId>(id: K, { card, seed }: Drawn): TaskOf<K> {
  if (!isCard(id, card)) throw new RangeError(`"${id}" has no card "${card}"`);
  return exercise(id).make(card, seededRandom(seed));
}

/** What an answer to a drawn task comes to, and what was read and what is. */
export interface Scored extends Outcome {
  readonly read: Degrees | null;
  readonly truth: Degrees | null;
}

export function scoreOf<K extends ExerciseId>(id: K, drawn: Drawn, answer: AnswerOf<K>): Scored {
  const task = taskOf(id, drawn);
  const one = exercise(id);
  return { ...one.score(task, answer), read: one.read(task, answer), truth: one.truth(task) };
}

/** What truly is, in degrees; null where nothing is to be read. */
export const truthOf = <K extends ExerciseId>(id: K, drawn: Drawn): Degrees | null => exercise(id).truth(taskOf(id, drawn));

/** Those in which something is read in degrees: what a class compares, and what a study is made of. */
export const READ_IN_DEGREES: readonly ExerciseId[] = EXERCISES.filter((id) => !['side', 'name'].includes(id));
