import { PAIRINGS } from '@dial-gauge/contract';
import { budgetsOf } from '../../records/identity/attempts.js';
import { trierOf } from '../proof.js';
import { serve, type Resource } from '../endpoint.js';
import { PairingRow } from '../../records/pairings/entities.js';
import { closePairing, makeCode, noSuchCode, pairingsOf, useCode } from '../../use-cases/live/pairing.js';

/** Phones as inclinometers of a visit: paired by a code that is told once and used once. */
export const pairings: Resource = {
  entities: [PairingRow],
  routes: [
    serve(PAIRINGS.pair, (work, { params, body }) => makeCode(work, params.id, body.id)),
    serve(PAIRINGS.pairings, async (work, { params }) => ({ pairings: await pairingsOf(work, params.id) })),
    serve(PAIRINGS.unpair, async (work, { params }, { request }) => {
      const visitId = await closePairing(work, params.id);
      return async () => {
        await request.services.live?.letGo(visitId, params.id);
        return {};
      };
    }),
    serve(
      PAIRINGS.redeem,
      async (work, { body: { code } }, { request, response }) => {
        const { limiter, devices } = request.services;
        const phone = await limiter.attempt(budgetsOf('pairing', 'any code', trierOf(request, 'phone')), () => useCode(work, code));
        if (!phone) throw noSuchCode();
        devices.remember(request, response, 'phone');
        return phone;
      },
      { unit: 'pooled' },
    ),
  ],
};
