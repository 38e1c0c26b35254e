import type { Assessment, MeasurementKey, Session } from '../assessment.js';
import type { ErrorContext } from '../error/own.js';
import type { MeasuredValue } from '../measurement.js';
import type { GradedItem } from '../screen/index.js';
import type { Agreement, NeedComparison, NormComparison } from '../norms/index.js';
import type { Allowed, Limit } from '../precaution/index.js';
import type { Procedure } from '../procedure/index.js';
import type { Change } from './change.js';
import type { FindingStage } from './stages.js';
import type { Step } from './steps.js';
import type { TotalArc } from './total-arc.js';
import type { AmountUnit, Digit, InvolvedSide, Joint, Mode, MotionId, Position, Severity, Side, Unit } from '../terms.js';

/** What a finding is about, and the figures every kind has. Values in the motion's unit. */
export interface About {
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
}

/** What a kind found, before it is named and has its place. */
export interface Found<F = unknown> extends About {
  /** What this kind knows beside the figures. */
  readonly facts: F;
  /** Readings, sources, errors and arithmetic, in the order in which they are read. Never empty. */
  readonly steps: readonly Step[];
}

/** A finding of one kind before it has its place among the others. */
export interface UnplacedOf<K extends string, F> extends Found<F> {
  readonly kind: K;
}

/** A finding of one kind in its place. */
export interface FindingOf<K extends string, F> extends UnplacedOf<K, F> {
  /** Why it stands where it stands in the order. */
  readonly place: Place;
  /** How it read when it was signed: a copy keeps its words. */
  readonly said?: Said;
}

/** A finding in words. */
export interface Said {
  /** What it is about: "Left hip internal rotation, passive 19°". */
  readonly subject: string;
  readonly verdict: string;
  /** The verdict where what it is about was named already: "4 of 10, groin", "14° more". */
  readonly brief: string;
  /** Its steps, one a line. */
  readonly because: readonly string[];
  readonly place: string;
}

/** Which part of the rule put a finding where it stands. */
export type Place = (
  | { readonly by: 'stage' | 'largest' | 'straight-first' | 'no-complaint' }
  | { readonly by: 'ground-up'; readonly joint: Joint }
  | { readonly by: 'nearest'; readonly joint: Joint; readonly complaintAt: Joint; readonly apart: number }
  | { readonly by: 'painless-first'; readonly hurts: boolean }
) & { readonly otherSide?: true };

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

/** A limit at which a reading stopped; null: it must not be measured at all. */
export interface StoppedAt {
  readonly at: number | null;
  readonly by: Limit;
}

/** Everything the kinds of finding look at. */
export interface Evidence {
  readonly measured: readonly MeasuredValue[];
  readonly byKey: ReadonlyMap<MeasurementKey, MeasuredValue>;
  readonly comparisons: ReadonlyMap<MeasurementKey, readonly NormComparison[]>;
  readonly needs: ReadonlyMap<MeasurementKey, readonly NeedComparison[]>;
  /** The comparison that judges each measurement: of the first set of the order with a comparable value. */
  readonly judging: ReadonlyMap<MeasurementKey, NormComparison | undefined>;
  /** What the precautions of the episode allow a reading. */
  readonly allowed: ReadonlyMap<MeasurementKey, Allowed>;
  /** Readings that ended at a limit: no loss. */
  readonly stopped: ReadonlyMap<MeasurementKey, StoppedAt>;
  readonly order: readonly string[];
  readonly involvedSide: InvolvedSide | undefined;
  readonly person: Assessment['person'];
  readonly assessedOn: Assessment['assessedOn'];
  readonly procedure: Assessment['procedure'];
  /** What that is, with its limits as the clinic found them. */
  readonly after: Procedure | undefined;
  readonly errors: ErrorContext;
  readonly arcs: readonly TotalArc[];
  readonly thresholds: Thresholds;
  /** What lies between each reading and the one of the last visit that was taken the same way. */
  readonly sinceLast: ReadonlyMap<MeasurementKey, Change>;
  /** Items of the screens of the same visit. */
  readonly screened: readonly GradedItem[];
  readonly previous: { readonly on: Session['assessedOn']; readonly byKey: ReadonlyMap<MeasurementKey, MeasuredValue> } | undefined;
}

/** One part of the draft of a summary: what all findings of the kinds that share it come to in a sentence; '' for nothing to say. */
export interface Sum {
  /** Where in the summary it stands. */
  readonly at: number;
  readonly words: (findings: readonly (About & Said)[]) => string;
}

/** The shape a kind has on a screen, so that colour never has to tell. */
export type Mark = 'gap' | 'sides' | 'inner' | 'again' | 'pain' | 'steps' | 'notch' | 'change' | 'fall' | 'plain';

/**
 * What a programme answers a finding with: range that is to be won; a muscle's
 * length; range that is there and not used; force. `loss`: which of them the
 * reading itself tells (what is measured, and in which mode).
 */
export type Want = 'loss' | 'range' | 'length' | 'control' | 'strength';

/** Everything there is to a kind of finding. `F`: what it knows beside the figures. */
export interface Kind<F = unknown> {
  readonly stage: FindingStage;
  /** Order among kinds of one stage where all else is alike. */
  readonly rank: number;
  readonly mark: Mark;
  /** Losses of one motion are told in one sentence. */
  readonly joins?: true;
  /** Told apart from what matters today. */
  readonly aside?: true;
  /** What a programme answers it with; left out: nothing by itself. */
  readonly wants?: Want;
  /** More than people have: neither freed nor lengthened. */
  readonly tooMuch?: true;
  /** Nothing is done at this joint before it was looked at. */
  readonly holds?: true;
  /** Opens the question what limits it. */
  readonly opens?: true;
  /** A reason to measure it again next time. */
  readonly telling?: true;
  /** Says something about an answer (yes or no) too; the others judge amounts. */
  readonly ofAnswers?: true;
  /** Whether another reading of the same measurement says the same, where one reading alone can say it. */
  stands?(found: Found<F>, reading: { readonly value: number; readonly pain: number | null }): boolean;
  readonly detect: (evidence: Evidence) => Found<F>[];
  /** What it is about, where that is not the reading. */
  subject?(found: Found<F>): string;
  verdict(found: Found<F>): string;
  /** The verdict where what it is about was named already, where that is shorter. */
  brief?(found: Found<F>): string;
  readonly sum?: Sum;
}
