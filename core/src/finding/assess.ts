import { measurementKey, type Assessment, type Measurement, type MeasurementKey } from '../assessment.js';
import { motion, protocolName, protocolOf } from '../catalogue/index.js';
import { measure, type MeasuredValue } from '../measurement.js';
import {
  ageOn,
  compareWithNeeds,
  compareWithNorm,
  DEFAULT_NORM_ORDER,
  findNormSet,
  judging,
  setsFor,
  NORM_SETS,
  type NeedComparison,
  type NormComparison,
  type NormQuery,
  type NormSet,
} from '../norms/index.js';
import type { ErrorContext, OwnError } from '../error/own.js';
import { activeBeyondPassive, activeShortOfPassive } from './active-passive.js';
import { endFeel } from './end-feel.js';
import { behindCourse } from './behind-course.js';
import { beyondNormal } from './beyond-normal.js';
import { capsularPattern } from './capsular-pattern.js';
import { changed } from './changed.js';
import { inconsistentTrials } from './inconsistent-trials.js';
import { lumbarSlr } from './lumbar-slr.js';
import { noNorm } from './no-norm.js';
import { oppositeDirectionPain } from './opposite-pain.js';
import { painful } from './painful.js';
import { rank } from './rank.js';
import { DEFAULT_RANKING, type Ranking } from './rankings.js';
import { notJudged, stoppedAtLimits, type NotJudged } from './silence.js';
import { shortOfNormal } from './short-of-normal.js';
import { shortOfOtherSide } from './short-of-other-side.js';
import { substituted } from './substituted.js';
import { totalArcs, type TotalArc } from './total-arc.js';
import { twoJointLimit } from './two-joint.js';
import { DEFAULT_THRESHOLDS, type Detector, type Finding, type Thresholds } from './types.js';

/** What says something about an answer too; the others judge amounts. */
const OF_ANSWERS: readonly Detector[] = [painful, endFeel, substituted];

const DETECTORS: readonly Detector[] = [
  ...OF_ANSWERS,
  oppositeDirectionPain,
  activeBeyondPassive,
  inconsistentTrials,
  lumbarSlr,
  shortOfNormal,
  shortOfOtherSide,
  activeShortOfPassive,
  behindCourse,
  capsularPattern,
  twoJointLimit,
  beyondNormal,
  changed,
  noNorm,
];

/** What the assessment is judged by. */
export interface AssessContext {
  /** Ids of norm sets in the order in which they are asked: the first with a comparable value judges, and no other ones do. */
  readonly normSets?: readonly string[];
  /** The clinic's own sets, beside those that come with the program. */
  readonly ownSets?: readonly NormSet[];
  readonly thresholds?: Thresholds;
  /** Measuring errors that the clinic found out for itself. */
  readonly ownErrors?: readonly OwnError[];
  /** Which loss comes first. */
  readonly ranking?: Ranking;
}

export interface JudgedMeasurement extends MeasuredValue {
  readonly norms: readonly NormComparison[];
  /** Id of the set that judged it; null where none of the order has a comparable value. */
  readonly judgedBy: string | null;
  /** What everyday tasks ask of this motion, and whether there is enough. */
  readonly needs: readonly NeedComparison[];
  /** Readings that look alike but were taken another way, and so were not compared. */
  readonly notCompared: readonly string[];
}

/** How a judgement is written down; a copy that was signed keeps the one it was written in. Before there was one: 1. */
export const JUDGEMENT_FORMAT = 2;
/** Which rules judged: changes with every rule that can change a finding. */
export const RULES_VERSION = '2026-11-26';

export interface Judgement {
  readonly format: number;
  readonly rules: string;
  /** The set that is asked first. */
  readonly normSet: Pick<NormSet, 'id' | 'short' | 'title'>;
  /** Every set of the order that judged something, in that order. */
  readonly judgedBy: readonly (Pick<NormSet, 'id' | 'short'> & { readonly measurements: number })[];
  readonly notJudged: readonly NotJudged[];
  readonly ranking: Ranking;
  readonly measurements: readonly JudgedMeasurement[];
  /** Total rotation of shoulders and hips, beside their ends. */
  readonly arcs: readonly TotalArc[];
  readonly findings: readonly Finding[];
}

