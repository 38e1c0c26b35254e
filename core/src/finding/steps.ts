import type { Measurement } from '../assessment.js';
import type { Caveat } from './change.js';
import type { ErrorSource } from '../error/source.js';
import type { MeasuredValue } from '../measurement.js';
import type { NeedComparison, NormComparison, NormFlag } from '../norms/index.js';
import type { Confidence, Digit, EndFeel, IsoDate, LookedUp, Mode, MotionId, Side, Source, Unit } from '../terms.js';
import type { TotalArc } from './total-arc.js';

/** A figure with its unit, or words that are said, one or several of them. */
export type Given = number | string | readonly string[] | { readonly value: number; readonly unit: Unit };

/** How a value came from its trials. */
export interface Readings
  extends Pick<MeasuredValue, 'value' | 'ends' | 'summary'>, Pick<Measurement, 'trials' | 'instrument' | 'motion'> {}

/** What the surgeon is told of: below a value, at one or more, or so much beyond the other side. */
export interface Told {
  readonly when: 'below' | 'at-most' | 'beyond-other';
  readonly at: number;
  /** How much beyond the other side it is. */
  readonly beyond?: number;
}

/** One line of what a finding rests on: a reading, a source, an error, a sum. In the motion's unit. */
export type Step =
  /** How a value came from its trials; whose, where there are several. */
  | { readonly step: 'readings'; readonly whose?: string; readonly of: Readings }
  | { readonly step: 'error'; readonly unit: Unit; readonly sem: number; readonly mdc95: number; readonly source: ErrorSource }
  /** from − take = is, and what that has to be larger than. */
  | {
      readonly step: 'difference';
      readonly motion: MotionId;
      readonly what?: string;
      readonly from: number;
      readonly take: number;
      readonly is: number;
      readonly signed?: true;
      readonly percentLoss?: number | null;
      readonly timesError?: number;
      /** Error of the difference; the clinic's least difference; where the error is from. */
      readonly mdc?: number;
      readonly least?: number;
      readonly source?: ErrorSource;
    }
  | {
      readonly step: 'error-of-sides';
      readonly unit: Unit;
      readonly sems: readonly [number, number];
      readonly mdc: number;
      readonly least: number;
    }
  /** The source counts its readings in another way. */
  | { readonly step: 'counted'; readonly motion: MotionId; readonly value: number }
  | { readonly step: 'norm'; readonly motion: MotionId; readonly norm: NormComparison }
  | { readonly step: 'flags'; readonly flags: readonly NormFlag[] }
  | { readonly step: 'votes'; readonly short: number; readonly of: number }
  | { readonly step: 'tasks'; readonly needs: readonly NeedComparison[] }
  /** Where more than expected begins. */
  | { readonly step: 'upper-edge'; readonly motion: MotionId; readonly norm: NormComparison; readonly edge: number }
  /** Norms that do not fit, and so were not used. */
  | { readonly step: 'not-used'; readonly motion: MotionId; readonly norms: readonly { readonly set: string; readonly expected: number }[] }
  | { readonly step: 'arc'; readonly arc: TotalArc }
  | { readonly step: 'before'; readonly motion: MotionId; readonly on: IsoDate; readonly value: number }
  | { readonly step: 'caveat'; readonly caveat: Caveat }
  | { readonly step: 'usual'; readonly motion: MotionId; readonly weeks: number; readonly low: number; readonly high: number | null }
  | ({ readonly step: 'told'; readonly motion: MotionId; readonly fromWeek: number; readonly lookedUp?: LookedUp } & Told)
  | { readonly step: 'end-feel'; readonly felt: EndFeel; readonly usual: readonly EndFeel[] }
  | {
      readonly step: 'pain';
      readonly motion: MotionId;
      readonly side: Side;
      readonly digit?: Digit;
      readonly mode: Mode;
      readonly pain: number;
      readonly of: Readings;
    }
  /** What one motion of a pattern lost, as a share of what is expected, with the error of that share. */
  | {
      readonly step: 'share-lost';
      readonly motion: MotionId;
      readonly side: Side;
      readonly of: Readings;
      readonly expected: number;
      readonly from: string;
      readonly share: number;
      readonly error: number;
    }
  | { readonly step: 'unmeasured'; readonly motions: readonly MotionId[] }
  | { readonly step: 'source'; readonly source: Source; readonly confidence?: Confidence; readonly caution?: string }
  /** A remark: a phrase with what stands in it. */
  | { readonly step: 'note'; readonly note: string; readonly given?: Readonly<Record<string, Given>> };

export type StepName = Step['step'];

export const readings = ({ measurement, value, ends, summary }: MeasuredValue, whose?: string): Step => ({
  step: 'readings',
  whose,
  of: readingsOfValue({ measurement, value, ends, summary }),
});

export const readingsOfValue = ({
  measurement: { motion, trials, instrument },
  value,
  ends,
  summary,
}: Pick<MeasuredValue, 'measurement' | 'value' | 'ends' | 'summary'>): Readings => ({ motion, trials, instrument, value, ends, summary });

export const note = (words: string, given?: Readonly<Record<string, Given>>): Step => ({ step: 'note', note: words, given });
