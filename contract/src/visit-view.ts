import * as z from 'zod';
import { AnyDay, Id } from './ids.js';

export const VisitView = z.object({
  id: Id,
  assessedOn: AnyDay,
  examiner: z.string(),
  readings: z.int(),
  /** How many of them are made-up numbers of simulated instruments: with any, the visit is a rehearsal. */
  simulated: z.int(),
  number: z.int(),
  /** Signed, and not being amended: nothing of it may be changed. */
  signed: z.boolean(),
});
export type VisitView = z.infer<typeof VisitView>;
