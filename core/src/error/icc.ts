import { fQuantile } from './distributions.js';
import { studyVariance, StudyError, type StudyTable, type StudyVariance } from './anova.js';
import { mdc95 } from './sem.js';

/** The six forms: one-way random, two-way random with absolute agreement, two-way mixed with consistency; of one reading and of the mean of k. */
export const ICC_FORMS = ['1,1', '2,1', '3,1', '1,k', '2,k', '3,k'] as const;
export type IccForm = (typeof ICC_FORMS)[number];

/** What each form asks, in plain words. */
export const ICC_WORDS: Readonly<Record<IccForm, string>> = {
  '1,1': 'one reading, everybody measured by somebody else',
  '2,1': 'one reading, absolute agreement: any examiner of this kind',
  '3,1': 'one reading, consistency: these examiners only',
  '1,k': 'mean of all readings, everybody measured by somebody else',
  '2,k': 'mean of all readings, absolute agreement',
  '3,k': 'mean of all readings, consistency',
};

/** A coefficient with its 95 % confidence interval. */
export interface Icc {
  readonly value: number;
  readonly low: number;
  readonly high: number;
}

/** What a reliability study comes to. Errors are in the unit of the readings. */
export interface Reliability {
  readonly variance: StudyVariance;
  readonly icc: Readonly<Record<IccForm, Icc>>;
  readonly sem: { readonly agreement: number; readonly consistency: number };
  readonly mdc95: { readonly agreement: number; readonly consistency: number };
}

const P = 0.975;

/**
 * How one reading's coefficient steps up to that of the mean of k
 * (Spearman–Brown). A limit below the least a coefficient can be has none: −1
 * stands for "says nothing".
 */
const stepUp = (icc: number, k: number): number => (1 + (k - 1) * icc > 0 ? Math.max(-1, (k * icc) / (1 + (k - 1) * icc)) : -1);

/** Interval of a form whose ratio of mean squares is F-distributed. */
function byRatio(f0: number, k: number, df1: number, df2: number): { one: Omit<Icc, 'value'>; mean: Omit<Icc, 'value'> } {
  if (!Number.isFinite(f0)) return { one: { low: 1, high: 1 }, mean: { low: 1, high: 1 } };
  const low = f0 / fQuantile(P, df1, df2);
  const high = f0 * fQuantile(P, df2, df1);
  return {
    one: { low: (low - 1) / (low + k - 1), high: (high - 1) / (high + k - 1) },
    mean: { low: 1 - 1 / low, high: 1 - 1 / high },
  };
}

/** Interval of ICC(2,1): a combination of mean squares, its degrees of freedom after Satterthwaite. */
function byCombination({ n, k, bms, jms, ems }: StudyVariance, icc: number): Omit<Icc, 'value'> {
  if (ems === 0 && jms === 0) return { low: 1, high: 1 };
  const a = k * icc;
  const b = n * (1 + (k - 1) * icc) - k * icc;
  // v, with FJ = JMS / EMS multiplied out so that a residual of nothing divides nothing.
  const v = ((k - 1) * (n - 1) * (a * jms + b * ems) ** 2) / ((n - 1) * a * a * jms * jms + b * b * ems * ems);
  const f1 = fQuantile(P, n - 1, v);
  const f2 = fQuantile(P, v, n - 1);
  const rest = k * jms + (k * n - k - n) * ems;
  return { low: (n * (bms - f1 * ems)) / (f1 * rest + n * bms), high: (n * (f2 * bms - ems)) / (rest + n * f2 * bms) };
}

/** The values of the six forms, without intervals: what a bootstrap counts thousands of times. */
export function iccValues({
  n,
  k,
  bms,
  wms,
  jms,
  ems,
}: Pick<StudyVariance, 'n' | 'k' | 'bms' | 'wms' | 'jms' | 'ems'>): Record<IccForm, number> {
  return {
    '1,1': (bms - wms) / (bms + (k - 1) * wms),
    '2,1': (bms - ems) / (bms + (k - 1) * ems + (k * (jms - ems)) / n),
    '3,1': (bms - ems) / (bms + (k - 1) * ems),
    '1,k': (bms - wms) / bms,
    '2,k': (bms - ems) / (bms + (jms - ems) / n),
    '3,k': (bms - ems) / bms,
  };
}

/** Error of one reading in the unit measured: the examiners' own differences counted in, or left out. */
export function semOfStudy({ n, jms, ems }: Pick<StudyVariance, 'n' | 'jms' | 'ems'>): Reliability['sem'] {
  // Examiners who differ by less than chance add nothing.
  return { agreement: Math.sqrt(Math.max(0, (jms - ems) / n) + ems), consistency: Math.sqrt(ems) };
}

/**
 * Reliability of a measurement from a study: six intraclass correlations with
 * 95 % intervals, the standard error and the smallest real change. A
 * coefficient depends on how far apart the people were: read it beside the error.
 *
 * @throws StudyError for a table that cannot be counted, or where everybody measured the same
 * @see Shrout PE, Fleiss JL. Psychol Bull 1979;86:420-428 (from memory)
 * @example reliability(table).icc['2,1'] // { value: 0.29, low: 0.019, high: 0.761 }
 */
export function reliability(table: StudyTable): Reliability {
  const variance = studyVariance(table);
  const { n, k, bms, wms, ems } = variance;
  if (bms === 0) throw new StudyError(null, 'everybody has the same mean; allowed: subjects who differ');
  // The subjects differ so much less than their readings that the ratios lose their meaning.
  if (bms + (variance.jms - ems) / n <= 0 || bms + (k - 1) * ems + (k * (variance.jms - ems)) / n <= 0)
    throw new StudyError(null, 'the readings of one subject differ far more than the subjects do; allowed: readings of the same thing');
  const values = iccValues(variance);
  const oneWay = byRatio(bms / wms, k, n - 1, n * (k - 1));
  const mixed = byRatio(bms / ems, k, n - 1, (n - 1) * (k - 1));
  const random = byCombination(variance, values['2,1']);
  const sem = semOfStudy(variance);
  return {
    variance,
    icc: {
      '1,1': { value: values['1,1'], ...oneWay.one },
      '2,1': { value: values['2,1'], ...random },
      '3,1': { value: values['3,1'], ...mixed.one },
      '1,k': { value: values['1,k'], ...oneWay.mean },
      '2,k': { value: values['2,k'], low: stepUp(random.low, k), high: stepUp(random.high, k) },
      '3,k': { value: values['3,k'], ...mixed.mean },
    },
    sem,
    mdc95: { agreement: mdc95(sem.agreement), consistency: mdc95(sem.consistency) },
  };
}

/**
 * How a coefficient is spoken of, by the lower end of its interval.
 *
 * @see Koo TK, Li MY. J Chiropr Med 2016;15:155-163 (from memory): < 0.50 poor, to 0.75 moderate, to 0.90 good, above excellent
 */
export function iccWord({ low }: Pick<Icc, 'low'>): 'poor' | 'moderate' | 'good' | 'excellent' {
  if (low < 0.5) return 'poor';
  if (low < 0.75) return 'moderate';
  return low < 0.9 ? 'good' : 'excellent';
}
