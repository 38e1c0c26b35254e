import { mdcOfDifference } from '../error/sem.js';
import { errorOf } from '../error/table.js';
import type { MeasuredValue } from '../measurement.js';
import type { Degrees } from '../terms.js';

/** Real gain or loss of range, or too small to tell from measuring error. */
export type ChangeVerdict = 'more' | 'less' | 'within-error';

/** One measurement against the same one on an earlier day. */
export interface Change {
  readonly before: Degrees;
  readonly now: Degrees;
  readonly change: Degrees;
  /** Smallest change that is larger than the error of both readings, degrees. */
  readonly mdc: Degrees;
  readonly verdict: ChangeVerdict;
  /** What differed between the two days and made the error larger. */
  readonly caveats: readonly string[];
}

/**
 * Change between two readings taken the same way. A change at least as large
 * as the MDC is real. Another examiner or instrument widens the error.
 *
 * The caller pairs by key, so another position never gets here.
 *
 * @example change(at(20), at(31)).verdict // 'more': 11 is past 1.96·√(3² + 3²) = 8.3
 */
export function changeBetween(before: MeasuredValue, now: MeasuredValue): Change {
  const [a, b] = [before.measurement, now.measurement];
  const otherExaminer = a.examiner !== undefined && b.examiner !== undefined && a.examiner !== b.examiner;
  const caveats: string[] = [];
  if (otherExaminer) caveats.push('another examiner: the larger error is used');
  if (a.instrument !== b.instrument) caveats.push(`measured by ${a.instrument}, now by ${b.instrument}: both errors are used`);
  const semOf = (m: MeasuredValue) => errorOf(m.measurement.instrument, !otherExaminer)?.sem ?? m.sem;
  const mdc = mdcOfDifference(semOf(before), semOf(now));
  const change = now.value - before.value;
  const verdict = Math.abs(change) < mdc ? 'within-error' : change > 0 ? 'more' : 'less';
  return { before: before.value, now: now.value, change, mdc, verdict, caveats };
}
