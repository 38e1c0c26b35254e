import { kindOf, type Finding } from '../finding/kinds.js';
import type { IsoDate } from '../terms.js';
import type { Series } from './series.js';

/** From which visit on something was found every time. */
export interface StandsSince {
  readonly on: IsoDate;
  /** It was so when it was measured first: for how long before, nobody knows. */
  readonly fromFirst: boolean;
}

/**
 * Since when a finding of the last visit stands: from the first visit on after
 * which each reading of the same measurement says the same.
 *
 * @returns null where its kind is not told from single readings, where it was
 * measured once alone, or where its own reading does not say it
 */
export function standsSince(finding: Finding, all: readonly Series[]): StandsSince | null {
  const stands = kindOf(finding.kind)?.stands;
  const series = all.find(
    ({ protocol, side, mode, digit }) =>
      protocol === finding.protocol && side === finding.side && mode === finding.mode && digit === finding.digit,
  );
  if (!stands || !series || series.points.length < 2) return null;
  const { points } = series;
  let from = points.length;
  while (from > 0 && stands(finding, points[from - 1]!)) from -= 1;
  const first = points[from];
  return first ? { on: first.on, fromFirst: from === 0 } : null;
}
