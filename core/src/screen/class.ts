import type { GradedItem } from './grade.js';
import type { ItemTry } from './result.js';

export const AFTER_DRILL = ['better', 'same', 'worse'] as const;
/** How a marker was after a drill, as the person says it of themself. */
export type AfterDrill = (typeof AFTER_DRILL)[number];

/** What somebody said after a drill. */
export interface DrillAnswer {
  readonly drill: string;
  readonly answer: AfterDrill;
}

/** Answers after drills, out of the tries of the item that asks for them; in the order they were given. */
export function drillAnswers(tries: readonly ItemTry[]): DrillAnswer[] {
  return tries.flatMap(({ answer, note }) => {
    const known = AFTER_DRILL.find((one) => one === answer);
    return known && note ? [{ drill: note, answer: known }] : [];
  });
}

/**
 * Where somebody stands at the end: nobody finishes on worse. Who got worse
 * goes back to the last drill that helped; where none did, there is none to go
 * back to, and the person is looked at.
 *
 * @returns null for whoever did not get worse
 */
export function backTo(answers: readonly DrillAnswer[]): { readonly madeWorse: string; readonly drill: string | null } | null {
  const last = answers[answers.length - 1];
  if (last?.answer !== 'worse') return null;
  const helped = [...answers].reverse().find(({ answer, drill }) => answer === 'better' && drill !== last.drill);
  return { madeWorse: last.drill, drill: helped?.drill ?? null };
}

/** How many each drill made better, left the same, made worse; in the order the drills were done. */
export function drillTally(people: readonly (readonly DrillAnswer[])[]): { drill: string; better: number; same: number; worse: number }[] {
  const tally = new Map<string, { drill: string; better: number; same: number; worse: number }>();
  for (const { drill, answer } of people.flat()) {
    const row = tally.get(drill) ?? { drill, better: 0, same: 0, worse: 0 };
    row[answer] += 1;
    tally.set(drill, row);
  }
  return [...tally.values()];
}

/** Whether an item was answered for somebody, and how it stands. */
export type Standing = 'meets' | 'short' | 'hurts' | 'open';
export function standingOf(graded: GradedItem | undefined): Standing {
  if (!graded || graded.done.tries.length === 0) return 'open';
  if ((graded.pain ?? 0) > 0) return 'hurts';
  return graded.quality === 'not judged' ? 'open' : graded.quality;
}
