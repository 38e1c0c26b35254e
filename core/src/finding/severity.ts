import { shortfall } from '../norms/index.js';
import type { Better } from '../catalogue/index.js';
import { SEVERITIES, type MotionId, type Severity, type Unit } from '../terms.js';
import { raised } from './floors.js';
import type { Thresholds } from './types.js';

/** A loss on both scales, and what it weighs. */
export interface Weight {
  readonly percentLoss: number | null;
  readonly timesError: number;
  readonly severity: Severity;
}

/** What is compared, and how large the error of the comparison is. */
export interface Loss {
  readonly value: number;
  readonly expected: number;
  readonly better: Better;
  readonly unit?: Unit;
  /** The error the loss has to beat, in the same unit. */
  readonly mdc: number;
  /** Where what the function asks for may raise it. */
  readonly motion?: MotionId;
}

/**
 * A loss in percent of the expected figure.
 *
 * @returns null where a percentage says nothing: the expected figure is no larger than the error (an
 *   elbow's 0° of extension), less is better (a distance that should be 0), or it is a length or a girth,
 *   of which a large part is always there
 */
export function percentLoss({ value, expected, better, mdc, unit = 'deg' }: Loss): number | null {
  if (better !== 'more' || unit === 'cm' || expected <= mdc) return null;
  return Math.max(0, ((expected - value) / expected) * 100);
}

/** A loss as a clinic weighs it: against what is expected, and against measuring error. */
export function weigh(loss: Loss, thresholds: Thresholds): Weight {
  const timesError = Math.abs(shortfall(loss.expected, loss.value, loss.better === 'neither' ? 'more' : loss.better)) / loss.mdc;
  const percent = percentLoss(loss);
  const severity = severityOf(percent, timesError, thresholds);
  return { percentLoss: percent, timesError, severity: loss.motion ? raised(severity, loss.motion, loss.value) : severity };
}

/** What arithmetic of tenths leaves over: 25 % is 25 %. */
const HAIR = 1e-9;

const step = (size: number, [mild, moderate, marked]: readonly [number, number, number]): number =>
  [mild, moderate, marked].filter((edge) => size + HAIR >= edge).length;

/**
 * How much a loss weighs, in the clinic's steps: the lesser of what it is as a
 * share of the expected and what it is in multiples of error. So a larger loss
 * never weighs less, and one that error could explain never weighs much,
 * however large a share it is of a small motion.
 *
 * @param percent loss in percent of the expected figure; null where that says nothing
 * @param timesError loss in multiples of the MDC
 */
export function severityOf(percent: number | null, timesError: number, thresholds: Thresholds): Severity {
  const byError = step(timesError, thresholds.severityTimes);
  return SEVERITIES[percent === null ? byError : Math.min(byError, step(percent, thresholds.severityPercent))]!;
}
