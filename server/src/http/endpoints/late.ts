import type { Replay } from '../../use-cases/late-entries/decide.js';
import type { Call, Endpoint } from '../endpoint.js';
import { readings } from './readings.js';
import { retests } from './retests.js';
import { screens } from './screens.js';

/** Endpoints whose entries are kept for review where they arrive after the signature, by the name they are kept under. */
const LATE_ENDPOINTS: ReadonlyMap<string, Endpoint> = new Map(
  [readings, retests, screens]
    .flatMap(({ routes }) => routes)
    .flatMap((endpoint) => (endpoint.options.late ? [[endpoint.options.late.name, endpoint] as const] : [])),
);

/** Does with a kept entry what its endpoint would have done with it in time. */
export const replayLate: Replay = (work, { route, target, body }) => {
  const endpoint = LATE_ENDPOINTS.get(route);
  if (!endpoint) throw new Error(`no endpoint takes a late entry of ${route}`);
  const call = { params: { id: target }, query: {}, body, sent: { enteredAt: null, ahead: null } } as unknown as Call;
  return endpoint.handle(work, call);
};
