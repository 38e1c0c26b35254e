import { AT_HAND } from '@dial-gauge/contract';
import { serve, type Resource } from '../endpoint.js';
import { atHand } from '../../use-cases/offline/at-hand.js';

/** What a device takes along for the day. */
export const atHandOfToday: Resource = {
  entities: [],
  // One moment: what is taken along and that it was are there together. Beside the requests: nobody waits for it.
  routes: [serve(AT_HAND.today, (work, { query }) => atHand(work, query.day), { unit: 'transaction', thread: true })],
};
