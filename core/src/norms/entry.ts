import type { Confidence, MotionId } from '../terms.js';
import type { AgeBand, NormEntry, NormValue } from './types.js';

/** What an entry says beside its value; left out: any mode, any position, either sex, adults. */
export type Of = Partial<Pick<NormEntry, 'mode' | 'position' | 'variant' | 'side' | 'digit' | 'sex' | 'ages' | 'summary' | 'note'>>;

const entry = (motion: MotionId, value: NormValue, confidence: Confidence, of: Of): NormEntry => ({
  motion,
  mode: 'any',
  position: 'any',
  sex: 'any',
  ages: null,
  ...of,
  value,
  confidence,
});

/** A handbook figure. */
export const point = (motion: MotionId, expected: number, confidence: Confidence, of: Of = {}): NormEntry =>
  entry(motion, { kind: 'point', expected }, confidence, of);

/** A line that is drawn: what lies beyond it is short. */
export const cutoff = (motion: MotionId, at: number, confidence: Confidence, of: Of = {}): NormEntry =>
  entry(motion, { kind: 'cutoff', at }, confidence, of);

/** A handbook range. */
export const range = (motion: MotionId, low: number, high: number, confidence: Confidence, of: Of = {}): NormEntry =>
  entry(motion, { kind: 'range', low, high }, confidence, of);

/** Mean and standard deviation of a sample. */
export const sample = (motion: MotionId, mean: number, sd: number, confidence: Confidence, of: Of = {}): NormEntry =>
  entry(motion, { kind: 'distribution', mean, sd }, confidence, of);

/** Mean of a sample and the 95 % confidence interval of that mean. */
export const meanOnly = (motion: MotionId, mean: number, ciLow: number, ciHigh: number, confidence: Confidence, of: Of = {}): NormEntry =>
  entry(motion, { kind: 'mean', mean, ciLow, ciHigh }, confidence, of);

/** Completed years, both included, as tables print them: `years(20, 44)` is "20–44 years". */
export const years = (from: number, through: number): AgeBand => ({ from, to: through + 1, label: `${from}–${through} years` });

/** The lists of entries for a row printed as mean (SD) per age band; null where the table has no cell. */
export function byBand(
  motion: MotionId,
  bands: readonly AgeBand[],
  cells: readonly (readonly [mean: number, sd: number] | null)[],
  confidence: Confidence,
  of: Of = {},
): NormEntry[] {
  return cells.flatMap((cell, index) =>
    cell ? [sample(motion, cell[0], cell[1], confidence, { ...of, ages: bands[index] ?? null })] : [],
  );
}
