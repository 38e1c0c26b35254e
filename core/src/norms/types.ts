import type { Confidence, Degrees, Mode, MotionId, Position, Sex, Source } from '../terms.js';

/** A handbook figure, a handbook range, or a sample with its spread. Only a sample gives a z and a percentile. */
export type NormValue =
  | { readonly kind: 'point'; readonly expected: Degrees }
  | { readonly kind: 'range'; readonly low: Degrees; readonly high: Degrees }
  | { readonly kind: 'distribution'; readonly mean: Degrees; readonly sd: Degrees };

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
  readonly sex: Exclude<Sex, 'unknown'> | 'any';
  /** null: adults in general, no band given. */
  readonly ages: AgeBand | null;
  readonly value: NormValue;
  readonly confidence: Confidence;
}

export interface NormSet {
  readonly id: string;
  readonly title: string;
  /** Short name for a sentence: "Boone & Azen 1979". */
  readonly short: string;
  readonly source: Source;
  readonly entries: readonly NormEntry[];
}
