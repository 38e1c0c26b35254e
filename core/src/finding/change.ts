import { mdcOfDifference } from '../error/sem.js';
import type { ErrorContext } from '../error/own.js';
import type { ErrorSource } from '../error/source.js';
import { errorOf } from '../error/table.js';
import type { MeasuredValue } from '../measurement.js';
import { motion, protocolOf, type Better } from '../catalogue/index.js';
import type { Instrument, MotionId } from '../terms.js';
import { instrumentWord } from '../words/instruments.js';
import { say } from '../words/say.js';

/** Really more, really less, or too small to tell from measuring error. */
export type ChangeVerdict = 'more' | 'less' | 'within-error';

/** What differed between two days. */
export type Caveat =
  { readonly kind: 'other-examiner' } | { readonly kind: 'other-instrument'; readonly before: Instrument; readonly now: Instrument };

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
  readonly caveats: readonly Caveat[];
  /** Where the error of the comparison comes from. */
  readonly errorSource: ErrorSource;
}

/** What two readings are told apart by. */
export interface Comparable {
  readonly value: number;
  readonly instrument: Instrument;
  readonly examiner: string | null;
  /** Standard errors, where one examiner took both and where two did. */
  readonly sem: number;
  readonly semOfTwo: number;
}

/**
 * Change between two readings taken the same way. A change at least as large
 * as the MDC is real. Another examiner or instrument widens the error.
 *
 * @example change of a motion in degrees, 20 → 31 at SEM 3: 'more', 11 is past 1.96·√(3² + 3²) = 8.3
 */
export function changeOf(motionId: MotionId, before: Comparable, now: Comparable): Omit<Change, 'errorSource'> {
  const isOfTwo = before.examiner !== null && now.examiner !== null && before.examiner !== now.examiner;
  const caveats: Caveat[] = [];
  if (isOfTwo) caveats.push({ kind: 'other-examiner' });
  if (before.instrument !== now.instrument) caveats.push({ kind: 'other-instrument', before: before.instrument, now: now.instrument });
  const sem = (of: Comparable): number => (isOfTwo ? of.semOfTwo : of.sem);
  const mdc = mdcOfDifference(sem(before), sem(now));
  const change = now.value - before.value;
  const verdict = change === 0 || Math.abs(change) < mdc ? 'within-error' : change > 0 ? 'more' : 'less';
  return { before: before.value, now: now.value, change, mdc, verdict, better: motion(motionId).better, caveats };
}

/** What differed, and what was done about it. */
export function caveatWords(caveat: Caveat): string {
  return caveat.kind === 'other-examiner'
    ? say('another examiner: the larger error is used')
    : say('measured by {before}, now by {now}: both errors are used', {
        before: instrumentWord(caveat.before),
        now: instrumentWord(caveat.now),
      });
}

/** The same of two measurements. The caller pairs by key, so another position never gets here; both were measured in the same context. */
export function changeBetween(before: MeasuredValue, now: MeasuredValue, context: ErrorContext = {}): Change {
  const [a, b] = [before.measurement.examiner, now.measurement.examiner];
  const isOfTwo = a !== undefined && b !== undefined && a !== b;
  const change = changeOf(now.measurement.motion, comparable(before, context, isOfTwo), comparable(now, context, isOfTwo));
  return { ...change, errorSource: isOfTwo ? errorOfTwo(now, context).source : now.errorSource };
}

/** The error of two examiners is looked up only where two took it. */
function comparable(measured: MeasuredValue, context: ErrorContext, isOfTwo: boolean): Comparable {
  const { value, sem, measurement } = measured;
  return {
    value,
    sem,
    semOfTwo: isOfTwo ? errorOfTwo(measured, context).sem : sem,
    instrument: measurement.instrument,
    examiner: measurement.examiner ?? null,
  };
}

/** The error of a reading where another examiner took the one it is compared with. */
export const errorOfTwo = ({ measurement, value }: MeasuredValue, context: ErrorContext) =>
  errorOf({ ...measurement, value, protocol: protocolOf(measurement).id }, false, context);

/** Whether a real change went the wrong way. */
export function isLoss({ verdict, better }: Pick<Change, 'verdict' | 'better'>): boolean {
  return verdict === (better === 'less' ? 'more' : 'less') && better !== 'neither';
}

/** Whether a real change went the right way. */
export function isGain({ verdict, better }: Pick<Change, 'verdict' | 'better'>): boolean {
  return verdict === (better === 'less' ? 'less' : 'more') && better !== 'neither';
}
