import { mean, sampleStandardDeviation } from 'simple-statistics';

/** Readings of a study: one row a subject, one column a rater (or a repeat). */
export type StudyTable = readonly (readonly number[])[];

/** The two-way table of variance of a study without missing cells, in squared units of the readings. */
export interface StudyVariance {
  /** Subjects. */
  readonly n: number;
  /** Raters or repeats. */
  readonly k: number;
  /** Mean square between subjects. */
  readonly bms: number;
  /** Mean square within subjects: raters and residual together. */
  readonly wms: number;
  /** Mean square between raters. */
  readonly jms: number;
  /** Residual mean square. */
  readonly ems: number;
  readonly grandMean: number;
  readonly raterMeans: readonly number[];
  /** Standard deviation of the subjects' means: how far apart the people were. */
  readonly sdOfSubjects: number;
}

/** A study that cannot be counted, naming the cell. */
export class StudyError extends RangeError {
  constructor(
    /** Row and column from 0; null where it concerns the whole table. */
    readonly cell: { readonly row: number; readonly column: number } | null,
    message: string,
  ) {
    super(message);
  }
}

/** The least of a study: with fewer there is no variance between subjects, or none between raters. */
export const LEAST_SUBJECTS = 3;
export const LEAST_RATERS = 2;

/**
 * Mean squares of a subjects × raters table.
 *
 * @throws StudyError with fewer than three subjects or two raters, or for a cell that is missing or not a number
 * @see Shrout PE, Fleiss JL. Psychol Bull 1979;86:420-428 (from memory)
 */
export function studyVariance(table: StudyTable): StudyVariance {
  const n = table.length;
  const k = table[0]?.length ?? 0;
  if (n < LEAST_SUBJECTS) throw new StudyError(null, `has ${n} subjects; allowed: ${LEAST_SUBJECTS} or more`);
  if (k < LEAST_RATERS) throw new StudyError(null, `has ${k} readings a subject; allowed: ${LEAST_RATERS} or more`);
  table.forEach((row, at) => {
    if (row.length > k) throw new StudyError({ row: at, column: k }, `is one too many; allowed: ${k} readings, as for the first subject`);
    for (let column = 0; column < k; column++) {
      if (!Number.isFinite(row[column])) throw new StudyError({ row: at, column }, 'is missing; allowed: a number in every cell');
    }
  });
  const subjectMeans = table.map((row) => mean([...row]));
  const raterMeans = Array.from({ length: k }, (_, column) => mean(table.map((row) => row[column]!)));
  const grandMean = mean(subjectMeans);
  const squares = (values: readonly number[], about: number) => values.reduce((sum, value) => sum + (value - about) ** 2, 0);
  const between = k * squares(subjectMeans, grandMean);
  const within = table.reduce((sum, row, at) => sum + squares(row, subjectMeans[at]!), 0);
  const raters = n * squares(raterMeans, grandMean);
  // What is left of within once the raters are taken out cannot be below nothing; rounding can.
  const residual = Math.max(0, within - raters);
  return {
    n,
    k,
    bms: between / (n - 1),
    wms: within / (n * (k - 1)),
    jms: raters / (k - 1),
    ems: residual / ((n - 1) * (k - 1)),
    grandMean,
    raterMeans,
    sdOfSubjects: sampleStandardDeviation(subjectMeans),
  };
}
