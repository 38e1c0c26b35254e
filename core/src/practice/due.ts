import { createEmptyCard, fsrs, Rating, type Card, type Grade } from 'ts-fsrs';
import type { Random } from '../error/bootstrap.js';
import { cardsOf } from './exercises.js';
import type { Drawn, ExerciseId, PracticeMark } from './types.js';

/** One answer of one person, as far as it tells what is to be trained again. */
export interface CardAnswer {
  readonly card: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  readonly mark: PracticeMark;
}

/** When a card comes back. */
export interface Due {
  readonly card: string;
  readonly at: number;
  readonly answers: number;
  /** How often it went wrong. */
  readonly wrong: number;
}

/** The same answers give the same days: no chance in it. */
const SCHEDULER = fsrs({ enable_fuzz: false });
const GRADES: Readonly<Record<PracticeMark, Grade>> = { right: Rating.Good, near: Rating.Hard, wrong: Rating.Again };

/**
 * When each card that was answered comes back: soon where it went wrong, ever
 * later where it does not.
 *
 * @param answers of one person and one exercise, oldest first
 * @see the free spaced repetition scheduler, as its library has it
 */
export function dueOf(answers: readonly CardAnswer[]): readonly Due[] {
  const known = new Map<string, { card: Card; answers: number; wrong: number }>();
  for (const { card, at, mark } of answers) {
    const before = known.get(card);
    const { card: next } = SCHEDULER.next(before?.card ?? createEmptyCard<Card>(new Date(at)), new Date(at), GRADES[mark]);
    known.set(card, { card: next, answers: (before?.answers ?? 0) + 1, wrong: (before?.wrong ?? 0) + (mark === 'wrong' ? 1 : 0) });
  }
  return [...known].map(([card, one]) => ({ card, at: one.card.due.getTime(), answers: one.answers, wrong: one.wrong }));
}

/** As many tasks as a round has. */
export const ROUND = 10;

/**
 * A round: first what is due, longest overdue first, then what was never
 * answered, then what comes back soonest. Where there are fewer cards than
 * tasks they come again, with other figures.
 */
export function roundOf(id: ExerciseId, due: readonly Due[], now: number, random: Random, tasks = ROUND): Drawn[] {
  const cards = cardsOf(id);
  const of = new Map(due.map((one) => [one.card, one.at]));
  const shuffled = cards.map((card) => ({ card, by: random() })).sort((a, b) => a.by - b.by);
  const overdue = due.filter(({ card, at }) => at <= now && cards.includes(card)).sort((a, b) => a.at - b.at);
  const fresh = shuffled.filter(({ card }) => !of.has(card));
  const later = due.filter(({ card, at }) => at > now && cards.includes(card)).sort((a, b) => a.at - b.at);
  const order = [...overdue, ...fresh, ...later].map(({ card }) => card);
  return Array.from({ length: tasks }, (_, at) => ({ card: order[at % order.length]!, seed: Math.floor(random() * 4_294_967_296) }));
}
