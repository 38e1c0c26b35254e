import { measurementKey, type Assessment, type MeasurementKey } from '../assessment.js';
import { measure, type MeasuredValue } from '../measurement.js';
import { ageOn, compareWithNorm, DEFAULT_NORM_SET, findNormSet, NORM_SETS, type NormComparison, type NormSet } from '../norms/index.js';
import { activeBeyondPassive, activeShortOfPassive } from './active-passive.js';
import { changed } from './changed.js';
import { inconsistentTrials } from './inconsistent-trials.js';
import { noNorm } from './no-norm.js';
import { painful } from './painful.js';
import { rank } from './rank.js';
import { shortOfNormal } from './short-of-normal.js';
import { shortOfOtherSide } from './short-of-other-side.js';
import { DEFAULT_THRESHOLDS, type Detector, type Finding, type Thresholds } from './types.js';

const DETECTORS: readonly Detector[] = [
  painful,
  activeBeyondPassive,
  inconsistentTrials,
  shortOfNormal,
  shortOfOtherSide,
  activeShortOfPassive,
  changed,
  noNorm,
];

/** What the assessment is judged by. */
export interface AssessContext {
  /** Id of the norm set in use. */
  readonly normSet?: string;
  readonly thresholds?: Thresholds;
}

export interface JudgedMeasurement extends MeasuredValue {
  readonly norms: readonly NormComparison[];
}

export interface Judgement {
  readonly normSet: Pick<NormSet, 'id' | 'short' | 'title'>;
  readonly measurements: readonly JudgedMeasurement[];
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
  const normSetId = context.normSet ?? DEFAULT_NORM_SET;
  const normSet = findNormSet(normSetId);
  if (!normSet) throw new RangeError(`unknown norm set "${normSetId}"; allowed: ${NORM_SETS.map((s) => s.id).join(', ')}`);
  const age = ageOn(assessment.person.birthDate, assessment.assessedOn);
  const byKey = measureAll(assessment.measurements);
  const measured = [...byKey.values()];
  const comparisons = new Map<MeasurementKey, NormComparison[]>(
    measured.map((m) => [
      m.key,
      NORM_SETS.flatMap((set) => compareWithNorm(set, { ...m.measurement, sex: assessment.person.sex, age }, m.value, m.sem) ?? []),
    ]),
  );
  const evidence = {
    measured,
    byKey,
    comparisons,
    normSet,
    involvedSide: assessment.involvedSide,
    thresholds: context.thresholds ?? DEFAULT_THRESHOLDS,
    previous: assessment.previous && { on: assessment.previous.assessedOn, byKey: measureAll(assessment.previous.measurements) },
  };
  return {
    normSet: { id: normSet.id, short: normSet.short, title: normSet.title },
    measurements: measured.map((m) => ({ ...m, norms: comparisons.get(m.key) ?? [] })),
    findings: rank(DETECTORS.flatMap((detect) => detect(evidence))),
  };
}

function measureAll(measurements: Assessment['measurements']): Map<MeasurementKey, MeasuredValue> {
  const byKey = new Map<MeasurementKey, MeasuredValue>();
  for (const measurement of measurements) {
    const key = measurementKey(measurement);
    if (byKey.has(key)) throw new RangeError(`${key.replaceAll('|', ' ')} is given twice; put its trials into one measurement`);
    byKey.set(key, measure(measurement));
  }
  return byKey;
}
