import type { Operation } from '../course/index.js';
import { compareDays, weeksSince } from '../days.js';
import type { Limits } from '../precaution/index.js';
import type { IsoDate } from '../terms.js';
import { say } from '../words/say.js';
import { forbiddenDrill, type DrillSide } from './choose.js';
import { LADDERS, ladderOf, ladderWords, nextStep, type Ladder, type LadderStep, type LoggedDay } from './ladder.js';
import { findDrill } from './list.js';
import type { Drill, Equipment } from './drills/types.js';

/** Why a step is not gone although what was logged would allow it. */
export type NotGone = 'forbidden' | 'limit-ended' | 'healing' | 'healing-unknown' | 'equipment';

/** Where a drill stands on its ladder, by what was logged since it was given. */
export interface Walked {
  /** As it was given. */
  readonly given: string;
  /** The drill from now on. */
  readonly drill: string;
  /** The last step that was gone, with the day it follows from; null: it is where it was given. */
  readonly last: (LadderStep & { readonly on: IsoDate }) | null;
  /** What the newest days say of the next step. */
  readonly next: LadderStep | { readonly move: 'stay'; readonly why: NotGone; readonly drill: string } | null;
  /** To be left out until somebody has looked: it made things worse and there is nothing easier, or a limit forbids it by now. */
  readonly rests: boolean;
  /** It rests because of a limit that was set since. */
  readonly limited: boolean;
}

export interface WalkGround {
  readonly side: DrillSide;
  readonly limits: Limits;
  readonly equipment: readonly Equipment[];
  readonly tolerated: number;
  /** Of an unknown date: still healing. */
  readonly operation?: Operation | { readonly id: string; readonly on: null };
  readonly on: IsoDate;
  /** The day the programme was given: a limit that held then and has run out since is not lifted by its date alone. */
  readonly givenOn: IsoDate;
  /** The drills there are: those that ship, or those of a clinic. */
  readonly drills?: readonly Drill[];
}

/**
 * Goes up and down the ladder of a drill, day by day. A step that a limit
 * forbids, or forbade when the drill was given, that is too early after an
 * operation, or for which something is not at hand, is not gone: the drill
 * stays. That a limit has run out opens nothing until somebody has looked and
 * given a programme again.
 *
 * @param days of this drill since it was given, in any order
 */
export function walkLadder(given: string, days: readonly LoggedDay[], ground: WalkGround, ladders: readonly Ladder[] = LADDERS): Walked {
  const ladder = ladderOf(given, ladders);
  if (!ladder) {
    const limited = isForbidden(given, ground);
    return { given, drill: given, last: null, next: null, rests: limited || isWorse(days), limited };
  }
  let drill = given;
  let last: Walked['last'] = null;
  let next: Walked['next'] = nextStep(ladder, drill, [], ground.tolerated);
  let since: LoggedDay[] = [];
  for (const day of [...days].sort((a, b) => compareDays(a.on, b.on))) {
    since.push(day);
    const step = nextStep(ladder, drill, since, ground.tolerated);
    next = step;
    if (step.move === 'stay') continue;
    const against = notGone(step, ground);
    if (against) {
      next = step.move === 'up' ? { move: 'stay', why: against, drill } : { move: 'stay', why: 'at-the-bottom', drill };
      continue;
    }
    drill = step.drill;
    last = { ...step, on: day.on };
    since = [];
  }
  const limited = isForbidden(drill, ground);
  return { given, drill, last, next, rests: next.why === 'at-the-bottom' || limited, limited };
}

function isForbidden(id: string, { side, limits, drills }: WalkGround): boolean {
  const drill = findDrill(id, drills);
  return !drill || forbiddenDrill(drill, side, limits) !== null;
}

/** Swelling or symptoms grew the last time it was done. */
function isWorse(days: readonly LoggedDay[]): boolean {
  const newest = days
    .filter((day) => day.done)
    .sort((a, b) => compareDays(a.on, b.on))
    .at(-1);
  return newest?.swelling === true || newest?.worse === true;
}

function notGone({ drill: id, move }: LadderStep, ground: WalkGround): NotGone | null {
  const { equipment, drills } = ground;
  if (isForbidden(id, ground)) return 'forbidden';
  const whenGiven: Limits = { ...ground.limits, on: ground.givenOn };
  if (move === 'up' && isForbidden(id, { ...ground, limits: whenGiven })) return 'limit-ended';
  const drill = findDrill(id, drills)!;
  const healing = stillHealing(drill, ground);
  if (healing) return healing;
  return drill.equipment.some((piece) => !equipment.includes(piece)) ? 'equipment' : null;
}

function stillHealing({ notWith }: Drill, { operation, on }: WalkGround): NotGone | null {
  if (!operation || notWith.healingWeeks === 0) return null;
  if (operation.on === null) return 'healing-unknown';
  return weeksSince(operation.on, on) < notWith.healingWeeks ? 'healing' : null;
}

const NOT_GONE: Readonly<Record<NotGone, string>> = {
  forbidden: 'the next step is past a limit: stay',
  'limit-ended': 'a limit of the next step has run out: stay until somebody has looked',
  healing: 'too early after the operation for the next step: stay',
  'healing-unknown': 'the day of the operation is not known, and the next step has to wait for healing: stay',
  equipment: 'the next step needs what is not at hand: stay',
};

/** Why a drill is where it is: "more swelling the next morning: a step down". */
export function walkedWords({ last, next, limited }: Walked): string {
  if (limited) return say('a limit that holds now speaks against it');
  if (next && next.move === 'stay' && next.why in NOT_GONE) return say(NOT_GONE[next.why as NotGone]);
  if (last && (!next || next.why === 'not-yet')) return ladderWords(last);
  return next ? ladderWords(next as LadderStep) : '';
}
