import { motion } from '../catalogue/index.js';
import { INSTRUMENTS, type Instrument, type MotionId } from '../terms.js';
import type { ErrorContext, OwnError } from './own.js';
import { checkedErrors } from './checked.js';
import type { PublishedError } from './published.js';
import { combinedSem, Z90, Z95 } from './sem.js';
import type { ErrorSource, Examiners } from './source.js';

/** The error used for a number, and where it comes from, in the motion's unit. */
export interface MeasuringError {
  readonly sem: number;
  readonly source: ErrorSource;
  /** True where nobody measured it for this motion: a rule of thumb. */
  readonly isDefault: boolean;
  /** True where this clinic measured it itself. */
  readonly isOwn: boolean;
}

/** What an error is asked for. */
export interface ErrorQuery {
  readonly motion: MotionId;
  readonly instrument: Instrument;
  /** Protocol of the reading; some published errors hold for one alone. */
  readonly protocol?: string;
  /** The reading itself: the error of a force grows with it. */
  readonly value?: number;
}

interface DefaultError {
  readonly sameExaminer: number;
  readonly otherExaminer: number;
  /** True where the figures are shares of the reading. */
  readonly isShare?: boolean;
  readonly words: string;
}

/**
 * Defaults for want of anything better, in degrees, centimetres, seconds or
 * as a share of the reading.
 *
 * @see common practice; for the goniometer of the size of Boone DC et al. 1978 (same rater 3–4, other
 *   raters 5–6, from memory)
 */
const DEFAULTS: Readonly<Record<Instrument, DefaultError>> = {
  goniometer: { sameExaminer: 3, otherExaminer: 5, words: 'goniometer' },
  inclinometer: { sameExaminer: 2, otherExaminer: 4, words: 'inclinometer' },
  dualInclinometer: { sameExaminer: combinedSem(2, 2), otherExaminer: combinedSem(4, 4), words: 'two inclinometer sites subtracted' },
  phone: { sameExaminer: 2, otherExaminer: 4, words: 'phone, taken as an inclinometer' },
  picture: { sameExaminer: 5, otherExaminer: 6, words: 'picture' },
  visual: { sameExaminer: 6, otherExaminer: 6, words: 'visual' },
  tape: { sameExaminer: 0.5, otherExaminer: 1, words: 'tape' },
  dynamometer: { sameExaminer: 0.08, otherExaminer: 0.12, isShare: true, words: 'dynamometer' },
  stopwatch: { sameExaminer: 3, otherExaminer: 3, words: 'stopwatch' },
};

/** The default of an instrument, for a table. */
export function defaultError(instrument: Instrument): Omit<DefaultError, 'words'> {
  return DEFAULTS[instrument];
}

/** The standard error a published figure comes to. */
export function semOf({ figure, amount }: Pick<PublishedError, 'figure' | 'amount'>): number {
  if (figure === 'SEM') return amount;
  return amount / ((figure === 'MDC95' ? Z95 : Z90) * Math.SQRT2);
}

/**
 * The standard error of measurement to use for a reading: what the clinic
 * found out itself for this motion, protocol, instrument and examiner;
 * otherwise a published figure, of people after the same procedure or of
 * people in general; otherwise the instrument's default, flagged. A subtracted
 * (dual) reading carries the error of both sites. Two examiners are never surer
 * than one, and a coarser instrument never surer than a finer one.
 *
 * @param sameExaminer false when readings of two examiners are compared
 * @example errorOf({ motion: 'lumbar.flexion', instrument: 'dualInclinometer' }).sem // 2.828…, √(2² + 2²)
 */
export function errorOf(query: ErrorQuery, sameExaminer = true, context: ErrorContext = NOTHING_KNOWN): MeasuringError {
  const { motion: id, instrument, protocol } = query;
  // A share of the reading is another error for every reading.
  if (DEFAULTS[instrument].isShare) return lookUp(query, sameExaminer, context);
  let known = lookedUp.get(context);
  if (!known) lookedUp.set(context, (known = new Map()));
  // A protocol is of one motion.
  let of = known.get(protocol ?? id);
  if (!of) known.set(protocol ?? id, (of = []));
  return (of[INSTRUMENTS.indexOf(instrument) * 2 + (sameExaminer ? 0 : 1)] ??= lookUp(query, sameExaminer, context));
}

const NOTHING_KNOWN: ErrorContext = {};

/** A long record asks for the same few errors thousands of times. Forgotten with the context. */
const lookedUp = new WeakMap<ErrorContext, Map<string, MeasuringError[]>>();

/**
 * From fine to coarse; those of one step are not compared. What is coarser is
 * not taken as surer than what is finer, unless the clinic found so itself.
 *
 * @see common practice, no source
 */
const FINE_TO_COARSE: readonly (readonly Instrument[])[] = [
  ['goniometer', 'inclinometer', 'dualInclinometer', 'phone', 'tape', 'stopwatch', 'dynamometer'],
  ['picture'],
  ['visual'],
];
const STEP_OF = new Map(FINE_TO_COARSE.flatMap((all, step) => all.map((instrument) => [instrument, step] as const)));

