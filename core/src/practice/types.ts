import type { Random } from '../error/bootstrap.js';
import type { Degrees } from '../terms.js';

/** What is practised, in the order in which somebody learns it. */
export const EXERCISES = ['read', 'place', 'side', 'name', 'plane', 'feel', 'examiners'] as const;
export type ExerciseId = (typeof EXERCISES)[number];

/** The ways in which hands, eyes and words go wrong; each has its own words. */
export const SLIPS = [
  'otherRing',
  'wrongWay',
  'tens',
  'parallax',
  'half',
  'misread',
  'axis',
  'stillArm',
  'movingArm',
  'armsSwapped',
  'otherSide',
  'byFarEnd',
  'otherMotion',
  'outOfPlane',
  'refused',
  'tooEarly',
  'pastEnd',
  'endFeel',
  'unusualMissed',
  'usualDoubted',
  'substitutionMissed',
  'substitutionInvented',
  'otherSubstitution',
  'chanceCalled',
  'apartMissed',
  'otherExaminer',
  'otherHow',
  'estimate',
] as const;
export type SlipId = (typeof SLIPS)[number];

/** Right; near: by less than counts; wrong. */
export const MARKS = ['right', 'near', 'wrong'] as const;
export type PracticeMark = (typeof MARKS)[number];

/** What an answer comes to. */
export interface Outcome {
  readonly mark: PracticeMark;
  /** What was read less what is; null where nothing was to be read, or nothing could be. */
  readonly off: Degrees | null;
  readonly slips: readonly SlipId[];
}

/** Where a task comes from: what is trained, and a seed. The same two make the same task, with the same truth. */
export interface Drawn {
  readonly card: string;
  readonly seed: number;
}

/**
 * One sort of task: what there is of it to be trained, how a task is made, and
 * what an answer to it comes to. Task and truth are one: whoever shows a task
 * shows no more of it than may be seen.
 */
export interface Exercise<Task, Answer> {
  readonly id: ExerciseId;
  /** What is trained and comes back when it goes wrong, without the exercise's own name before it. */
  readonly cards: readonly string[];
  readonly make: (card: string, random: Random) => Task;
  readonly score: (task: Task, answer: Answer) => Outcome;
  /** What was read in degrees, where something was. */
  readonly read: (task: Task, answer: Answer) => Degrees | null;
  /** What truly is, in degrees. */
  readonly truth: (task: Task) => Degrees | null;
}

/** From and to, in steps; both can come. */
export const between = (random: Random, from: number, to: number, step = 1): number =>
  from + step * Math.floor(random() * (Math.floor((to - from) / step) + 1));

export const oneOf = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random() * all.length)]!;

/** Of a normal spread about nothing. */
export const normalOf = (random: Random, sd: number): number =>
  sd * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
