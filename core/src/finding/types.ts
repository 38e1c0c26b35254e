import type { Assessment, MeasurementKey, Session } from '../assessment.js';
import type { ErrorContext } from '../error/own.js';
import type { MeasuredValue } from '../measurement.js';
import type { Agreement, NeedComparison, NormComparison } from '../norms/index.js';
import type { Precaution } from '../precaution/precaution.js';
import type { TotalArc } from './total-arc.js';
import type { AmountUnit, Digit, FindingKind, InvolvedSide, Mode, MotionId, Position, Severity, Side, Unit } from '../terms.js';

/** One thing the numbers say, with the reason. Values in the motion's unit. */
export interface Finding {
  readonly kind: FindingKind;
  readonly severity: Severity;
  readonly motion: MotionId;
  readonly side: Side;
  readonly mode: Mode;
  readonly position: Position;
  readonly protocol: string;
  /** Which finger, where it is one. */
  readonly digit?: Digit;
  readonly unit: Unit;
  readonly value: number;
  /** What the value was held against: norm, other side, passive reading, last visit; null when nothing. */
  readonly expected: number | null;
  /** value − expected. */
  readonly difference: number | null;
  /** Loss in percent of the expected figure; null where there is none. */
  readonly percentLoss: number | null;
  /** |difference| in multiples of the error it has to beat. */
  readonly timesError: number | null;
  readonly agreement: Agreement | null;
  /** The sentence a screen or a report shows: who, and what about it. */
  readonly subject: string;
  readonly verdict: string;
  /** The verdict where what it is about was named already: "4 of 10, groin", "14° more". */
  readonly brief: string;
  /** Values, source, error and arithmetic, one step a line. Never empty. */
  readonly because: readonly string[];
  /** Why it stands where it stands in the order. */
  readonly place: string;
  /** True where it comes first because of an operation on that knee. */
  readonly isStraighteningFirst?: true;
}

/** A finding before it has its place among the others. */
export type Unplaced = Omit<Finding, 'place' | 'isStraighteningFirst'>;

/** What a clinic may set. */
export interface Thresholds {
  /** Least side difference worth flagging, by unit: degrees, centimetres, seconds, and a share of the better side for force. */
  readonly sideDifference: Readonly<Record<AmountUnit, number>>;
  /** Least active–passive gap worth flagging: degrees, and share of the passive range. */
  readonly activeGap: number;
  readonly activeGapShare: number;
  /** Loss in percent of the expected figure from which a finding is mild, moderate, marked. */
  readonly severityPercent: readonly [mild: number, moderate: number, marked: number];
  /** The same in multiples of the measuring error; the lesser of the two counts, and this alone where a percentage says nothing. */
  readonly severityTimes: readonly [mild: number, moderate: number, marked: number];
}

/** @see common practice, no source; a clinic may change each */
export const DEFAULT_THRESHOLDS: Thresholds = {
  sideDifference: { deg: 10, cm: 1.5, N: 0.1, s: 5 },
  activeGap: 10,
  activeGapShare: 0.1,
  severityPercent: [10, 25, 50],
  severityTimes: [1, 2, 3],
};

/** A limit at which a reading stopped. */
export interface StoppedAt {
  readonly at: number;
  readonly by: Precaution;
}

/** Everything the kinds of finding look at. */
export interface Evidence {
  readonly measured: readonly MeasuredValue[];
  readonly byKey: ReadonlyMap<MeasurementKey, MeasuredValue>;
  readonly comparisons: ReadonlyMap<MeasurementKey, readonly NormComparison[]>;
  readonly needs: ReadonlyMap<MeasurementKey, readonly NeedComparison[]>;
  /** The comparison that judges each measurement: of the first set of the order with a comparable value. */
  readonly judging: ReadonlyMap<MeasurementKey, NormComparison | undefined>;
  /** Readings that ended at a limit: no loss. */
  readonly stopped: ReadonlyMap<MeasurementKey, StoppedAt>;
  readonly order: readonly string[];
  readonly involvedSide: InvolvedSide | undefined;
  readonly person: Assessment['person'];
  readonly assessedOn: Assessment['assessedOn'];
  readonly procedure: Assessment['procedure'];
  readonly errors: ErrorContext;
  readonly arcs: readonly TotalArc[];
  readonly thresholds: Thresholds;
  readonly previous: { readonly on: Session['assessedOn']; readonly byKey: ReadonlyMap<MeasurementKey, MeasuredValue> } | undefined;
}

/** One kind of finding: looks at the evidence, returns what it found. */
export type Detector = (evidence: Evidence) => Unplaced[];
