import { listed, say } from '../words/say.js';
import { sinceLast, sizeOfChange, type SinceLast } from './since-last.js';
import { nameOf, once } from './sums.js';
import type { Kind } from './types.js';

/** Worse than at the last visit by more than measuring error. It comes before everything else, whatever got better since the first visit. */
export const worse: Kind<SinceLast> = {
  stage: 'worse',
  rank: 0,
  mark: 'fall',
  telling: true,
  detect: (evidence) => sinceLast(evidence, 'loss'),
  verdict: (f) => say('{size} worse than at the last visit', sizeOfChange(f)),
  brief: (f) => say('{size} worse', sizeOfChange(f)),
  sum: {
    at: 0,
    words: (all) =>
      all.length ? say('Since the last visit: {motions}.', { motions: listed(once(all).map((f) => `${nameOf(f)} ${f.brief}`)) }) : '',
  },
};
