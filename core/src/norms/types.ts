import type { Summary } from '../catalogue/types.js';
import type { Confidence, Digit, LookedUp, Mode, MotionId, Position, Sex, Side, Source } from '../terms.js';

/**
 * A handbook figure, a line that a source draws, a handbook range, a sample with its spread, or the mean
 * of a sample with only the confidence interval of that mean. Only a spread
 * gives a z and a percentile: an interval of a mean is not a range of people.
 */
export type NormValue =
  | { readonly kind: 'point'; readonly expected: number }
  /** What lies beyond the line is called short, by the reading as it is. */
  | { readonly kind: 'cutoff'; readonly at: number }
  | { readonly kind: 'range'; readonly low: number; readonly high: number }
  | { readonly kind: 'distribution'; readonly mean: number; readonly sd: number }
  /** The same of a sample that is no bell curve: shown, and no edge is drawn from it. */
  | { readonly kind: 'skewed'; readonly mean: number; readonly sd: number }
  | { readonly kind: 'mean'; readonly mean: number; readonly ciLow: number; readonly ciHigh: number };

export const NORM_KINDS = ['point', 'cutoff', 'range', 'distribution', 'skewed', 'mean'] as const;

/** Ages from (and including) to (and excluding), in years. */
export interface AgeBand {
  readonly from: number;
  readonly to: number;
  readonly label: string;
}

export interface NormEntry {
  readonly motion: MotionId;
  /** `any`: the source does not tell active from passive. */
  readonly mode: Mode | 'any';
  /** `any`: the source does not tie the value to one test position. */
  readonly position: Position | 'any';
  /** Variant of the protocol, where the value is not of the usual one; `any` where the source does not tell them apart. */
  readonly variant?: string;
  /** Where the source gives left and right apart. */
  readonly side?: Side;
  /** One finger; left out: index to little finger alike. */
  readonly digit?: Digit;
  readonly sex: Exclude<Sex, 'unknown'> | 'any';
  /** null: adults in general, no band given. */
  readonly ages: AgeBand | null;
  /** Which of the readings the source counted, where it is not what the protocol counts. */
  readonly summary?: Summary;
  readonly value: NormValue;
  readonly confidence: Confidence;
  /** What is to be known of this one value: another edition, who was measured. */
  readonly note?: string;
  /** Where somebody of the clinic looked it up; left out: it is as the set has it. */
  readonly lookedUp?: LookedUp;
}

export interface NormSet {
  readonly id: string;
  readonly title: string;
  /** Short name for a sentence: "Boone & Azen 1979". */
  readonly short: string;
  /** Year of publication; null where there is none. */
  readonly year: number | null;
  /** Table or page, or that it is not recalled. */
  readonly where: string;
  readonly source: Source;
  readonly entries: readonly NormEntry[];
}
