import type { MotionId } from '@dial-gauge/core';
import { findMotion, NORM_SETS, unknownMotion } from '@dial-gauge/core/names';
import * as z from 'zod';

/** A norm set that comes with the program. */
export const NormSetId = z.enum(NORM_SETS.map((set) => set.id));

/** A motion that the catalogue holds. */
export const Motion = z.custom<MotionId>((value) => typeof value === 'string' && findMotion(value) !== undefined, {
  error: (issue) => unknownMotion(typeof issue.input === 'string' ? issue.input : ''),
});
