import * as z from 'zod';

/** How much and how often, as it may be given. */
export const Dose = z
  .strictObject({
    sets: z.int().min(1).max(10),
    reps: z.int().min(1).max(100).nullable(),
    seconds: z.int().min(1).max(1800).nullable(),
    timesADay: z.int().min(1).max(12),
    daysAWeek: z.int().min(1).max(7),
  })
  .superRefine(({ reps, seconds }, context) => {
    if (reps === null && seconds === null)
      context.addIssue({ code: 'custom', path: ['reps'], message: 'is missing beside seconds; allowed: repetitions, seconds, or both' });
  });
