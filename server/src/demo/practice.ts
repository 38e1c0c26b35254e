import { randomUUID } from 'node:crypto';
import { roundOf, seededRandom, seemsAt, taskOf, type AnswerOf, type Drawn, type ExerciseId } from '@dial-gauge/core';
import { addMinutes, setHours, startOfHour, subDays } from 'date-fns';
import type { EntityManager } from 'typeorm';
import { PracticeAnswerRow, PracticeRoundRow } from '../records/training/entities.js';

interface People {
  readonly clinicId: string;
  readonly examinerId: string;
  readonly colleagueId: string;
  readonly today: Date;
}

/** How somebody answers who knows most of it: what is put beside the truth, task by task. */
const ANSWERS: { readonly [K in ExerciseId]?: (drawn: Drawn, at: number, by: number) => AnswerOf<K> } = {
  read: (drawn, at, by) => {
    const { truth, eye } = taskOf('read', drawn);
    // One reads with the eye where it is to begin with; the other looks square and forgets half degrees.
    if (by === 1) return { degrees: Math.round(at % 2 ? seemsAt(truth, eye) : truth), eye: at % 2 ? eye : 0 };
    return { degrees: at === 4 ? 180 - truth : at % 3 === 0 ? Math.floor(truth) : truth, eye: 0 };
  },
  side: (drawn, at) => {
    const { side } = taskOf('side', drawn);
    return { side: at === 3 || at === 7 ? (side === 'left' ? 'right' : 'left') : side };
  },
  name: (drawn, at) => {
    const { protocol, options } = taskOf('name', drawn);
    return { motion: at === 2 || at === 5 ? options.find((one) => one !== protocol.motion)! : protocol.motion };
  },
};

/** Rounds of practice: some of the last weeks, and one that both examiners did. */
export async function seedPractice(manager: EntityManager, { clinicId, examinerId, colleagueId, today }: People): Promise<void> {
  const round = async (exercise: ExerciseId, daysAgo: number, startedBy: string, doneBy: readonly string[], name = '') => {
    const id = randomUUID();
    const startedAt = setHours(startOfHour(subDays(today, daysAgo)), 12);
    const tasks = roundOf(exercise, [], startedAt.getTime(), seededRandom(daysAgo));
    const row: PracticeRoundRow = { id, clinicId, exercise, isShared: name !== '', name, seed: daysAgo, tasks, startedBy, startedAt };
    await manager.insert(PracticeRoundRow, row);
    for (const [by, answeredBy] of doneBy.entries())
      for (const [task, drawn] of tasks.entries()) {
        const answer = { ...ANSWERS[exercise]!(drawn, task, by) };
        const answeredAt = addMinutes(startedAt, task + by * 30);
        const given: PracticeAnswerRow = { id: randomUUID(), clinicId, roundId: id, task, answer, answeredBy, answeredAt };
        await manager.insert(PracticeAnswerRow, given as object);
      }
  };
  await round('side', 16, examinerId, [examinerId]);
  await round('name', 9, examinerId, [examinerId]);
  await round('read', 5, colleagueId, [examinerId, colleagueId], 'Do we read alike?');
  await round('plane', 2, colleagueId, [], 'In plane, all of us');
}
