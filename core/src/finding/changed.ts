import { listed, say } from '../words/say.js';
import { sinceLast, sizeOfChange, type SinceLast } from './since-last.js';
import { nameOf, once } from './sums.js';
import type { Kind } from './types.js';

/** Against the last visit: a change that measuring error does not cover, and no loss. */
export const changed: Kind<SinceLast> = {
  stage: 'change',
  rank: 0,
  mark: 'change',
  aside: true,
  detect: (evidence) => sinceLast(evidence, 'other'),
  verdict: (f) => say(f.facts.change > 0 ? '{size} more than last time' : '{size} less than last time', sizeOfChange(f)),
  brief: (f) => say(f.facts.change > 0 ? '{size} more' : '{size} less', sizeOfChange(f)),
  sum: {
    at: 8,
    words: (all) =>
      all.length
        ? say('Really changed since the last visit: {motions}.', { motions: listed(once(all).map((f) => `${nameOf(f)} ${f.brief}`)) })
        : '',
  },
};
