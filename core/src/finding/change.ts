import { mdcOfDifference } from '../error/sem.js';
import type { ErrorContext } from '../error/own.js';
import { errorOf } from '../error/table.js';
import type { MeasuredValue } from '../measurement.js';
import { motion, protocolOf, type Better } from '../catalogue/index.js';

/** Really more, really less, or too small to tell from measuring error. */
export type ChangeVerdict = 'more' | 'less' | 'within-error';

/** One measurement against the same one on an earlier day. */
export interface Change {
  readonly before: number;
  readonly now: number;
  readonly change: number;
  /** Smallest change that is larger than the error of both readings, in the motion's unit. */
  readonly mdc: number;
  readonly verdict: ChangeVerdict;
  /** Which way is good for this motion: whether `more` is a gain. */
  readonly better: Better;
  /** What differed between the two days and made the error larger. */
  readonly caveats: readonly string[];
  /** Where the error of the comparison comes from. */
  readonly errorSource: string;
}

/**
 * Change between two readings taken the same way. A change at least as large
 * as the MDC is real. Another examiner or instrument widens the error.
 *
 * The caller pairs by key, so another position never gets here; both were
 * measured in the same context.
 *
 * @example change(at(20), at(31)).verdict // 'more': 11 is past 1.96·√(3² + 3²) = 8.3
 */
export function changeBetween(before: MeasuredValue, now: MeasuredValue, context: ErrorContext = {}): Change {
  const a = before.measurement;
  const b = now.measurement;
  const otherExaminer = a.examiner !== undefined && b.examiner !== undefined && a.examiner !== b.examiner;
  const caveats: string[] = [];
  if (otherExaminer) caveats.push('another examiner: the larger error is used');
  if (a.instrument !== b.instrument) caveats.push(`measured by ${a.instrument}, now by ${b.instrument}: both errors are used`);
  // One examiner's error was looked up when the reading was measured.
  const error = otherExaminer ? errorOfTwo(now, context) : { sem: now.sem, source: now.errorSource };
  const mdc = mdcOfDifference(otherExaminer ? errorOfTwo(before, context).sem : before.sem, error.sem);
  const change = now.value - before.value;
  const verdict = change === 0 || Math.abs(change) < mdc ? 'within-error' : change > 0 ? 'more' : 'less';
  return {
    before: before.value,
    now: now.value,
    change,
    mdc,
    verdict,
    better: motion(b.motion).better,
    caveats,
    errorSource: error.source,
  };
}

const errorOfTwo = ({ measurement, value }: MeasuredValue, context: ErrorContext) =>
  errorOf({ ...measurement, value, protocol: protocolOf(measurement).id }, false, context);

/** Whether a real change went the wrong way. */
export function isLoss({ verdict, better }: Pick<Change, 'verdict' | 'better'>): boolean {
  return verdict === (better === 'less' ? 'more' : 'less') && better !== 'neither';
}

/** Whether a real change went the right way. */
export function isGain({ verdict, better }: Pick<Change, 'verdict' | 'better'>): boolean {
  return verdict === (better === 'less' ? 'less' : 'more') && better !== 'neither';
}
