import { EQUIPMENT, PROGRAM_ORDERS } from '@dial-gauge/core';
import * as z from 'zod';
import { AssessmentFile } from './assessment-file.js';

/** An assessment file with what a programme is made for: what is at hand, how long a day, how much pain is tolerated, in which order. */
export const ProgramFile = AssessmentFile.safeExtend({
  equipment: z.array(z.enum(EQUIPMENT)).max(EQUIPMENT.length).default([]),
  minutesADay: z.number().min(0).max(240).default(20),
  painTolerated: z.int().min(0).max(10).default(3),
  order: z.enum(PROGRAM_ORDERS).default('stages'),
});
export type ProgramFile = z.infer<typeof ProgramFile>;
