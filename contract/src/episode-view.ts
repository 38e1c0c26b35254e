import * as z from 'zod';
import { AnyDay, Id, InvolvedSide, Joint } from './ids.js';
import type { Precaution } from './plan-file.js';

/** An episode as it is stored: wider than what may be entered, so that an older record still opens. */
export const EpisodeView = z.object({
  id: Id,
  openedOn: AnyDay,
  revision: z.int(),
  complaint: z.string(),
  involvedSide: InvolvedSide.nullable(),
  complaintAt: Joint.nullable(),
  procedureId: z.string().nullable(),
  procedure: z.string(),
  procedureOn: AnyDay.nullable(),
  dominantSide: z.enum(['left', 'right', 'both']).nullable(),
  wanted: z.string(),
  precautions: z.array(z.custom<Precaution>((value) => typeof value === 'object' && value !== null)),
  dueOn: AnyDay.nullable(),
});
export type EpisodeView = z.infer<typeof EpisodeView>;
