import { randomUUID } from 'node:crypto';
import type {
  NewPracticeRound,
  PracticeAnswer,
  PracticeStudy,
  PracticeView,
  PracticeRoundLine,
  PracticeRoundView,
} from '@dial-gauge/contract';
import {
  cardsOf,
  checkWay,
  dueOf,
  EXERCISES,
  isCard,
  LEAST_RATERS,
  LEAST_SUBJECTS,
  motion,
  protocolOfId,
  READ_IN_DEGREES,
  roundOf,
  scoreOf,
  seededRandom,
  spreadOf,
  studyTableOf,
  sumOf,
  truthOf,
  type AnswerOf,
  type ExerciseId,
  type ReadBy,
  type Scored,
} from '@dial-gauge/core';
import { In } from 'typeorm';
import { grouped } from '../../shared/grouped.js';
import { HttpProblem, notFound, refused } from '../../shared/problems.js';
import { isDuplicate, type UnitOfWork } from '../../database/unit-of-work.js';
import { StudyReadingRow, StudyRow } from '../../records/reliability/entities.js';
import { PracticeAnswerRow, PracticeRoundRow } from '../../records/training/entities.js';

/** So many of one's own answers are looked at, the latest. */
const LOOKED_AT = 5_000;
const ROUNDS_LISTED = 20;
/** A round of a class stays open to others for so long. */
const OPEN_DAYS = 60;
/** More examiners than this no table shows. */
const MOST_RATERS = 20;

/** An answer that is kept, with what it comes to; null for one whose task this version does not know. */
function scoredOf({ exercise, tasks }: PracticeRoundRow, { task, answer }: PracticeAnswerRow): Scored | null {
  const drawn = tasks[task];
  return drawn && isCard(exercise, drawn.card) ? scoreOf(exercise, drawn, answer as unknown as AnswerOf<ExerciseId>) : null;
}

/** A round that the caller may do: their own, or one of a class in their clinic. */
async function roundFor(work: UnitOfWork, id: string): Promise<PracticeRoundRow> {
  const round = await work.one(PracticeRoundRow, id, 'round');
  if (!round.isShared && round.startedBy !== work.caller.userId) throw notFound('round');
  return round;
}

const answersOf = ({ manager, clinicId }: UnitOfWork, roundIds: readonly string[]): Promise<PracticeAnswerRow[]> =>
  manager.find(PracticeAnswerRow, { where: { clinicId, roundId: In([...roundIds]) }, order: { answeredAt: 'ASC', task: 'ASC' } });

/** One's own practice. */
export async function practiceView(work: UnitOfWork): Promise<PracticeView> {
  const { manager, clinicId, caller, now } = work;
  const { scored, hasOlder } = await ownScored(work);
  const [own, shared] = await Promise.all([
    manager.find(PracticeRoundRow, { where: { clinicId, startedBy: caller.userId }, order: { startedAt: 'DESC' }, take: ROUNDS_LISTED }),
    manager
      .createQueryBuilder(PracticeRoundRow, 'r')
      .where('r.clinicId = :clinicId AND r.isShared = TRUE AND r.startedAt > :since', {
        clinicId,
        since: new Date(now.getTime() - OPEN_DAYS * 86_400_000),
      })
      .orderBy('r.startedAt', 'DESC')
      .take(ROUNDS_LISTED)
      .getMany(),
  ]);
  const byRound = grouped(scored, ({ round }) => round.id);
  const names = await work.namesOf([...own, ...shared].map(({ startedBy }) => startedBy));
  const lineOf = (round: PracticeRoundRow): PracticeRoundLine => {
    const done = byRound.get(round.id) ?? [];
    const { right, meanOff } = sumOf(done);
    return { ...headOf(work, round, names.get(round.startedBy)), answered: done.length, tasks: round.tasks.length, right, meanOff };
  };
  return {
    exercises: EXERCISES.map((exercise) => {
      const of = scored.filter((one) => one.exercise === exercise);
      const due = dueOf(of);
      const next = due.reduce<number | null>((soonest, { at }) => (soonest === null || at < soonest ? at : soonest), null);
      return {
        exercise,
        cards: cardsOf(exercise).length,
        fresh: cardsOf(exercise).length - due.length,
        due: due.filter(({ at }) => at <= now.getTime()).length,
        nextAt: next === null ? null : new Date(next).toISOString(),
        sum: sumOf(of),
        trouble: due
          .filter(({ wrong }) => wrong > 0)
          .sort((a, b) => b.wrong - a.wrong)
          .slice(0, 5)
          .map(({ card, wrong, answers: times }) => ({ card, wrong, answers: times })),
      };
    }),
    rounds: own.map(lineOf),
    open: shared.filter(({ startedBy }) => startedBy !== caller.userId).map(lineOf),
    hasOlder,
  };
}

