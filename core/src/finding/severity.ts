import type { Severity } from '../terms.js';
import type { Thresholds } from './types.js';

/** A loss in percent of the expected figure; null when nothing is expected or nothing is lost. */
export function percentLoss(value: number, expected: number): number | null {
  return expected > 0 ? Math.max(0, ((expected - value) / expected) * 100) : null;
}

/**
 * How much a loss weighs: by percent of the expected figure, in the clinic's
 * steps. A loss that measuring error alone could explain is never more than
 * mild, however large a share it is of a small motion.
 *
 * @param timesError loss in multiples of the MDC
 */
export function severityOf(loss: number | null, timesError: number, thresholds: Thresholds): Severity {
  const [mild, moderate, marked] = thresholds.severityPercent;
  const percent = loss ?? 0;
  if (percent < mild) return 'note';
  if (timesError < 1 || percent < moderate) return 'mild';
  return percent < marked ? 'moderate' : 'marked';
}