/** Instruments that read the same and read it finer. */
function finerThan({ motion: id, protocol, instrument }: ErrorQuery): Instrument[] {
  const ways = motion(id).protocols.filter((way) => protocol === undefined || way.id === protocol);
  const offered = new Set(ways.flatMap(({ instruments }) => instruments));
  return [...offered].filter((other) => STEP_OF.get(other)! < STEP_OF.get(instrument)!);
}

/** The error that is known, and no less than what has to be smaller: one examiner's, and a finer instrument's. */
function lookUp(query: ErrorQuery, sameExaminer: boolean, context: ErrorContext): MeasuringError {
  const known = lookUpAlone(query, sameExaminer, context);
  const alone = sameExaminer ? known : noLess(known, 'two-examiners', errorOf(query, true, context));
  if (alone.isOwn || motion(query.motion).unit === 'yesNo') return alone;
  return finerThan(query).reduce(
    (error, instrument) => noLess(error, 'coarser', errorOf({ ...query, instrument }, sameExaminer, context)),
    alone,
  );
}

const noLess = (error: MeasuringError, why: 'two-examiners' | 'coarser', least: MeasuringError): MeasuringError =>
  least.sem > error.sem
    ? { ...error, sem: least.sem, isOwn: least.isOwn && why === 'two-examiners', source: { kind: 'no-less', why, than: least.source } }
    : error;

function lookUpAlone(query: ErrorQuery, sameExaminer: boolean, context: ErrorContext): MeasuringError {
  const own = ownFor(query, sameExaminer, context.own ?? []);
  if (own) return { sem: own.sem, source: ownSource(own), isDefault: false, isOwn: true };
  const published = publishedFor(query, sameExaminer, context);
  if (published) {
    const { figure, amount, cite, after, population, examiners, lookedUp } = published;
    return {
      sem: semOf(published),
      source: {
        kind: 'published',
        cite,
        population: after ? (population ?? null) : null,
        instrument: query.instrument,
        examiners,
        figure,
        amount,
        ...(lookedUp ? { lookedUp } : {}),
      },
      isDefault: false,
      isOwn: false,
    };
  }
  return { ...usualError(query, sameExaminer), isDefault: true, isOwn: false };
}

/** An own error as the source of another. */
export function ownSource({ examiners, subjects, raters, adoptedOn }: OwnError): ErrorSource {
  return { kind: 'own', examiners, subjects, raters, adoptedOn };
}

function ownFor({ motion: id, instrument, protocol }: ErrorQuery, sameExaminer: boolean, own: readonly OwnError[]): OwnError | undefined {
  return own.find(
    (error) =>
      error.motion === id &&
      error.instrument === instrument &&
      error.protocol === protocol &&
      error.examiners === (sameExaminer ? 'same' : 'other'),
  );
}

/** The rule of thumb of an instrument. */
function usualError(query: ErrorQuery, sameExaminer: boolean): Pick<MeasuringError, 'sem' | 'source'> {
  const examiners: Examiners = sameExaminer ? 'same' : 'other';
  const { words, isShare, ...base } = DEFAULTS[query.instrument];
  const one = sameExaminer ? base.sameExaminer : base.otherExaminer;
  const { unit } = motion(query.motion);
  const usual = (what: string, share?: number): ErrorSource => ({
    kind: 'default',
    what,
    examiners,
    ...(share === undefined ? {} : { share }),
  });
  if (unit === 'yesNo') return { sem: 0, source: { kind: 'none' } };
  if (unit === 'cm' && query.instrument === 'visual') return { sem: 1, source: usual('fists and fingers, half a finger either way') };
  // A stance judged by eye is still timed.
  if (unit === 's') return { sem: DEFAULTS.stopwatch.sameExaminer, source: usual('stopwatch') };
  if (isShare) return { sem: one * Math.abs(query.value ?? 0), source: usual(words, one * 100) };
  return { sem: one, source: usual(words) };
}

const byMotionOf = new WeakMap<readonly PublishedError[], ReadonlyMap<MotionId, readonly PublishedError[]>>();

function byMotion(rows: readonly PublishedError[]): ReadonlyMap<MotionId, readonly PublishedError[]> {
  const known = byMotionOf.get(rows);
  if (known) return known;
  const made = new Map<MotionId, PublishedError[]>();
  for (const row of rows) for (const id of row.motions) made.set(id, [...(made.get(id) ?? []), row]);
  byMotionOf.set(rows, made);
  return made;
}

function publishedFor(
  { motion: id, instrument, protocol }: ErrorQuery,
  sameExaminer: boolean,
  { procedure, checks }: ErrorContext,
): PublishedError | undefined {
  const rows = (byMotion(checkedErrors(checks)).get(id) ?? []).filter(
    (row) =>
      row.instruments.includes(instrument) &&
      row.examiners === (sameExaminer ? 'same' : 'other') &&
      (row.protocol === undefined || row.protocol === protocol),
  );
  return rows.find((row) => row.after !== undefined && row.after === procedure) ?? rows.find((row) => row.forEveryone);
}
