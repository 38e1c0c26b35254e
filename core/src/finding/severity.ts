import { shortfall } from '../norms/index.js';
import type { Better } from '../catalogue/index.js';
import type { Severity } from '../terms.js';
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
  /** The error the loss has to beat, in the same unit. */
  readonly mdc: number;
}

/**
 * A loss in percent of the expected figure.
 *
 * @returns null where a percentage says nothing: the expected figure is no larger than the error (an
 *   elbow's 0° of extension), or less is better (a distance that should be 0)
 */
export function percentLoss({ value, expected, better, mdc }: Loss): number | null {
  if (better !== 'more' || expected <= mdc) return null;
  return Math.max(0, ((expected - value) / expected) * 100);
}

/** A loss as a clinic weighs it: by percent where that says something, otherwise by multiples of the error. */
export function weigh(loss: Loss, thresholds: Thresholds): Weight {
  const timesError = Math.abs(shortfall(loss.expected, loss.value, loss.better === 'neither' ? 'more' : loss.better)) / loss.mdc;
  const percent = percentLoss(loss);
  return { percentLoss: percent, timesError, severity: severityOf(percent, timesError, thresholds) };
}

/**
 * How much a loss weighs, in the clinic's steps. A loss that measuring error
 * alone could explain is never more than mild, however large a share it is of
 * a small motion.
 *
 * @param percent loss in percent of the expected figure; null where that says nothing
 * @param timesError loss in multiples of the MDC
 */
export function severityOf(percent: number | null, timesError: number, thresholds: Thresholds): Severity {
  const [mild, moderate, marked] = percent === null ? thresholds.severityTimes : thresholds.severityPercent;
  const size = percent ?? timesError;
  if (size < mild) return 'note';
  if (timesError < 1 || size < moderate) return 'mild';
  return size < marked ? 'moderate' : 'marked';
}
