import type { Limits, Precaution } from '../precaution/index.js';
import type { IsoDate } from '../terms.js';

/** Precautions alone, on a day or on any. */
export const limited = (precautions: readonly Precaution[] = [], on: IsoDate | null = null): Limits => ({ precautions, cautions: [], on });