/**
 * Judges an assessment: every measurement against every norm set, and the
 * findings in order of reading, each with its reasons. Web, server, print and
 * terminal show this one object.
 *
 * @throws RangeError for an unknown norm set, a day before the birth, a measurement without trials,
 *   or two measurements of the same motion, side, mode and position
 */
export function assess(assessment: Assessment, context: AssessContext = {}): Judgement {
  const ownSets = context.ownSets ?? [];
  const sets = [...NORM_SETS, ...ownSets];
  const order = context.normSets ?? DEFAULT_NORM_ORDER;
  for (const id of order)
    if (!findNormSet(id, ownSets)) throw new RangeError(`unknown norm set "${id}"; allowed: ${sets.map((s) => s.id).join(', ')}`);
  const normSet = findNormSet(order[0] ?? '', ownSets);
  if (!normSet) throw new RangeError('no norm set is given; allowed: one or more');
  const { sex, birthDate } = assessment.person;
  const age = ageOn(birthDate, assessment.assessedOn);
  const errors = { own: context.ownErrors, procedure: assessment.procedure?.id };
  const byKey = measureAll(assessment.measurements, errors);
  const measured = [...byKey.values()];
  const comparisons = new Map<MeasurementKey, NormComparison[]>(
    measured.map((m) => {
      const query = normQuery(m.measurement, sex, age, m.ends);
      const asked = [...setsFor(query.motion), ...ownSets];
      return [m.key, asked.flatMap((set) => compareWithNorm(set, query, m.value, m.sem) ?? [])];
    }),
  );
  const judgedBy = new Map(measured.map((m) => [m.key, judging(order, comparisons.get(m.key) ?? [])]));
  const stopped = stoppedAtLimits(measured, assessment);
  const needs = new Map<MeasurementKey, NeedComparison[]>(measured.map((m) => [m.key, needsOf(m)]));
  const previous = assessment.previous && {
    on: assessment.previous.assessedOn,
    byKey: measureAll(assessment.previous.measurements, errors),
  };
  const evidence = {
    measured,
    byKey,
    comparisons,
    needs,
    judging: judgedBy,
    stopped,
    order,
    involvedSide: assessment.involvedSide,
    person: assessment.person,
    assessedOn: assessment.assessedOn,
    procedure: assessment.procedure,
    errors,
    arcs: totalArcs(measured),
    thresholds: context.thresholds ?? DEFAULT_THRESHOLDS,
    previous,
  };
  const isAmount = (m: MeasuredValue) => motion(m.measurement.motion).unit !== 'yesNo';
  const amounts = { ...evidence, measured: measured.filter(isAmount) };
  const answers = { ...evidence, measured: measured.filter((m) => !isAmount(m)) };
  const ranking = context.ranking ?? DEFAULT_RANKING;
  const found = [...DETECTORS.flatMap((detect) => detect(amounts)), ...OF_ANSWERS.flatMap((detect) => detect(answers))];
  const looseEnds = notComparable(measured, byKey, previous);
  return {
    format: JUDGEMENT_FORMAT,
    rules: RULES_VERSION,
    normSet: { id: normSet.id, short: normSet.short, title: normSet.title },
    judgedBy: order.flatMap((id) => {
      const count = measured.filter((m) => judgedBy.get(m.key)?.set === id && !stopped.has(m.key)).length;
      return count === 0 ? [] : [{ id, short: findNormSet(id, ownSets)!.short, measurements: count }];
    }),
    notJudged: measured.flatMap((m) => notJudged(m, evidence) ?? []),
    ranking,
    arcs: evidence.arcs,
    // Written out: spreading took longer than judging.
    measurements: measured.map((m) => ({
      key: m.key,
      measurement: m.measurement,
      value: m.value,
      excursion: m.excursion,
      ends: m.ends,
      summary: m.summary,
      consistent: m.consistent,
      sem: m.sem,
      mdc95: m.mdc95,
      errorSource: m.errorSource,
      errorIsOwn: m.errorIsOwn,
      norms: comparisons.get(m.key) ?? [],
      judgedBy: stopped.has(m.key) ? null : (judgedBy.get(m.key)?.set ?? null),
      needs: needs.get(m.key) ?? [],
      notCompared: looseEnds.get(m.key) ?? [],
    })),
    findings: rank(found, {
      ranking,
      complaintAt: assessment.complaintAt,
      procedure: assessment.procedure,
      involvedSide: assessment.involvedSide,
    }),
  };
}

