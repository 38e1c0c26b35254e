import { compareDays } from '../days.js';
import type { IsoDate } from '../terms.js';
import { say } from '../words/say.js';

/** Drills of one joint from the easiest to the hardest. */
export interface Ladder {
  readonly id: string;
  readonly name: string;
  /** Drills by their ids. */
  readonly steps: readonly string[];
}

/** @see common practice, no source; the knee's as taught after injury or surgery */
export const LADDERS: readonly Ladder[] = [
  { id: 'knee-cycling', name: 'Cycling for the knee', steps: ['bike-part-turns', 'bike-full-turns', 'bike-low-seat'] },
  {
    id: 'knee-bending',
    name: 'Bending the knee',
    steps: ['heel-slide', 'heel-slide-strap', 'knee-rock-back', 'tall-kneel', 'half-kneel-sink', 'assisted-squat', 'heels-raised-squat'],
  },
  { id: 'knee-straightening', name: 'Straightening the knee', steps: ['knee-hang', 'knee-press', 'step-up'] },
  { id: 'thigh-front', name: 'Front of the thigh', steps: ['thigh-front-side', 'couch-stretch'] },
  { id: 'calf', name: 'Length of the calf', steps: ['calf-roll', 'calf-stretch-bent', 'heel-lower-step'] },
  { id: 'ankle-bending', name: 'Bending the ankle joint', steps: ['ankle-band-glide', 'ankle-box-lean'] },
  {
    id: 'shoulder-raising',
    name: 'Raising the arm',
    steps: ['shoulder-pendulum', 'shoulder-table-slide', 'shoulder-stick-raise', 'shoulder-wall-lift', 'overhead-carry'],
  },
  { id: 'hip-turning-in', name: 'Turning the hip inward', steps: ['hip-switch', 'hip-in-hold', 'back-leg-lift-off'] },
  { id: 'wrist-leaning', name: 'Leaning on the wrist', steps: ['wrist-circles', 'wrist-lean-fist', 'wrist-lean-degrees'] },
  { id: 'standing', name: 'Standing on one leg', steps: ['one-leg-stand', 'one-leg-reach'] },
];

/** The ladder that a drill stands on; the first that names it. */
export const ladderOf = (drill: string, ladders: readonly Ladder[] = LADDERS): Ladder | undefined =>
  ladders.find(({ steps }) => steps.includes(drill));

/** What was logged of one drill on one day. */
export interface LoggedDay {
  readonly on: IsoDate;
  readonly done: boolean;
  /** Whether it was easy; null: not said. */
  readonly easy: boolean | null;
  /** Worst pain of ten while doing it; null: not said. */
  readonly pain: number | null;
  /** More swelling on the next morning; null: not said. */
  readonly swelling: boolean | null;
  /** What it is for has become worse since. */
  readonly worse: boolean | null;
}

export type LadderMove = 'up' | 'down' | 'stay';
export type LadderWhy = 'swelling' | 'worse' | 'pain' | 'easy-twice' | 'at-the-top' | 'at-the-bottom' | 'not-yet';

export interface LadderStep {
  readonly move: LadderMove;
  readonly why: LadderWhy;
  /** The drill from now on. */
  readonly drill: string;
}

/** So often it has to be easy, one time after the other. @see common practice, no source */
const EASY_TIMES = 2;

/**
 * Which step of a ladder follows from what was logged of the present one since
 * it was given. Down when swelling or symptoms grew; up when it was easy the
 * last two times, with no more pain than is tolerated and without more swelling
 * the next morning. What was not said never steps up.
 *
 * @param days of the present drill, in any order
 */
export function nextStep(ladder: Ladder, drill: string, days: readonly LoggedDay[], tolerated: number): LadderStep {
  const at = ladder.steps.indexOf(drill);
  if (at < 0) throw new RangeError(`"${drill}" is no step of ${ladder.id}; allowed: ${ladder.steps.join(', ')}`);
  const done = days.filter((day) => day.done).sort((a, b) => compareDays(a.on, b.on));
  const last = done.slice(-EASY_TIMES);
  const stay = (why: LadderWhy): LadderStep => ({ move: 'stay', why, drill });
  const newest = done[done.length - 1];
  if (!newest) return stay('not-yet');
  const down = newest.swelling === true ? 'swelling' : newest.worse === true ? 'worse' : null;
  if (down) return at === 0 ? { move: 'stay', why: 'at-the-bottom', drill } : { move: 'down', why: down, drill: ladder.steps[at - 1]! };
  if (last.some(({ pain }) => pain !== null && pain > tolerated)) return stay('pain');
  const isEasy =
    last.length === EASY_TIMES &&
    last.every((day) => day.easy === true && day.pain !== null && day.swelling === false && day.worse !== true);
  if (!isEasy) return stay('not-yet');
  return at === ladder.steps.length - 1 ? stay('at-the-top') : { move: 'up', why: 'easy-twice', drill: ladder.steps[at + 1]! };
}

const WHY: Readonly<Record<LadderWhy, string>> = {
  swelling: 'more swelling the next morning: a step down',
  worse: 'it has become worse: a step down',
  pain: 'it hurt more than is tolerated: stay',
  'easy-twice': 'easy twice, little pain, no more swelling: a step up',
  'at-the-top': 'easy, and the last step there is: stay',
  'at-the-bottom': 'swelling or symptoms grew on the first step: leave it for now and ask',
  'not-yet': 'stay until it is easy twice, with little pain and no more swelling the next morning',
};
export const ladderWords = ({ why }: Pick<LadderStep, 'why'>): string => say(WHY[why]);
