import { APART, EXERCISES, MARKS, ROUND, SLIPS } from '@dial-gauge/core';
import * as z from 'zod';
import { Motion } from './catalogue-ids.js';
import { Digit, EndFeel, Id, LimbSide, Mode } from './ids.js';
import { StudyView } from './reliability.js';
import { ById, none, nothing, route } from './route.js';

const Exercise = z.enum(EXERCISES);
const Mark = z.enum(MARKS);
const Slip = z.enum(SLIPS);

/** A place in a figure, in its own units. */
const Spot = z.tuple([z.number().min(-1000).max(1000), z.number().min(-1000).max(1000)]);
const Read = z.number().min(-360).max(360);

/** What is answered, by the exercise. */
const answers = {
  read: z.strictObject({ degrees: Read, eye: z.number().min(-1).max(1) }),
  place: z.strictObject({ axis: Spot, still: Spot, moving: Spot }),
  side: z.strictObject({ side: LimbSide }),
  name: z.strictObject({ motion: Motion }),
  plane: z.strictObject({ moved: z.number().min(0).max(2), by: z.number().min(-90).max(90) }),
  feel: z.strictObject({ degrees: Read, feel: EndFeel, isUsual: z.boolean(), substitution: z.string().max(60).nullable() }),
  examiners: z.strictObject({
    apart: z.strictObject({ who: z.int().min(0).max(2), how: z.enum(APART) }).nullable(),
    degrees: Read,
  }),
} as const satisfies Record<(typeof EXERCISES)[number], z.ZodType>;

const of = <K extends keyof typeof answers>(exercise: K) =>
  z.strictObject({
    id: Id,
    task: z
      .int()
      .min(0)
      .max(ROUND - 1),
    exercise: z.literal(exercise),
    answer: answers[exercise],
  });

/** One answer of a round. */
export const PracticeAnswer = z.discriminatedUnion('exercise', [
  of('read'),
  of('place'),
  of('side'),
  of('name'),
  of('plane'),
  of('feel'),
  of('examiners'),
]);
export type PracticeAnswer = z.infer<typeof PracticeAnswer>;

/** A round of one exercise: for oneself, or for a class that does the same tasks. */
export const NewPracticeRound = z.strictObject({
  id: Id,
  exercise: Exercise,
  isShared: z.boolean(),
  /** What a class knows it by. */
  name: z.string().trim().max(60),
  seed: z.int().min(0).max(2_147_483_647),
});
export type NewPracticeRound = z.infer<typeof NewPracticeRound>;

const Scored = z.object({
  mark: Mark,
  off: z.number().nullable(),
  slips: z.array(Slip).readonly(),
  read: z.number().nullable(),
  truth: z.number().nullable(),
});

const round = {
  id: Id,
  exercise: Exercise,
  isShared: z.boolean(),
  name: z.string(),
  by: z.string(),
  isOwn: z.boolean(),
  at: z.iso.datetime(),
};

export const PracticeRoundView = z.object({
  ...round,
  tasks: z.array(
    z.object({
      card: z.string(),
      seed: z.int(),
      /** What was answered, as the exercise has it, and what it came to; null while it was not. */
      answered: z.object({ answer: z.record(z.string(), z.unknown()), scored: Scored }).nullable(),
    }),
  ),
  /** How far all who did it lie apart; null for a round of one's own, and for whoever has not finished it. */
  spread: z
    .object({
      tasks: z
        .array(z.object({ truth: z.number().nullable(), mean: z.number().nullable(), sd: z.number().nullable(), readers: z.int() }))
        .readonly(),
      people: z.array(z.object({ who: z.string(), bias: z.number().nullable(), scatter: z.number().nullable(), read: z.int() })).readonly(),
    })
    .nullable(),
  /** How many have finished it, oneself among them. */
  finished: z.int(),
});
export type PracticeRoundView = z.infer<typeof PracticeRoundView>;

const Sum = z.object({
  answers: z.int(),
  right: z.int(),
  near: z.int(),
  meanOff: z.number().nullable(),
  slips: z.array(z.object({ slip: Slip, times: z.int() })).readonly(),
});

const PracticeRoundLine = z.object({ ...round, answered: z.int(), tasks: z.int(), right: z.int(), meanOff: z.number().nullable() });
export type PracticeRoundLine = z.infer<typeof PracticeRoundLine>;

/** One's own practice. */
export const PracticeView = z.object({
  exercises: z.array(
    z.object({
      exercise: Exercise,
      /** What there is to train, what of it was never asked, and what is due again. */
      cards: z.int(),
      fresh: z.int(),
      due: z.int(),
      /** When the next comes back; null where nothing was answered. */
      nextAt: z.iso.datetime().nullable(),
      sum: Sum,
      /** What goes wrong most, by card. */
      trouble: z.array(z.object({ card: z.string(), wrong: z.int(), answers: z.int() })),
    }),
  ),
  /** Own rounds, newest first. */
  rounds: z.array(PracticeRoundLine),
  /** Rounds of others in this clinic that one may do as well. */
  open: z.array(PracticeRoundLine),
  /** So many of one's answers were looked at, the latest; true where there are older ones. */
  hasOlder: z.boolean(),
});
export type PracticeView = z.infer<typeof PracticeView>;

export const PracticeStudy = z.strictObject({
  id: Id,
  name: z.string().trim().min(1).max(80),
  /** The way of measuring the figures stand for. */
  protocol: z.string().max(90),
  digit: Digit.optional(),
  mode: Mode,
});
export type PracticeStudy = z.infer<typeof PracticeStudy>;

/** A patient made of numbers to train on. */
export const PRACTICE = {
  practice: route({
    method: 'get',
    path: '/practice',
    summary: 'One’s own practice: what is due, what goes wrong, rounds done and rounds open',
    params: none,
    body: nothing,
    answer: PracticeView,
  }),
  startRound: route({
    method: 'post',
    path: '/practice-rounds',
    summary: 'Start a round: what is due comes first',
    params: none,
    body: NewPracticeRound,
    answer: PracticeRoundView,
  }),
  round: route({
    method: 'get',
    path: '/practice-rounds/:id',
    summary: 'A round with one’s own answers; how all lie apart once one’s own are given',
    params: ById,
    body: nothing,
    answer: PracticeRoundView,
  }),
  answerTask: route({
    method: 'post',
    path: '/practice-rounds/:id/answers',
    summary: 'Answer a task of a round, once; scored against its hidden truth',
    params: ById,
    body: PracticeAnswer,
    answer: PracticeRoundView,
  }),
  studyOfRound: route({
    method: 'post',
    path: '/practice-rounds/:id/study',
    summary: 'Make a reliability study of what a class read; practice is never judged by',
    params: ById,
    body: PracticeStudy,
    answer: StudyView,
  }),
} as const;
