import { Steps } from './steps.js';

/** What got worse since an earlier visit is a reason of the queue: every open episode is looked through again. */
export class LossesInQueue1700000000031 extends Steps {
  override readonly there = ['UPDATE episode SET stale = stale + 1 WHERE ended_on IS NULL'];
  override readonly back = [];
}
