import { measurementKey, type Assessment, type Measurement, type MeasurementKey } from '../assessment.js';
import { motion, protocolOf } from '../catalogue/index.js';
import { measure, type MeasuredValue } from '../measurement.js';
import { checkedProcedure, checkedSetsFor } from '../checked/index.js';
import type { ValueCheck } from '../looked-up.js';
import { findProcedure, type Procedure } from '../procedure/index.js';
import {
  ageOn,
  compareWithNeeds,
  compareWithNorm,
  DEFAULT_NORM_ORDER,
  findNormSet,
  judging,
  NORM_SETS,
  type NeedComparison,
  type NormComparison,
  type NormQuery,
  type NormSet,
} from '../norms/index.js';
import type { ErrorContext, OwnError } from '../error/own.js';
import { gradedScreens, screenOutcomes, type Screen } from '../screen/index.js';
import { JUDGEMENT_FORMAT, RULES_VERSION, type Judgement } from './judgement.js';
import { changeBetween, type Change } from './change.js';
import { FINDING_KINDS, KINDS, type FindingKind, type Unplaced } from './kinds.js';
import { notComparable } from './not-compared.js';
import { rank } from './rank.js';
import { DEFAULT_RANKING, type Ranking } from './rankings.js';
import { allowedReadings, notJudged, stoppedAtLimits } from './silence.js';
import { totalArcs } from './total-arc.js';
import { DEFAULT_THRESHOLDS, type Evidence, type Found, type Kind, type Thresholds } from './types.js';

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
  /** Values that the clinic looked up, and what it found. */
  readonly checks?: readonly ValueCheck[];
  /** The screens as the clinic has them. */
  readonly screens?: readonly Screen[];
}

/** The set that judges first; each set of the order has to be known. */
function firstOf(order: readonly string[], ownSets: readonly NormSet[]): NormSet {
  for (const id of order)
    if (!findNormSet(id, ownSets))
      throw new RangeError(`unknown norm set "${id}"; allowed: ${[...NORM_SETS, ...ownSets].map((s) => s.id).join(', ')}`);
  const normSet = findNormSet(order[0] ?? '', ownSets);
  if (!normSet) throw new RangeError('no norm set is given; allowed: one or more');
  return normSet;
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
  const order = context.normSets ?? DEFAULT_NORM_ORDER;
  const normSet = firstOf(order, ownSets);
  const { sex, birthDate } = assessment.person;
  const age = ageOn(birthDate, assessment.assessedOn);
  const errors = { own: context.ownErrors, procedure: assessment.procedure?.id, checks: context.checks };
  const byKey = measureAll(assessment.measurements, errors);
  const measured = [...byKey.values()];
  const comparisons = new Map<MeasurementKey, NormComparison[]>(
    measured.map((m) => {
      const query = normQuery(m.measurement, sex, age, m.ends);
      const asked = [...checkedSetsFor(query.motion, context.checks), ...ownSets];
      return [m.key, asked.flatMap((set) => compareWithNorm(set, query, m.value, m.sem) ?? [])];
    }),
  );
  const places = new Map(order.map((id, at) => [id, at]));
  const judgedBy = new Map(measured.map((m) => [m.key, judging(places, comparisons.get(m.key) ?? [], age)]));
  const allowed = allowedReadings(measured, assessment);
  const stopped = stoppedAtLimits(measured, allowed, assessment);
  const needs = new Map<MeasurementKey, NeedComparison[]>(measured.map((m) => [m.key, needsOf(m)]));
  const previous = assessment.previous && {
    on: assessment.previous.assessedOn,
    byKey: measureAll(assessment.previous.measurements, errors),
  };
  const evidence: Evidence = {
    measured,
    byKey,
    comparisons,
    needs,
    judging: judgedBy,
    allowed,
    stopped,
    order,
    involvedSide: assessment.involvedSide,
    person: assessment.person,
    assessedOn: assessment.assessedOn,
    procedure: assessment.procedure,
    errors,
    arcs: totalArcs(measured),
    thresholds: context.thresholds ?? DEFAULT_THRESHOLDS,
    after: afterOf(assessment, context.checks),
    screened: gradedScreens(assessment.screens ?? [], errors, context.screens),
    previous,
    sinceLast: previous ? changesSince(measured, previous.byKey, errors) : NO_CHANGES,
  };
  const isAmount = (m: MeasuredValue) => motion(m.measurement.motion).unit !== 'yesNo';
  const amounts = { ...evidence, measured: measured.filter(isAmount) };
  const answers = { ...evidence, measured: measured.filter((m) => !isAmount(m)) };
  const ranking = context.ranking ?? DEFAULT_RANKING;
  const found = FINDING_KINDS.flatMap((kind) => foundOf(kind, amounts, answers));
  const looseEnds = notComparable(measured, byKey, previous);
  return {
    format: JUDGEMENT_FORMAT,
    rules: RULES_VERSION,
    normSet: { id: normSet.id, short: normSet.short, title: normSet.title },
    judgedBy: judgedByOf(evidence, ownSets),
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
    ...(assessment.screens?.length
      ? { screens: screenOutcomes(assessment.screens, assessment.screensBefore, errors, context.screens) }
      : {}),
  };
}

/** What one kind finds; amounts are judged by all, answers by the kinds that say something of them. */
function foundOf(id: FindingKind, amounts: Evidence, answers: Evidence): Unplaced[] {
  const kind: Kind<unknown> = KINDS[id];
  const all = kind.detect(amounts);
  if (kind.ofAnswers && answers.measured.length > 0) all.push(...kind.detect(answers));
  return all.map((found) => named(id, found));
}

/** A finding under its kind: what was found is nobody else's, so it takes its name in place. */
function named(kind: FindingKind, f: Found): Unplaced {
  return Object.assign(f, { kind }) as Unplaced;
}

const NO_CHANGES: Evidence['sinceLast'] = new Map();

function changesSince(measured: readonly MeasuredValue[], before: Evidence['byKey'], errors: ErrorContext): Evidence['sinceLast'] {
  const changes = new Map<MeasurementKey, Change>();
  for (const m of measured) {
    const then = before.get(m.key);
    if (then) changes.set(m.key, changeBetween(then, m, errors));
  }
  return changes;
}

/** Every set of the order that judged something, with how much. */
/** What was operated on, with its limits as the clinic found them. */
function afterOf({ procedure }: Assessment, checks: readonly ValueCheck[] | undefined): Procedure | undefined {
  const found = findProcedure(procedure?.id ?? '');
  return found && checkedProcedure(found, checks);
}

function judgedByOf({ order, measured, judging: by, stopped }: Evidence, ownSets: readonly NormSet[]): Judgement['judgedBy'] {
  const counts = new Map<string, number>();
  for (const m of measured) {
    const set = stopped.has(m.key) ? undefined : by.get(m.key)?.set;
    if (set !== undefined) counts.set(set, (counts.get(set) ?? 0) + 1);
  }
  return order.flatMap((id) => {
    const measurements = counts.get(id);
    return measurements === undefined ? [] : [{ id, short: findNormSet(id, ownSets)!.short, measurements }];
  });
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

function measureAll(measurements: Assessment['measurements'], errors: ErrorContext): Map<MeasurementKey, MeasuredValue> {
  const byKey = new Map<MeasurementKey, MeasuredValue>();
  for (const measurement of measurements) {
    const key = measurementKey(measurement);
    if (byKey.has(key)) throw new RangeError(`${key.replaceAll('|', ' ')} is given twice; put its trials into one measurement`);
    byKey.set(key, measure(measurement, errors));
  }
  return byKey;
}