/** A judgement that was written down in an earlier format, as today's readers want it: what it did not say is left unsaid. */
export function judgementOfToday(stored: Judgement): Judgement {
  if (stored.format === JUDGEMENT_FORMAT) return stored;
  const { normSet } = stored;
  const measurements = stored.measurements.map((m) => ({
    ...m,
    judgedBy: m.norms.some((norm) => norm.set === normSet.id) ? normSet.id : null,
  }));
  const count = measurements.filter((m) => m.judgedBy !== null).length;
  return {
    ...stored,
    format: 1,
    rules: 'before rules were numbered',
    measurements,
    judgedBy: count === 0 ? [] : [{ id: normSet.id, short: normSet.short, measurements: count }],
    notJudged: [],
  };
}

/** What a norm set is asked for a measurement of a person. */
export function normQuery(
  of: Pick<Measurement, 'motion' | 'side' | 'mode' | 'position' | 'protocol' | 'digit'>,
  sex: NormQuery['sex'],
  age: number,
  ends?: readonly number[],
): NormQuery {
  const { motion, side, mode, position, digit } = of;
  return { motion, side, mode, position, digit, variant: protocolOf(of).variant, sex, age, ends };
}

/** Tasks are done with the joint as it lies free; a way of measuring under load or of one part alone is not asked. */
function needsOf({ measurement, value, sem }: MeasuredValue): NeedComparison[] {
  const { variant } = protocolOf(measurement);
  return variant !== null && variant !== 'loaded' ? [] : compareWithNeeds(measurement.motion, value, sem);
}

type Keyed = ReadonlyMap<MeasurementKey, MeasuredValue>;

/** What a reader would want to compare but must not: the same motion by another protocol, last time or on the other side. */
function notComparable(
  measured: readonly MeasuredValue[],
  byKey: Keyed,
  previous: { readonly on: string; readonly byKey: Keyed } | undefined,
): ReadonlyMap<MeasurementKey, string[]> {
  const opposite = { left: 'right', right: 'left', midline: 'midline' } as const;
  const way = ({ motion, mode, digit }: Measurement, side: Measurement['side']): string => `${motion}|${mode}|${digit ?? ''}|${side}`;
  const byWay = (among: Keyed): ReadonlyMap<string, MeasuredValue[]> => {
    const ways = new Map<string, MeasuredValue[]>();
    for (const m of among.values()) {
      const key = way(m.measurement, m.measurement.side);
      const own = ways.get(key);
      if (own) own.push(m);
      else ways.set(key, [m]);
    }
    return ways;
  };
  const [now, then] = [byWay(byKey), previous && byWay(previous.byKey)];
  const alike = (m: MeasuredValue, side: Measurement['side'], among: typeof now | undefined): MeasuredValue[] =>
    among?.get(way(m.measurement, side)) ?? [];
  const said = (m: MeasuredValue, other: MeasuredValue, when: string): string =>
    `${when} by another protocol (${protocolName(protocolOf(other.measurement))}): not compared, the two measure different things`;
  return new Map(
    measured.map((m) => {
      const { side } = m.measurement;
      const before = previous && !previous.byKey.has(m.key) ? alike(m, side, then) : [];
      const across =
        side === 'midline' || byKey.has(measurementKey({ ...m.measurement, side: opposite[side] })) ? [] : alike(m, opposite[side], now);
      return [
        m.key,
        [
          ...before.map((other) => said(m, other, `measured on ${previous?.on ?? ''}`)),
          ...across.map((other) => said(m, other, `the ${opposite[side]} side was measured`)),
        ],
      ];
    }),
  );
}

function measureAll(measurements: Assessment['measurements'], errors: ErrorContext): Map<MeasurementKey, MeasuredValue> {
  const byKey = new Map<MeasurementKey, MeasuredValue>();
  for (const measurement of measurements) {
    const key = measurementKey(measurement);
    if (byKey.has(key)) throw new RangeError(`${key.replaceAll('|', ' ')} is given twice; put its trials into one measurement`);
    byKey.set(key, measure(measurement, errors));
  }
  return byKey;
}
