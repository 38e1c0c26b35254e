import type { Instrument } from '../terms.js';
import { combinedSem } from './sem.js';

/** The error used for a number, and where it comes from. Degrees. */
export interface MeasuringError {
  readonly sem: number;
  readonly source: string;
  readonly isDefault: boolean;
}

interface DefaultError {
  readonly sameExaminer: number;
  readonly otherExaminer: number;
}

/**
 * Defaults for want of anything better, degrees.
 *
 * @see common practice; of the size of Boone DC et al. 1978 (same rater 3–4, other
 *   raters 5–6) for the goniometer (from memory)
 */
const DEFAULTS: Readonly<Partial<Record<Instrument, DefaultError>>> = {
  goniometer: { sameExaminer: 3, otherExaminer: 5 },
  inclinometer: { sameExaminer: 2, otherExaminer: 4 },
  visual: { sameExaminer: 6, otherExaminer: 6 },
};

/**
 * The standard error of measurement to use for an instrument. A subtracted
 * (dual) reading carries the error of both sites.
 *
 * @param instrument what the reading was taken with
 * @param sameExaminer false when readings of two examiners are compared
 * @returns undefined when no error is known for the instrument
 * @example errorOf('dualInclinometer').sem // 2.828…, √(2² + 2²)
 */
export function errorOf(instrument: Instrument, sameExaminer = true): MeasuringError | undefined {
  const base = DEFAULTS[instrument === 'dualInclinometer' ? 'inclinometer' : instrument];
  if (!base) return undefined;
  const one = sameExaminer ? base.sameExaminer : base.otherExaminer;
  const who = sameExaminer ? 'one examiner' : 'two examiners';
  return instrument === 'dualInclinometer'
    ? { sem: combinedSem(one, one), source: `default, two inclinometer sites subtracted, ${who}`, isDefault: true }
    : { sem: one, source: `default, ${instrument}, ${who}`, isDefault: true };
}
