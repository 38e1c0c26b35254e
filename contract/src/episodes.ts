import * as z from 'zod';
import { EpisodeView } from './episode-view.js';
import { Day, InvolvedSide, Joint } from './ids.js';
import { Precaution } from './plan-file.js';
import { ById, route } from './route.js';

/** What the record holds of them. */
const MOST_KEPT = 60_000;

/** What an episode of care is about, as it is asked at the start and changed later. */
export const Intake = z.strictObject({
  complaint: z.string().trim().min(1).max(300),
  involvedSide: InvolvedSide.nullable().default(null),
  /** Which joint it is about, for an order that starts there. */
  complaintAt: Joint.nullable().default(null),
  /** Id of a procedure that the program knows; null: none, or another one, named below. */
  procedureId: z.string().max(60).nullable().default(null),
  procedure: z.string().trim().max(160).default(''),
  procedureOn: Day.nullable().default(null),
  dominantSide: z.enum(['left', 'right', 'both']).nullable().default(null),
  /** Sport, stairs, instrument: what the patient wants back. */
  wanted: z.string().trim().max(300).default(''),
  precautions: z
    .array(Precaution)
    .max(200)
    .refine((all) => JSON.stringify(all).length <= MOST_KEPT, 'are too many or too long to be kept; allowed: about 60,000 letters in all')
    .default([]),
  /** When they are to be measured again; null: nothing agreed. */
  dueOn: Day.nullable().default(null),
});
export type Intake = z.infer<typeof Intake>;

/** A changed intake. `revision` is the one it was read at: where somebody else has changed it since, it is refused and shown. */
export const IntakeChange = z.strictObject({ ...Intake.shape, revision: z.int().min(0) });
export type IntakeChange = z.infer<typeof IntakeChange>;

/** What an episode of care is about. */
export const EPISODES = {
  setIntake: route({
    method: 'put',
    path: '/episodes/:id/intake',
    summary: 'Change what an episode is about, with its precautions; what stood before is kept on record',
    params: ById,
    body: IntakeChange,
    answer: EpisodeView,
  }),
} as const;
