import { DRILLS, EQUIPMENT, findDrill, isOwnDrill, MOST_DRILLS, PROGRAM_ORDERS, type DrillMemory } from '@dial-gauge/core';
import * as z from 'zod';
import { described } from './described.js';
import { Dose } from './dose.js';
import { OwnDrillView } from './drills.js';
import { eachOnce } from './each-once.js';
import { EpisodeView } from './episode-view.js';
import { AnyDay, Day, Id } from './ids.js';
import { PatientView } from './patients.js';
import { ById, nothing, route } from './route.js';
import { VisitView } from './visit-view.js';

/** What a programme is made for. */
export const ProgramChoices = z.strictObject({
  equipment: z.array(z.enum(EQUIPMENT)).max(EQUIPMENT.length),
  minutesADay: z.number().min(0).max(240),
  painTolerated: z.int().min(0).max(10),
  order: z.enum(PROGRAM_ORDERS),
});
export type ProgramChoices = z.infer<typeof ProgramChoices>;

const DRILL_SIDES = ['left', 'right', 'both', 'midline'] as const;

/** One drill as it is given. */
export const GivenDrill = z
  .strictObject({
    drill: z.string().max(80),
    /** Of a drill of the clinic’s own: which one of it. */
    version: z.int().min(1).max(100_000).optional(),
    side: z.enum(DRILL_SIDES),
    dose: Dose,
    /** Own words for the person; empty where the drill's own do. */
    words: z.string().trim().max(400).default(''),
  })
  .superRefine(({ drill: id, side, version }, context) => {
    const refuse = (path: string, message: string) => context.addIssue({ code: 'custom', path: [path], message });
    if (isOwnDrill(id) !== (version !== undefined))
      return refuse('version', version === undefined ? `is missing; allowed: the version of ${id}` : `is not had by ${id}; allowed: none`);
    // Whether the clinic has it, its server knows.
    if (isOwnDrill(id)) return;
    const drill = findDrill(id);
    if (!drill) return refuse('drill', `"${id}" is no drill; allowed: ${DRILLS.map((one) => one.id).join(', ')}`);
    const allowed = drill.sides === 'none' ? ['midline'] : ['left', 'right', 'both'];
    if (!allowed.includes(side)) refuse('side', `"${side}" does not fit ${id}; allowed: ${allowed.join(', ')}`);
  });
export type GivenDrill = z.infer<typeof GivenDrill>;

/** A programme is given whole. What was given before stays on record. */
export const NewProgram = z.strictObject({
  id: Id,
  choices: ProgramChoices,
  drills: z
    .array(GivenDrill)
    .max(MOST_DRILLS)
    .superRefine((drills, context) => eachOnce(drills, ({ drill }) => drill, context, 'is given already')),
  recheckOn: Day,
  /** Why anything differs from what was proposed, or what else is to be said. */
  note: z.string().trim().max(1000).default(''),
});
export type NewProgram = z.infer<typeof NewProgram>;

/** What was given, by whom and when. Wider than what may be entered. */
export const ProgramView = z.object({
  id: Id,
  visitId: Id,
  number: z.int(),
  choices: z.looseObject({ equipment: z.array(z.string()), minutesADay: z.number(), painTolerated: z.number(), order: z.string() }),
  drills: z.array(
    z.looseObject({
      drill: z.string(),
      version: z.int().optional(),
      side: z.enum(DRILL_SIDES),
      dose: z.object({
        sets: z.number(),
        reps: z.number().nullable(),
        seconds: z.number().nullable(),
        timesADay: z.number(),
        daysAWeek: z.number(),
      }),
      words: z.string(),
    }),
  ),
  recheckOn: AnyDay,
  note: z.string(),
  by: z.string(),
  at: z.iso.datetime(),
});
export type ProgramView = z.infer<typeof ProgramView>;

/** Programmes of a visit, and what was given and tried before. */
export const ProgramsView = z.object({
  visit: VisitView,
  patient: PatientView,
  episode: EpisodeView,
  /** Of this visit, the one that holds last. */
  given: z.array(ProgramView),
  /** The one that held when this visit began. */
  before: ProgramView.nullable(),
  /** Drills that were being done when this visit began, each with the day since which it has been given without a break. */
  running: z.array(z.object({ drill: z.string(), side: z.enum(DRILL_SIDES), since: AnyDay })),
  /** Drills of the clinic: each as it stands, and as it was where that was given. */
  own: z.array(OwnDrillView),
  /** What drills did in retests so far. */
  memory: z.array(described<DrillMemory>(z.looseObject({ drill: z.string() }))),
});
export type ProgramsView = z.infer<typeof ProgramsView>;

/** Drills that are given after a visit. */
export const PROGRAMS = {
  programs: route({
    method: 'get',
    path: '/visits/:id/programs',
    summary: 'Programmes that were given at a visit, and before it',
    params: ById,
    body: nothing,
    answer: ProgramsView,
  }),
  giveProgram: route({
    method: 'post',
    path: '/visits/:id/programs',
    summary: 'Give a programme; what was given before stays on record',
    params: ById,
    body: NewProgram,
    answer: ProgramsView,
  }),
} as const;
