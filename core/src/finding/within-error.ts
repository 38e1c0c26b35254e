import { formatSigned, rounded, suffixOf } from '../words/figures.js';
import { say } from '../words/say.js';
import { sinceLast, type SinceLast } from './since-last.js';
import type { Kind } from './types.js';

/** Against the last visit: a change too small to tell from measuring error. */
export const withinError: Kind<SinceLast> = {
  stage: 'error',
  rank: 0,
  mark: 'plain',
  aside: true,
  detect: (evidence) => sinceLast(evidence, 'within-error'),
  verdict: (f) =>
    say('{change} since last time, within measuring error', {
      change: `${formatSigned(rounded(f.facts.change, f.unit))}${suffixOf(f.unit)}`,
    }),
};
