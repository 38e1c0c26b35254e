import { SEVERITIES } from '../terms.js';
import type { Finding } from './types.js';

/** Suspect readings right after pain: nothing else can be trusted before they are settled. */
const FIRST: readonly Finding['kind'][] = ['painful', 'active-beyond-passive', 'inconsistent-trials'];
const LAST: readonly Finding['kind'][] = ['changed', 'within-error', 'no-norm'];

function group(finding: Finding): number {
  const first = FIRST.indexOf(finding.kind);
  if (first >= 0) return first;
  const last = LAST.indexOf(finding.kind);
  return FIRST.length + 1 + last;
}

/**
 * Order of reading: pain, then readings to take again, then losses from the
 * heaviest down (severity, then multiples of error), then change, then what
 * has no norm.
 */
export function rank(findings: readonly Finding[]): Finding[] {
  return [...findings].sort(
    (a, b) =>
      group(a) - group(b) || SEVERITIES.indexOf(b.severity) - SEVERITIES.indexOf(a.severity) || (b.timesError ?? 0) - (a.timesError ?? 0),
  );
}
