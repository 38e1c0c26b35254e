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
  /** Cautions that were answered yes, and the parts of the body that the answers are about. */
  answers: z.object({ yes: z.array(z.string()), where: z.record(z.string(), z.array(z.string())) }).nullish(),
});
export type VisitView = z.infer<typeof VisitView>;