/** The latest of one's own answers with what they come to, oldest first; of one exercise, or of all. */
async function ownScored({ manager, clinicId, caller }: UnitOfWork, exercise?: ExerciseId) {
  const latest = await manager.find(PracticeAnswerRow, {
    where: { clinicId, answeredBy: caller.userId },
    order: { answeredAt: 'DESC' },
    take: LOOKED_AT,
  });
  const ids = [...new Set(latest.map(({ roundId }) => roundId))];
  const rounds =
    ids.length > 0 ? await manager.find(PracticeRoundRow, { where: { clinicId, id: In(ids), ...(exercise ? { exercise } : {}) } }) : [];
  const byId = new Map(rounds.map((round) => [round.id, round]));
  const scored = latest.reverse().flatMap((answer) => {
    const round = byId.get(answer.roundId);
    const came = round && scoredOf(round, answer);
    return came
      ? [{ ...came, exercise: round.exercise, card: round.tasks[answer.task]!.card, at: answer.answeredAt.getTime(), round }]
      : [];
  });
  return { scored, hasOlder: latest.length === LOOKED_AT };
}

const headOf = ({ caller }: UnitOfWork, { id, exercise, isShared, name, startedBy, startedAt }: PracticeRoundRow, by = '') => ({
  id,
  exercise,
  isShared,
  name,
  by,
  isOwn: startedBy === caller.userId,
  at: startedAt.toISOString(),
});

/** Starts a round: what is due comes first. Sent twice it is started once. */
export async function startRound(work: UnitOfWork, { id, exercise, isShared, name, seed }: NewPracticeRound): Promise<void> {
  const { manager, clinicId, caller, now } = work;
  if (isShared && name === '') throw refused('name', 'is missing; allowed: what the class knows the round by, up to 60 characters');
  // What was due when it was first sent is no longer due when it comes again.
  const there = await manager.findOneBy(PracticeRoundRow, { id });
  const known = there ? [] : (await ownScored(work, exercise)).scored;
  const row: PracticeRoundRow = {
    id,
    clinicId,
    exercise,
    isShared,
    name,
    seed,
    tasks: roundOf(exercise, dueOf(known), now.getTime(), seededRandom(seed)),
    startedBy: caller.userId,
    startedAt: now,
  };
  await work.insertFact(PracticeRoundRow, row, 'round', ['exercise', 'isShared', 'name', 'seed', 'startedBy']);
}

export async function roundView(work: UnitOfWork, id: string): Promise<PracticeRoundView> {
  const round = await roundFor(work, id);
  const answers = await answersOf(work, [id]);
  const own = new Map(answers.filter(({ answeredBy }) => answeredBy === work.caller.userId).map((answer) => [answer.task, answer]));
  const names = await work.namesOf([round.startedBy, ...answers.map(({ answeredBy }) => answeredBy)]);
  const people = readers(round, answers, names);
  return {
    ...headOf(work, round, names.get(round.startedBy)),
    tasks: round.tasks.map(({ card, seed }, at) => {
      const answer = own.get(at);
      const scored = answer && scoredOf(round, answer);
      return { card, seed, answered: scored ? { answer: answer.answer, scored } : null };
    }),
    // Whoever has not finished stays blind.
    spread:
      round.isShared && READ_IN_DEGREES.includes(round.exercise) && own.size === round.tasks.length
        ? spreadOf(truthsOf(round), people)
        : null,
    finished: people.length,
  };
}

const truthsOf = ({ exercise, tasks }: PracticeRoundRow): (number | null)[] =>
  tasks.map((drawn) => (isCard(exercise, drawn.card) ? truthOf(exercise, drawn) : null));

/** Those who have answered every task, and what they read. */
function readers(
  round: PracticeRoundRow,
  answers: readonly PracticeAnswerRow[],
  names: ReadonlyMap<string, string>,
): (ReadBy & { id: string })[] {
  return [...grouped(answers, ({ answeredBy }) => answeredBy)]
    .filter(([, own]) => own.length === round.tasks.length)
    .map(([id, own]) => {
      const at = new Map(own.map((answer) => [answer.task, answer]));
      return {
        id,
        who: names.get(id) ?? '',
        read: round.tasks.map((_, task) => scoredOf(round, at.get(task)!)?.read ?? null),
      };
    });
}

