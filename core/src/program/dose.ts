import type { Side } from '../terms.js';
import { sayCount, say } from '../words/say.js';
import type { Dose } from './drills/types.js';

/** Seconds of a repetition that is not held, of getting into place, and of resting between sets. @see common practice, no source */
const REP = 4;
const SET_UP = 20;
const REST = 20;

/** Minutes of a day that a dose takes, on one side or on two. Rounded up to half a minute. */
export function minutesOf({ sets, reps, seconds, timesADay }: Dose, sides: 1 | 2): number {
  const set = reps === null ? (seconds ?? 0) : reps * (seconds === null ? REP : seconds + 2);
  const once = SET_UP + sides * (sets * set + (sets - 1) * REST);
  return Math.ceil((once * timesADay) / 30) / 2;
}

/** One side or two. */
export const sidesCounted = (side: Side | 'both'): 1 | 2 => (side === 'both' ? 2 : 1);

/** "2 × 10, each held for 5 s, twice a day, 5 days a week" */
export function doseWords({ sets, reps, seconds, timesADay, daysAWeek }: Dose): string {
  const once =
    reps === null
      ? sets === 1
        ? durationWords(seconds ?? 0)
        : say('{sets} × {time}', { sets, time: durationWords(seconds ?? 0) })
      : sets === 1
        ? sayCount(reps, '{count} time', '{count} times')
        : say('{sets} × {reps}', { sets, reps });
  const held = reps !== null && seconds !== null ? say(', each held for {time}', { time: durationWords(seconds) }) : '';
  return `${once}${held}, ${sayCount(timesADay, 'once a day', '{count} times a day')}, ${
    daysAWeek === 7 ? say('every day') : sayCount(daysAWeek, '{count} day a week', '{count} days a week')
  }`;
}

function durationWords(seconds: number): string {
  return seconds >= 60 && seconds % 60 === 0 ? say('{minutes} min', { minutes: seconds / 60 }) : say('{seconds} s', { seconds });
}