/** Keeps an answer. A task is answered once: what comes later to the same one is refused, and the first stands. */
export async function answerTask(work: UnitOfWork, roundId: string, { id, task, exercise, answer }: PracticeAnswer): Promise<void> {
  const { clinicId, caller, now } = work;
  const round = await roundFor(work, roundId);
  if (exercise !== round.exercise) throw refused('exercise', `is not that of this round; allowed: ${round.exercise}`);
  const drawn = round.tasks[task];
  if (!drawn || !isCard(exercise, drawn.card)) throw refused('task', `is none of this round; allowed: 0 to ${round.tasks.length - 1}`);
  const row: PracticeAnswerRow = { id, clinicId, roundId, task, answer: { ...answer }, answeredBy: caller.userId, answeredAt: now };
  try {
    await work.insertFact(PracticeAnswerRow, row, 'answer', ['roundId', 'task', 'answer', 'answeredBy']);
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    throw new HttpProblem(409, 'Answered already', 'This task was answered before, perhaps in another window. The first answer stands.', {
      errors: [{ path: 'task', message: 'is answered; allowed: one that is not' }],
    });
  }
}

/** Makes a reliability study of what a class read. It is told apart from a study of people, and never judged by. */
export async function studyOfRound(
  work: UnitOfWork,
  roundId: string,
  { id, name, protocol: way, digit, mode }: PracticeStudy,
): Promise<void> {
  const { clinicId, caller, now, manager } = work;
  const nothing = 'No study was made.';
  const round = await roundFor(work, roundId);
  if (!round.isShared || !READ_IN_DEGREES.includes(round.exercise))
    throw refused(
      'round',
      'is not one in which a class read degrees; allowed: a round shared with others that is read in degrees',
      nothing,
    );
  const people = readers(round, await answersOf(work, [roundId]), new Map()).sort((a, b) => a.id.localeCompare(b.id));
  if (!people.some(({ id: who }) => who === caller.userId))
    throw refused('round', 'is not finished by you; allowed: a round of which you have answered every task', nothing);
  if (people.length < LEAST_RATERS || people.length > MOST_RATERS)
    throw refused('round', `was finished by ${people.length}; allowed: ${LEAST_RATERS} to ${MOST_RATERS} people`, nothing);
  const { table } = studyTableOf(round.tasks.length, people);
  if (table.length < LEAST_SUBJECTS)
    throw refused('round', `has ${table.length} tasks that all of them could read; allowed: ${LEAST_SUBJECTS} or more`, nothing);
  const protocol = protocolOfId(way);
  if (!protocol) throw refused('protocol', `"${way}" is not in the library; allowed: a protocol id`, nothing);
  const instrument = round.exercise === 'plane' ? ('inclinometer' as const) : ('goniometer' as const);
  const wrong = checkWay({ ...protocol, protocol: way, digit, mode, instrument });
  if (wrong) throw refused(wrong.field, wrong.message, nothing);
  // Between the marks half degrees are read in practice, finer than at the bench: only the bounds hold here.
  const { min, max } = motion(protocol.motion).limits;
  const outside = table.flat().find((value) => value < min || value > max);
  if (outside !== undefined)
    throw refused(
      'protocol',
      `cannot hold ${outside}°, which was read; allowed: a motion that can, this one goes from ${min}° to ${max}°`,
      nothing,
    );
  const study: StudyRow = {
    id,
    clinicId,
    name,
    motion: protocol.motion,
    protocol: way,
    digit: digit ?? 0,
    mode,
    instrument,
    kind: 'raters',
    subjects: table.length,
    raters: people.length,
    turns: table.flatMap((row, subject) => row.map((_, rater) => ({ subject, rater }))),
    practiceRoundId: roundId,
    startedBy: caller.userId,
    startedAt: now,
  };
  const isNew = await work.insertFact(StudyRow, study, 'study', ['name', 'protocol', 'digit', 'mode', 'practiceRoundId']);
  if (!isNew) return;
  await manager.insert(
    StudyReadingRow,
    table.flatMap((row, subject) =>
      row.map((value, rater) => ({
        id: randomUUID(),
        clinicId,
        studyId: id,
        subject,
        rater,
        value,
        heldBy: people[rater]!.id,
        heldAt: now,
      })),
    ),
  );
}
